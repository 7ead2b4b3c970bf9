import type { FigureId } from '@keen-bleed/contract';

interface Meaning {
  low?: string;
  high?: string;
}

const SUPPLY_SIDE =
  'A leak on the supply side keeps it working: purge seat, outlet check, tank drain, safety valve.';
const STATIC =
  'If both gauges fall only with the parking brakes released, the spring side; if one falls, that circuit’s tank, drain or valve seat.';
const APPLIED =
  'The service side of the circuit that falls: chamber diaphragm, hose, relay or quick-release exhaust, foot valve.';
const KNOB = 'The dash valve sticks or is of another set point: check with a master gauge first.';

/** What a failed figure most likely points at, in one line; the suspects are weighed elsewhere. */
const meanings: Readonly<Partial<Record<FigureId, Meaning>>> = {
  'build-up-time': {
    high: 'Worn compressor, blocked intake, carbon or ice in the discharge line, or a blocked dryer.',
  },
  'build-up-part': {
    high: 'Worn compressor, blocked intake, or a leak that takes part of what it makes.',
  },
  'build-up-full': {
    high: 'Worn compressor, or a leak that grows with the pressure.',
  },
  'cut-out': {
    low: 'Governor set low, or its sense line leaks.',
    high: 'Governor set high or stuck, its sense line blocked, or the unloader stuck.',
  },
  'cut-in': { low: 'Governor set low or worn.' },
  'governor-differential': {
    low: 'Governor worn: it short-cycles and wears the compressor.',
    high: 'Governor or unloader: suspect either.',
  },
  'governor-cycle': { low: SUPPLY_SIDE },
  'purge-time': {
    high: 'The dryer’s outlet check or its purge valve lets the supply tank out.',
  },
  'stop-braking': {
    low: 'Strokes, linings, unlike crack pressures, or a restricted line: measure the strokes first.',
  },
  'coupling-supply': {
    low: 'A restricted supply line or the protection valve.',
    high: 'The pressure limiter ahead of the coupling.',
  },
  'trailer-supply': { low: 'A leak, a part-closed cock or a restricted line ahead of it.' },
  'static-leak': { high: STATIC },
  'static-leak-other': { high: STATIC },
  'applied-leak': { high: APPLIED },
  'applied-leak-other': { high: APPLIED },
  warning: {
    low: 'The low-pressure switch or its wiring: the driver is warned too late.',
    high: 'The low-pressure switch is set high: check with a master gauge first.',
  },
  'warning-reset': { high: 'The low-pressure switch sticks.' },
  'pop-out-park': { low: KNOB, high: KNOB },
  'pop-out-trailer': {
    low: KNOB,
    high: 'Tractor protection closes early: check with a master gauge first.',
  },
  'gauge-error': { high: 'Do not use this gauge: change it, or read from another one.' },
  'stop-lamp': { high: 'The stop-lamp switch: those behind see the brakes too late.' },
};

/**
 * What a figure outside its limit most likely means.
 *
 * @returns a sentence, or null where the trade has none for it
 */
export function meaningOf(
  figure: FigureId,
  value: number,
  limit: { min: number | null; max: number | null },
): string | null {
  const meaning = meanings[figure];
  if (!meaning) return null;
  if (limit.max !== null && value > limit.max) return meaning.high ?? null;
  if (limit.min !== null && value < limit.min) return meaning.low ?? null;
  return null;
}
