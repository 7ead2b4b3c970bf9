import type {
  AsideFact,
  CheckFact,
  SeenStanding,
  MendedFact,
  NeedleHeldFact,
  WeatherFact,
} from '@keen-bleed/contract';

/** One thing somebody wrote in a visit. */
export interface DemoEntry {
  /** Sign-in name of whoever wrote it. */
  by: string;
  /** Minutes after the visit was opened. */
  afterMin: number;
  text: string;
  /** Unit number and part; none for the whole. */
  at?: { number: string; partId: string };
  standing?: SeenStanding;
  /** A check of the catalogue that gave it; the text is what was found in words. */
  check?: Pick<CheckFact, 'checkId' | 'title' | 'answer' | 'water' | 'side'>;
  /** A hold, a mend, the weather or something seen on the way. */
  hunt?:
    | Pick<NeedleHeldFact, 'kind' | 'state' | 'needle' | 'fromPsi' | 'toPsi' | 'seconds'>
    | Pick<MendedFact, 'kind' | 'checkId' | 'how'>
    | Pick<WeatherFact, 'kind' | 'airC' | 'humidityPct' | 'lowC' | 'engineHours' | 'loadedShare'>
    | Pick<AsideFact, 'kind' | 'about'>;
  /** A complaint of the driver, by its id in the trade's list. */
  complaintId?: string;
}

/** A visit of the depot. */
export interface DemoVisit {
  /** Unit numbers, front to rear; the first is what it is opened on. */
  numbers: readonly string[];
  openedBy: string;
  daysAgo: number;
  hour: number;
  reason: string | null;
  entries: readonly DemoEntry[];
  /** Closed so many minutes after it was opened; open where none is given. */
  closedAfterMin?: number;
  /** How far the clock of the phone that opened it was ahead, min. */
  clockAheadMin?: number;
}

/** A valve's ports that were read on the bench. */
const read = (
  afterMin: number,
  number: string,
  partId: string,
  title: string,
  text: string,
  check: Pick<CheckFact, 'checkId' | 'answer'>,
): DemoEntry => ({
  by: 'paula',
  afterMin,
  text,
  at: { number, partId },
  check: { title, ...check },
});

/** A joint of Gritter 15 that was wetted. */
const wetted = (afterMin: number, place: string, partId: string, grade: string): DemoEntry => ({
  by: 'paula',
  afterMin,
  text: grade === 'stream' ? 'a stream of bubbles' : grade,
  at: { number: '15', partId },
  check: {
    checkId: `0/wet/${place}`,
    title: `Wet the joints of the ${place}`,
    answer: { kind: 'grade', grade },
    ...(grade === 'dry' ? {} : { side: 'body' as const }),
  },
});

/** A tank of Tractor 07 that was drained. */
const drained = (
  afterMin: number,
  tank: string,
  grade: string,
  water: NonNullable<CheckFact['water']>,
): DemoEntry => ({
  by: 'idris',
  afterMin,
  text: [
    water.mist ? 'only mist' : grade === 'spoonful' ? 'a spoonful' : 'a cup',
    water.ml === undefined ? null : `${water.ml} ml`,
    water.what?.join(' and '),
  ]
    .filter(Boolean)
    .join(', '),
  at: { number: '07', partId: `${tank}-tank` },
  check: {
    checkId: `0/drain/${tank} tank`,
    title: `Drain the ${tank} tank and look`,
    answer: { kind: 'grade', grade },
    water,
  },
});

/** A needle of Gritter 15 that was watched for three minutes. */
const held = (
  afterMin: number,
  state: 'parked' | 'released' | 'applied',
  needle: 'primary' | 'secondary',
  fromPsi: number,
  toPsi: number,
): DemoEntry => ({
  by: 'paula',
  afterMin,
  text: `${{ parked: 'Parked', released: 'Released', applied: 'Pedal held' }[state]}, ${needle}: ${fromPsi} psi to ${toPsi} psi in 3:00`,
  hunt: { kind: 'held', state, needle, fromPsi, toPsi, seconds: 180 },
});

