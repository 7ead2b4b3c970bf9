import type { FigureId } from '@keen-bleed/contract';

/** Which step a figure is read in. */
const FIGURES: Readonly<Partial<Record<FigureId, string>>> = {
  'build-up-time': 'build-up',
  'build-up-rate': 'build-up',
  'build-up-part': 'build-up',
  'build-up-full': 'build-up',
  'free-air-delivery': 'build-up',
  'cut-out': 'cut-out',
  'cut-in': 'cut-in',
  'governor-differential': 'cut-in',
  'governor-cycle': 'cycle',
  'purge-time': 'purge',
  'stop-braking': 'service-stop',
  'coupling-supply': 'coupling-supply',
  'trailer-supply': 'trailer-supply',
  'static-leak': 'static-hold',
  'static-loss': 'static-hold',
  'static-leak-other': 'static-hold',
  'applied-leak': 'applied-hold',
  'applied-loss': 'applied-hold',
  'applied-leak-other': 'applied-hold',
  warning: 'warning',
  'warning-reset': 'rebuild',
  'pop-out-park': 'pop-out',
  'pop-out-trailer': 'pop-out',
  'stop-lamp': 'stop-lamp',
  'reserve-left': 'reserve',
};

/**
 * The step in which a failure is tested again, by the failure's key: `figure:cut-out`, or `look:couplers/seals` for a
 * step and its look. Null for a figure that no step alone reads.
 */
export function stepOfFailure(key: string): string | null {
  const [kind, what = ''] = key.split(':');
  const [first = ''] = what.split('/');
  return kind === 'figure' ? (FIGURES[first as FigureId] ?? null) : first;
}
