import type { JobFact } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';

/** What happened in a job: a fact, a retest by the next run of the unit, or a release by a lead. */
export interface DemoStep {
  by: string;
  daysAgo: number;
  hour: number;
  does:
    | {
        fact: (
          at: (partId: string) => { unitId: string; partId: string },
          last: (kind: JobFact['kind']) => string,
        ) => NewFact<JobFact>;
      }
    | { retest: string }
    | { release: true };
}

/** A job of the depot. */
export interface DemoJob {
  number: string;
  openedBy: string;
  daysAgo: number;
  hour: number;
  found: string;
  /** The failures of the unit's last run that it is to close, by their keys. */
  failures?: readonly { key: string; title: string; critical: boolean }[];
  suspected?: { partId: string; chance: number };
  bornOf?: 'failure' | 'suspect';
  steps: readonly DemoStep[];
}

const said = (
  by: string,
  daysAgo: number,
  hour: number,
  fact: Extract<DemoStep['does'], { fact: unknown }>['fact'],
): DemoStep => ({ by, daysAgo, hour, does: { fact } });
const retest = (by: string, daysAgo: number, hour: number, stepId: string): DemoStep => ({
  by,
  daysAgo,
  hour,
  does: { retest: stepId },
});

/** A governor that was changed, tested again and released. */
const governorJob = (daysAgo: number, why: string): DemoJob => ({
  number: '18',
  openedBy: 'paula',
  daysAgo,
  hour: 8,
  found: why,
  bornOf: 'suspect',
  suspected: { partId: 'governor', chance: 0.78 },
  steps: [
    said('paula', daysAgo, 8.3, (at) => ({
      kind: 'proven',
      at: at('governor'),
      faultId: 'leak: governor line',
      text: 'blows at its body while it is unloaded',
      by: 'Wet the governor line, unloaded: stream',
    })),
    said('paula', daysAgo, 9, (at) => ({
      kind: 'fitted',
      at: at('governor'),
      repair: 'replaced',
      was: { setPsi: 128 },
      now: { setPsi: 128, thread: '1/8 NPT' },
      orientation: 'exhaust down',
    })),
    ...['build-up', 'cut-out', 'cut-in'].map((stepId) => retest('idris', daysAgo - 1, 15, stepId)),
    { by: 'maren', daysAgo: daysAgo - 1, hour: 15.5, does: { release: true } },
  ],
});

