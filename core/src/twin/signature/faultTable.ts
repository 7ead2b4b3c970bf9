import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { Fault } from '../faults/fault';
import { faultsOf } from '../faults/faultsOf';
import type { Listening } from '../routine/dashRun';
import { toldApart, type DashFigure } from './dashReadings';
import { shownBy, signatureOf, type Shown, type Signature } from './signature';

/** How bad each fault of the table is. */
export const TABLED = [0.1, 0.5, 1] as const;

/** One fault: what it shows at each severity, and what it is taken for. */
export interface FaultRow {
  fault: Fault;
  /** By severity, in the order of `TABLED`. */
  shown: readonly { shown: Shown; signature: Signature }[];
  /** The least severity at which a figure of the dash tells it from a sound rig; null where none does. */
  dashFrom: number | null;
  /** Faults that read the same on the dash, at some severity, as it does there. */
  alike: readonly string[];
}

/** Every fault of a rig, in the order of `faultsOf`: a run by the book with each at each severity. */
export function faultTable(
  rig: RigUnderTest,
  only: (fault: Fault) => boolean = () => true,
): FaultRow[] {
  const sound = shownBy(rig);
  const rows = faultsOf(rig)
    .filter(only)
    .map((fault) => ({
      fault,
      shown: TABLED.map((severity) => {
        const shown = shownBy(rig, [[fault, severity]]);
        return { shown, signature: signatureOf(shown, sound) };
      }),
    }));
  return rows.map(({ fault, shown }) => {
    const first = shown.findIndex(({ signature }) => signature.figures.length > 0);
    const here = shown[first];
    const alike = here
      ? rows.filter(
          (other) =>
            other.fault.id !== fault.id &&
            other.shown.some((each) => toldApart(each.shown.dash, here.shown.dash).length === 0),
        )
      : [];
    return {
      fault,
      shown,
      dashFrom: TABLED[first] ?? null,
      alike: alike.map((other) => other.fault.id),
    };
  });
}

const PLACES: Readonly<Record<DashFigure, (value: number) => string>> = {
  'build-up': (s) => (s >= 400 ? 'not in 400 s' : `${s.toFixed(0)} s`),
  'cut-out': (psi) => psi.toFixed(0),
  'cut-in': (psi) => psi.toFixed(0),
  'static primary': (psi) => `${psi.toFixed(1)}/min`,
  'static secondary': (psi) => `${psi.toFixed(1)}/min`,
  'applied primary': (psi) => `${psi.toFixed(1)}/min`,
  'applied secondary': (psi) => `${psi.toFixed(1)}/min`,
  warning: (psi) => psi.toFixed(0),
  red: (psi) => psi.toFixed(0),
  yellow: (psi) => psi.toFixed(0),
  'lamp light': (lit) => (lit ? 'on' : 'off'),
  'lamp full': (lit) => (lit ? 'on' : 'off'),
  'lamp off': (lit) => (lit ? 'on' : 'off'),
};

/** In words, where the figure's own name does not say it. */
const CALLED: Partial<Record<DashFigure, string>> = {
  'lamp light': 'stop lamps at 9 psi',
  'lamp full': 'stop lamps at full pedal',
  'lamp off': 'stop lamps at rest',
};

const said = ({ shown, signature }: FaultRow['shown'][number]): string => {
  const figures = signature.figures.map((figure) => {
    const value = shown.dash[figure];
    return `${CALLED[figure] ?? figure} ${value === null ? 'never' : PLACES[figure](value)}`;
  });
  const ways = new Map<string, { when: Listening[]; scfm: number }>();
  for (const { way, when, scfm } of signature.blows) {
    const before = ways.get(way) ?? { when: [], scfm: 0 };
    ways.set(way, { when: [...before.when, when], scfm: Math.max(before.scfm, scfm) });
  }
  const heard = [...ways].map(
    ([way, { when, scfm }]) =>
      `*${way}* ${when.join(', ')} (${scfm < 10 ? scfm.toFixed(1) : scfm.toFixed(0)} scfm)`,
  );
  return [...figures, ...heard].join('; ') || '–';
};

/** How many of those that read alike are named. */
const NAMED = 5;
const named = (ids: readonly string[]): string =>
  ids.length === 0
    ? '–'
    : ids.length <= NAMED
      ? ids.join(', ')
      : `${ids.slice(0, NAMED).join(', ')} and ${ids.length - NAMED} more`;

/** The table as Markdown: a line for each fault. */
export function faultTableInWords(rows: readonly FaultRow[]): string {
  const head = ['Fault', ...TABLED.map((severity) => `at ${severity}`), 'Dash', 'Reads like'];
  const lines = rows.map(({ fault, shown, dashFrom, alike }) =>
    [
      `${fault.part}: ${fault.title} (${fault.id})`,
      ...shown.map(said),
      dashFrom === null ? 'no' : `from ${dashFrom}`,
      dashFrom === null ? 'a sound rig' : named(alike),
    ].join(' | '),
  );
  return [head.join(' | '), head.map(() => '---').join(' | '), ...lines]
    .map((line) => `| ${line} |`)
    .join('\n');
}
