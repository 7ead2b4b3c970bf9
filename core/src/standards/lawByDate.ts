import type { FindingStanding, UnitDraft, UnitKind } from '@keen-bleed/contract';
import { builtWhen } from '../rig/built';

/** Something the law asks of vehicles built from a day on. */
export interface DatedLaw {
  id:
    'antilock' | 'antilock-dash-lamp' | 'automatic-adjusters' | 'dual-circuits' | 'trailer-springs';
  /** The first day, by kind; kinds that are not named are not asked. */
  from: Readonly<Partial<Record<UnitKind, string>>>;
  source: string;
}

const ANTILOCK = '49 CFR 571.121 S5.1.6';

/** What the law asks by date and kind; every date from memory, as no copy was at hand. */
export const datedLaws: Readonly<Record<DatedLaw['id'], DatedLaw>> = {
  antilock: {
    id: 'antilock',
    from: {
      tractor: '1997-03-01',
      truck: '1998-03-01',
      bus: '1998-03-01',
      trailer: '1998-03-01',
      dolly: '1998-03-01',
    },
    source: ANTILOCK,
  },
  'antilock-dash-lamp': {
    id: 'antilock-dash-lamp',
    from: { tractor: '2001-03-01', truck: '2001-03-01' },
    source: ANTILOCK,
  },
  'automatic-adjusters': {
    id: 'automatic-adjusters',
    from: {
      truck: '1994-10-20',
      tractor: '1994-10-20',
      bus: '1994-10-20',
      trailer: '1994-10-20',
      dolly: '1994-10-20',
    },
    source: '49 CFR 393.53, 571.121 S5.1.8',
  },
  'dual-circuits': {
    id: 'dual-circuits',
    from: { truck: '1975-01-01', tractor: '1975-01-01', bus: '1975-01-01' },
    source: '49 CFR 571.121',
  },
  'trailer-springs': {
    id: 'trailer-springs',
    from: { trailer: '1975-01-01' },
    source: '49 CFR 571.121',
  },
};

const MONTHS = [
  ...['January', 'February', 'March', 'April', 'May', 'June', 'July'],
  ...['August', 'September', 'October', 'November', 'December'],
];

/** A law’s first day in words, such as `20 October 1994`. */
function sayDay(day: string): string {
  const [year, month = 1, of = 1] = day.split('-').map(Number);
  return `${of} ${MONTHS[month - 1]} ${year}`;
}

/**
 * What it comes to that a unit lacks what a law asks for by its date: bad where the law surely applies, noted where it
 * surely does not, and open where the date leaves it undecided.
 *
 * @example lacking({ kind: 'truck', buildYear: 2016 }, 'antilock').standing // 'bad'
 */
export function lacking(
  unit: Pick<UnitDraft, 'kind' | 'buildYear' | 'buildMonth' | 'buildYearUnsure'>,
  law: DatedLaw['id'],
): { standing: FindingStanding; means: string } {
  const { from, source } = datedLaws[law];
  const day = from[unit.kind];
  if (day === undefined) return { standing: 'noted', means: '' };
  const when = builtWhen(unit, day);
  if (when === 'before') return { standing: 'noted', means: `Required from ${sayDay(day)} on.` };
  return when === 'from'
    ? {
        standing: 'bad',
        means: `Required on a ${unit.kind} built from ${sayDay(day)} on: ${source}.`,
      }
    : {
        standing: 'open',
        means: `Whether it was built before ${sayDay(day)} decides: enter the year and month.`,
      };
}