/** Jobs in every state: found, proven, refused, fitted, passed, released twice over, and one measure forgotten. */
export const demoJobs: readonly DemoJob[] = [
  governorJob(55, 'Blows at the governor while unloaded'),
  governorJob(13, 'Blows at the governor again'),
  {
    // The first conclusion was wrong: a part was changed for nothing.
    number: '03',
    openedBy: 'idris',
    daysAgo: 22,
    hour: 7.5,
    found: 'Loses air overnight',
    bornOf: 'suspect',
    suspected: { partId: 'primary-drain', chance: 0.44 },
    steps: [
      said('idris', 22, 8, (at) => ({
        kind: 'proven',
        at: at('primary-drain'),
        text: 'does not seat',
        by: 'Wet it: film',
      })),
      said('idris', 22, 8.5, (at) => ({
        kind: 'fitted',
        at: at('primary-drain'),
        repair: 'replaced',
        was: {},
        now: { thread: '1/4 NPT' },
      })),
      said('paula', 21, 9, (at, last) => ({
        kind: 'proven',
        at: at('supply-drain'),
        faultId: 'seat: supply drain',
        text: 'does not seat',
        by: 'Wet it after a night: stream',
        supersedes: last('proven'),
        because: 'It lost as much the next night; the film was old soap',
      })),
      said('paula', 21, 9.4, (at) => ({
        kind: 'fitted',
        at: at('supply-drain'),
        repair: 'replaced',
        was: {},
        now: { thread: '1/4 NPT' },
      })),
      retest('paula', 20, 16, 'static-hold'),
      { by: 'maren', daysAgo: 20, hour: 16.4, does: { release: true } },
    ],
  },
  {
    number: '04',
    openedBy: 'idris',
    daysAgo: 9,
    hour: 12,
    found: 'Build-up 51.7 s, allowed at most 45',
    bornOf: 'failure',
    failures: [{ key: 'figure:build-up-time', title: 'Build-up', critical: false }],
    steps: [
      said('maren', 9, 12.5, () => ({ kind: 'owner', personId: 'idris', name: 'Idris Fenn' })),
    ],
  },
  {
    number: '12',
    openedBy: 'idris',
    daysAgo: 1,
    hour: 13.8,
    found: 'Static leak 4 psi/min, allowed at most 2',
    bornOf: 'failure',
    failures: [
      { key: 'figure:static-leak', title: 'Static leak', critical: true },
      { key: 'figure:applied-leak', title: 'Applied leak', critical: true },
    ],
    suspected: { partId: 'rear-chambers', chance: 0.62 },
    steps: [
      said('idris', 1, 13.9, (at) => ({
        kind: 'proven',
        at: at('rear-chambers.1-left'),
        text: 'its hose is chafed through',
        by: 'Wet the joints of the rear left spring side: froth, park released',
      })),
      said('maren', 1, 14.2, () => ({ kind: 'owner', personId: 'paula', name: 'Paula Quill' })),
    ],
  },
  {
    // One wrong crack pressure, refused.
    number: '09',
    openedBy: 'paula',
    daysAgo: 4,
    hour: 9,
    found: 'Rear axle comes on late, by the driver',
    steps: [
      said('paula', 4, 9.6, (at) => ({
        kind: 'proven',
        at: at('rear-relay'),
        text: 'cracks late',
        by: 'Curve at two ports: cracks at 8 psi',
      })),
      said('paula', 4, 10, (at) => ({
        kind: 'refused',
        at: at('rear-relay'),
        offered: { setPsi: 10, thread: '3/8 NPT' },
        problems: [
          'Crack pressure: 10 psi offered, 4 psi ± 1 psi wanted. Axles brake together only where their relays crack alike.',
        ],
      })),
      said('paula', 3, 8.2, (at) => ({
        kind: 'chosen',
        at: at('rear-relay'),
        repair: 'replaced',
        offered: { setPsi: 4, thread: '3/8 NPT' },
      })),
      said('paula', 3, 8.3, () => ({
        kind: 'waiting',
        text: 'the relay, with the Friday van',
      })),
    ],
  },
  {
    number: '02',
    openedBy: 'idris',
    daysAgo: 6,
    hour: 10,
    found: 'Front service hose pulls tight at full lock',
    steps: [
      said('idris', 6, 10.2, (at) => ({
        kind: 'proven',
        at: at('front-quick-release'),
        text: 'its hose is too short, and its fitting weeps',
        by: 'Wet the joints of the front quick-release, pedal held: film',
      })),
      said('idris', 5, 11, (at) => ({
        kind: 'fitted',
        at: at('front-quick-release'),
        repair: 'remade',
        was: {},
        now: {},
        orientation: 'swivel end at the axle',
        note: 'Made a hand longer',
      })),
    ],
  },
  {
    // Half retested: the governor cycle is owed still.
    number: '15',
    openedBy: 'idris',
    daysAgo: 41,
    hour: 9,
    found: 'Dryer blows all the time',
    steps: [
      said('idris', 41, 9.2, (at) => ({
        kind: 'proven',
        at: at('dryer'),
        text: 'its purge valve does not close',
        by: 'Listen at the purge valve, loading: blows',
      })),
      said('idris', 41, 11, (at) => ({
        kind: 'fitted',
        at: at('dryer'),
        repair: 'cleaned',
        was: {},
        now: {},
        note: 'Scale on the seat',
      })),
      retest('paula', 38, 9, 'static-hold'),
      said('maren', 38, 10, () => ({ kind: 'wanted-by', day: '2026-12-01' })),
    ],
  },
  {
    // Forgotten: the spring is caged still.
    number: '11',
    openedBy: 'paula',
    daysAgo: 12,
    hour: 15,
    found: 'Moved off the ramp with a spring caged',
    steps: [
      said('paula', 12, 15.1, (at) => ({
        kind: 'measure',
        measure: 'caged-spring',
        at: at('rear-chambers.1-left'),
        text: 'rear left, to move it off the ramp',
      })),
    ],
  },
  {
    number: '21',
    openedBy: 'paula',
    daysAgo: 18,
    hour: 9,
    found: 'Primary drain drips all the time',
    steps: [
      said('paula', 18, 9.1, (at) => ({
        kind: 'proven',
        at: at('primary-drain'),
        text: 'does not seat',
        by: 'Listen at the primary drain: a hiss',
      })),
      said('paula', 18, 10, (at) => ({
        kind: 'fitted',
        at: at('primary-drain'),
        repair: 'replaced',
        was: {},
        now: { thread: '1/4 NPT' },
        orientation: 'cord to the left',
      })),
      retest('idris', 15, 14, 'static-hold'),
    ],
  },
];