/** What was looked at outside of runs: one visit goes on, with two people in it. */
export const demoVisits: readonly DemoVisit[] = [
  {
    numbers: ['12'],
    openedBy: 'idris',
    daysAgo: 1,
    hour: 13.2,
    reason: 'Failed its static hold this morning',
    entries: [
      {
        by: 'idris',
        afterMin: 6,
        text: 'Hiss near the left hose with the park brake released, gone when parked',
        at: { number: '12', partId: 'rear-chambers' },
        standing: 'bad',
      },
      {
        by: 'paula',
        afterMin: 19,
        text: 'Hose rubs on the spring hanger, outer cover through',
        at: { number: '12', partId: 'rear-chambers' },
        standing: 'bad',
      },
      {
        by: 'paula',
        afterMin: 24,
        text: 'Dry, drain closes',
        at: { number: '12', partId: 'supply-drain' },
        standing: 'good',
      },
      {
        by: 'idris',
        afterMin: 26,
        text: 'froth',
        at: { number: '12', partId: 'rear-chambers' },
        check: {
          checkId: '0/wet/rear left spring',
          title: 'Wet the joints of the rear left spring side',
          answer: { kind: 'grade', grade: 'froth' },
        },
      },
      {
        by: 'idris',
        afterMin: 28,
        text: 'quiet',
        at: { number: '12', partId: 'rear-relay' },
        check: {
          checkId: '0/listen/rear relay: exhaust/released',
          title: 'Listen at the rear relay’s exhaust',
          answer: { kind: 'grade', grade: 'quiet' },
        },
      },
      { by: 'idris', afterMin: 31, text: 'New hose ordered, two days. Make it a hand longer.' },
    ],
  },
  {
    numbers: ['11', '22', '23', '24'],
    openedBy: 'paula',
    daysAgo: 10,
    hour: 13.1,
    reason: 'Seals found perished in the run',
    closedAfterMin: 50,
    entries: [
      {
        by: 'paula',
        afterMin: 12,
        text: 'Supply seal perished, cracks all round',
        at: { number: '23', partId: 'supply-coupler' },
        standing: 'bad',
      },
      {
        by: 'maren',
        afterMin: 45,
        text: 'Seal is due with the next delivery; rig stays in the yard until then',
      },
    ],
  },
  {
    // A new relay read once it was in: what the next curve is laid over.
    numbers: ['12'],
    openedBy: 'paula',
    daysAgo: 166,
    hour: 15.1,
    reason: 'New rear relay: in against out',
    closedAfterMin: 22,
    entries: [
      {
        by: 'paula',
        afterMin: 18,
        text: 'Opens at 4 psi, ± 0.5 psi; then gives what it is asked for; 1 psi more going down than going up; nothing is left once it is let go; 12 points',
        at: { number: '12', partId: 'rear-relay' },
        check: {
          checkId: '0/compare/rear relay control/rear delivery/released',
          title: 'Read in against out: rear relay',
          answer: {
            kind: 'points',
            points: [
              [4, 0],
              [6, 2],
              [8, 4],
              [10, 6],
              [15, 11],
              [20, 16],
              [40, 36],
              [60, 55],
              [40, 37],
              [20, 17],
              [10, 7],
              [0, 0],
            ],
            compared: true,
          },
        },
      },
    ],
  },
  {
    // Two relays read side by side: the old flatbed's was replaced by one that opens late.
    numbers: ['21', '26'],
    openedBy: 'paula',
    daysAgo: 6,
    hour: 13.5,
    reason: 'Flatbed brakes late: on the bench',
    closedAfterMin: 75,
    entries: [
      read(
        14,
        '21',
        'rear-relay',
        'Read in against out: rear relay',
        'Opens at 4.1 psi ± 0.5 psi',
        {
          checkId: '0/compare/rear relay control/rear delivery/released',
          answer: {
            kind: 'points',
            points: [
              [4, 0],
              [6, 2],
              [8, 4],
              [10, 6],
              [15, 11],
              [20, 16],
              [40, 36],
              [60, 56],
              [40, 37],
              [20, 17],
              [10, 7],
              [0, 0],
            ],
            compared: true,
          },
        },
      ),
      read(31, '26', 'relay', 'Read in against out: relay', 'Opens at 8.4 psi ± 0.5 psi', {
        checkId: '1/compare/#1 service line/#1 delivery/released',
        answer: {
          kind: 'points',
          points: [
            [4, 0],
            [6, 0],
            [8, 0],
            [10, 2],
            [15, 6],
            [20, 12],
            [40, 32],
            [60, 51],
            [40, 33],
            [20, 13],
            [10, 3],
            [0, 0],
          ],
          compared: true,
        },
      }),
      read(48, '21', 'rear-relay', 'Time a bubble at the rear relay’s exhaust', '12 s', {
        checkId: '0/bubble/rear relay: exhaust/applied',
        answer: { kind: 'number', value: 12 },
      }),
    ],
  },
  {
    // What brakes the rear with primary lost, read before the winter.
    numbers: ['18'],
    openedBy: 'paula',
    daysAgo: 19,
    hour: 9.2,
    reason: 'Before the winter: hold-off and pop-out',
    closedAfterMin: 50,
    entries: [
      read(
        22,
        '18',
        'modulating-valve',
        'Read front brakes against hold-off, primary empty',
        'Hold-off with the pedal up 94 psi ± 0.9 psi; lets go for each one of front brake 2.71 ± 0.03',
        {
          checkId: '0/compare/front signal/spring line/modulates',
          answer: {
            kind: 'points',
            points: [
              [0, 94],
              [10, 67],
              [15, 53],
              [20, 40],
              [25, 27],
              [30, 12],
            ],
            compared: true,
          },
        },
      ),
      read(41, '18', 'park-control', 'Read where the park valve pops out', '36 psi', {
        checkId: '0/read/park valve',
        answer: { kind: 'number', value: 36 },
      }),
    ],
  },
  {
    // On the way from a slow build-up to the part: what the driver says, and the first check.
    numbers: ['04'],
    openedBy: 'idris',
    daysAgo: 2,
    hour: 10.2,
    reason: 'Slow to build: what is it?',
    closedAfterMin: 20,
    entries: [
      { by: 'idris', afterMin: 1, text: 'Slow to build', complaintId: 'slow-to-build' },
      {
        by: 'idris',
        afterMin: 12,
        text: 'clean and open',
        at: { number: '04', partId: 'compressor' },
        check: {
          checkId: '0/look/intake',
          title: 'Look at the compressor’s intake and its filter',
          answer: { kind: 'choice', choice: 'good' },
        },
      },
    ],
  },
  {
    numbers: ['07'],
    openedBy: 'paula',
    daysAgo: 5,
    hour: 9.4,
    reason: null,
    closedAfterMin: 20,
    clockAheadMin: 47,
    entries: [
      {
        by: 'paula',
        afterMin: 8,
        text: 'Set screw has been turned, paint seal broken',
        at: { number: '07', partId: 'governor' },
        standing: 'noted',
      },
    ],
  },
  {
    // A hunt by the book: two holds halve the rig, one joint explains them, and the hold after its mend closes the budget.
    numbers: ['15'],
    openedBy: 'paula',
    daysAgo: 3,
    hour: 14.1,
    reason: 'Empty every morning: leak hunt',
    closedAfterMin: 99,
    entries: [
      held(9, 'released', 'primary', 119, 112),
      held(10, 'released', 'secondary', 118, 111),
      held(22, 'parked', 'primary', 119, 118),
      held(23, 'parked', 'secondary', 118, 117),
      wetted(31, 'primary tank', 'primary-tank', 'dry'),
      wetted(33, 'secondary tank', 'secondary-tank', 'dry'),
      wetted(41, 'spring line', 'park-relay', 'dry'),
      wetted(44, 'rear left spring', 'rear-chambers', 'dry'),
      wetted(49, 'park line', 'park-line', 'stream'),
      {
        by: 'paula',
        afterMin: 53,
        text: 'Lamp cable rubs on the frame, insulation through',
        hunt: { kind: 'aside', about: 'wiring' },
      },
      {
        by: 'paula',
        afterMin: 66,
        text: 'Park line, sealed again, paste or tape',
        at: { number: '15', partId: 'park-line' },
        hunt: { kind: 'mended', checkId: '0/wet/park line', how: 'sealed' },
      },
      wetted(72, 'park line', 'park-line', 'dry'),
      held(90, 'released', 'primary', 120, 119),
      held(91, 'released', 'secondary', 119, 118),
      held(94, 'applied', 'primary', 106, 105),
      held(95, 'applied', 'secondary', 107, 106),
    ],
  },
  {
    // A spent cartridge by what the drains gave, on a night that will freeze.
    numbers: ['07'],
    openedBy: 'idris',
    daysAgo: 1,
    hour: 6.4,
    reason: 'Drain round',
    closedAfterMin: 12,
    entries: [
      {
        by: 'idris',
        afterMin: 1,
        text: '6 °C, 90 % humidity, down to −7 °C tonight',
        hunt: {
          kind: 'weather',
          airC: 6,
          humidityPct: 90,
          lowC: -7,
          engineHours: 11,
          loadedShare: 0.25,
        },
      },
      drained(4, 'supply', 'cup', { ml: 70, what: ['milky'] }),
      drained(7, 'primary', 'spoonful', { what: ['clear'] }),
      drained(9, 'secondary', 'none', { mist: true }),
    ],
  },
];
