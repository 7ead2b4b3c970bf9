import type { PartRecord, UnitDraft } from '@keen-bleed/contract';
import { newUnitDraft, usualGauge, type About } from '@keen-bleed/core';

/** How a unit truly is at one point of its story. */
export interface Truth {
  /** Seconds for 15 psi of build-up. */
  buildUpS: number;
  cutOutPsi: number;
  cutInPsi: number;
  leakPsiPerMin: number;
  /** Where nothing is given, a little more than with the brakes released. */
  appliedLeakPsiPerMin?: number;
  warningPsi?: number;
  popOutPsi?: number;
}

/** A unit of the made-up depot and what happens to it. */
export interface DemoUnit {
  draft: UnitDraft;
  /** The truth at `t`, from 0 two years ago to 1 today. */
  story: (t: number) => Truth;
  /** Days between its tests. */
  everyDays: number;
  /** Days since its last test. */
  lastTestDaysAgo: number;
  /** What was written down at the last test. */
  lastNote?: string;
  /** What was told of the vehicle and the place at the last test. */
  lastAbout?: About;
  /** What was added to the last test once it was closed. */
  lastNoteAfter?: string;
  /** What was found at the last test that is not usually found, by the key of the question. */
  lastFound?: Record<string, string>;
  /** The last run was cut short, and why. */
  cutShort?: string;
  retired?: boolean;
}

const healthy =
  (truth: Partial<Truth> = {}) =>
  (): Truth => ({
    buildUpS: 27,
    cutOutPsi: 126,
    cutInPsi: 106,
    leakPsiPerMin: 0.4,
    ...truth,
  });

/** Rises from `from` to `to`, slowly first. */
const creep = (from: number, to: number, t: number, power = 2) => from + (to - from) * t ** power;

/** When somebody walked round a unit and looked at its parts. */
const WALKED_MS = Date.UTC(2026, 5, 12, 9, 30);
const walkedRound = (parts: readonly Omit<PartRecord, 'standing' | 'foundAtMs'>[]): PartRecord[] =>
  parts.map((part) => ({ standing: 'fitted', foundAtMs: WALKED_MS, ...part }));

const base = (
  kind: UnitDraft['kind'],
  number: string,
  name: string,
  buildYear: number,
): UnitDraft => ({
  ...newUnitDraft(kind, buildYear),
  number,
  name,
});

/** A winter-road and aggregate depot in hill country; all of it is made up. */
export const demoFleet: readonly DemoUnit[] = [
  {
    draft: {
      ...base('truck', '12', 'Gritter', 2016),
      registration: 'GRT 012',
      frameNumber: 'MADEUP16GRITTER12',
      // Walked round once: what a replacement has to match is known of these.
      parts: walkedRound([
        { partId: 'dryer', fittedOn: '2025-09-03', note: 'One cartridge.' },
        { partId: 'foot-valve', number: 'F 2210' },
        { partId: 'rear-relay', setPsi: 4, thread: '3/8 NPT' },
        { partId: 'modulating-valve' },
      ]),
      air: { modulatingValve: true },
      testEveryDays: 45,
    },
    // A service hose chafes through: nothing for a year and a half, then ever more.
    story: (t) => ({ ...healthy()(), leakPsiPerMin: creep(0.6, 4.6, t, 5) }),
    everyDays: 42,
    lastTestDaysAgo: 1,
    lastNote: 'Hiss near the rear left chamber hose, by ear only.',
    lastAbout: { odometer: { value: 184_320, unit: 'km' }, place: 'Pit 2' },
    lastNoteAfter: 'Hose rubs on the frame clip. New one ordered.',
  },
  {
    draft: {
      ...base('truck', '15', 'Gritter', 2016),
      testEveryDays: 45,
      // An air suspension was put in later, and taken from the wrong tank.
      parts: walkedRound([
        { partId: 'suspension', note: 'Fitted later, by the body builder.' },
        { partId: 'accessories' },
      ]),
      lines: [
        {
          lineId: 'accessories.in',
          standing: 'fitted',
          from: { partId: 'supply-tank', port: 'out.9' },
          note: 'From the supply tank, not from secondary.',
          foundAtMs: WALKED_MS,
        },
      ],
    },
    // The dryer is past its time: it blocks, and the build-up drags.
    story: (t) => ({
      ...healthy({ leakPsiPerMin: 0.7 })(),
      buildUpS: creep(26, 41.5, t, 3),
    }),
    everyDays: 42,
    lastTestDaysAgo: 39,
    lastNote: 'A cup of milky water from the supply tank.',
    lastFound: { water: 'milky' },
  },
  {
    draft: { ...base('truck', '18', 'Gritter', 2021), testEveryDays: 45 },
    story: healthy({
      buildUpS: 24,
      cutOutPsi: 128,
      cutInPsi: 108,
      leakPsiPerMin: 0.2,
    }),
    everyDays: 42,
    lastTestDaysAgo: 12,
  },
  {
    draft: {
      ...base('truck', '03', 'Old gritter', 1971),
      circuits: 'single',
      tanks: [
        { role: 'supply', volumeIn3: 1400 },
        { role: 'primary', volumeIn3: 2800 },
      ],
      chambers: [
        { type: '20', count: 2, springBrake: false },
        { type: '30', count: 2, springBrake: false },
      ],
      governor: { cutInPsi: 85, cutOutPsi: 105 },
      air: { lowAirSwitches: 'supply-tank' },
      gauge: { unit: 'psi', division: 5, top: 150 },
      makerLimits: { cutOutMinPsi: 95, cutOutMaxPsi: 115, cutInMinPsi: 80 },
    },
    story: healthy({
      buildUpS: 38,
      cutOutPsi: 106,
      cutInPsi: 86.5,
      leakPsiPerMin: 0.9,
    }),
    everyDays: 60,
    lastTestDaysAgo: 20,
    // Held since its stop: the left side brakes less.
    lastFound: { stop: 'pull-right' },
  },
  {
    draft: base('tractor', '07', 'Tractor', 2014),
    // The governor drifts down: cut-in first nears its floor, then may be under it.
    story: (t) => ({
      ...healthy({ leakPsiPerMin: 0.5 })(),
      cutOutPsi: creep(127, 124.5, t, 1.5),
      cutInPsi: creep(107, 99, t, 1.5),
    }),
    everyDays: 45,
    lastTestDaysAgo: 6,
  },
  {
    draft: { ...base('tractor', '09', 'Tractor', 2019), testEveryDays: 45 },
    story: healthy({
      buildUpS: 22,
      cutOutPsi: 127,
      cutInPsi: 107,
      leakPsiPerMin: 0.3,
    }),
    everyDays: 45,
    lastTestDaysAgo: 48,
  },
  {
    draft: { ...base('tractor', '11', 'Tractor', 2012), air: { modulatingValve: false } },
    // Loses air only with the parking brakes released; mended half a year ago, and it shows.
    story: (t) => ({
      ...healthy({ buildUpS: 30 })(),
      leakPsiPerMin: t < 0.72 ? creep(0.8, 3.4, t / 0.72, 3) : 0.5,
    }),
    everyDays: 45,
    lastTestDaysAgo: 17,
  },
  {
    draft: {
      ...base('truck', '04', 'Tipper', 2011),
      testEveryDays: 60,
      air: { compressorLPerTurn: 0.32, compressorPerEngineTurn: 1 },
    },
    // A tired compressor: now past its limit.
    story: (t) => ({
      ...healthy({ leakPsiPerMin: 1 })(),
      buildUpS: creep(33, 52, t, 1.6),
    }),
    everyDays: 55,
    lastTestDaysAgo: 9,
    lastNote: 'Compressor loaded nearly all the time.',
  },
  {
    draft: {
      ...base('truck', '21', 'Tipper', 2020),
      ports: 'numbers',
      gauge: usualGauge.bar,
      governor: { cutInPsi: 104.4, cutOutPsi: 124.7 },
      tanks: [
        { role: 'supply', volumeIn3: 610 },
        { role: 'primary', volumeIn3: 2440 },
        { role: 'secondary', volumeIn3: 2440 },
      ],
      chambers: [
        { type: '20', count: 2, springBrake: false },
        { type: '24', count: 4, springBrake: true, loadSensing: true },
      ],
    },
    story: healthy({
      buildUpS: 25,
      cutOutPsi: 126.2,
      cutInPsi: 106.6,
      leakPsiPerMin: 0.4,
    }),
    everyDays: 50,
    lastTestDaysAgo: 15,
  },
  {
    draft: {
      ...base('bus', '02', 'Crew bus', 2018),
      testEveryDays: 45,
      // Its needle dips a little at each cut-out: the dryer takes its purge from the primary tank.
      air: { dryerPurge: 'service-tank', stopLampSwitches: 'two' },
      gaugeChecks: [
        { gauge: 'primary', dashPsi: 100, masterPsi: 102, atMs: Date.UTC(2026, 2, 3, 9) },
      ],
    },
    story: healthy({
      buildUpS: 29,
      cutOutPsi: 124,
      cutInPsi: 102,
      leakPsiPerMin: 0.5,
    }),
    everyDays: 44,
    lastTestDaysAgo: 30,
    cutShort: 'Called out with the crew before the hold',
  },
  {
    draft: base('trailer', '31', 'Low-loader', 2017),
    story: healthy({ leakPsiPerMin: 0.2 }),
    everyDays: 80,
    lastTestDaysAgo: 33,
  },
  {
    draft: {
      ...base('trailer', '26', 'Old flatbed', 1972),
      circuits: 'single',
      chambers: [{ type: '30', count: 4, springBrake: false }],
    },
    story: (t) => ({ ...healthy()(), leakPsiPerMin: creep(0.3, 0.9, t, 1) }),
    everyDays: 85,
    lastTestDaysAgo: 60,
  },
  {
    draft: base('trailer', '22', 'Bulk trailer', 2015),
    story: healthy({ leakPsiPerMin: 0.3 }),
    everyDays: 80,
    lastTestDaysAgo: 51,
  },
  {
    draft: base('trailer', '33', 'Plant trailer', 2019),
    story: healthy({ leakPsiPerMin: 0.3 }),
    everyDays: 85,
    lastTestDaysAgo: 38,
  },
  {
    draft: base('trailer', '24', 'Bulk trailer', 2015),
    story: healthy({ leakPsiPerMin: 0.4 }),
    everyDays: 80,
    lastTestDaysAgo: 51,
  },
  {
    draft: {
      ...base('dolly', '23', 'Dolly', 2015),
      tanks: [{ role: 'trailer', volumeIn3: 1440 }],
    },
    story: healthy({ leakPsiPerMin: 0.2 }),
    everyDays: 80,
    lastTestDaysAgo: 51,
  },
  {
    draft: base('truck', '01', 'Plough', 1998),
    story: (t) => ({
      ...healthy({ buildUpS: 40 })(),
      leakPsiPerMin: creep(1, 2.8, t, 1),
    }),
    everyDays: 90,
    lastTestDaysAgo: 160,
    lastNote: 'Taken off the road.',
    retired: true,
  },
];

/** A rig of the depot: what is coupled behind what, and how it is tested. */
export interface DemoRig {
  /** Unit numbers, front to rear. */
  numbers: readonly string[];
  truth: (t: number) => Truth;
  everyDays: number;
  lastTestDaysAgo: number;
  lastFound?: Record<string, string>;
}

/** What stands coupled in the depot. */
export const demoRigs: readonly DemoRig[] = [
  {
    numbers: ['09', '31'],
    truth: healthy({ buildUpS: 24, cutOutPsi: 127, cutInPsi: 107, leakPsiPerMin: 0.9 }),
    everyDays: 70,
    lastTestDaysAgo: 25,
  },
  {
    // A coupler seal perishes between the first trailer and the dolly.
    numbers: ['11', '22', '23', '24'],
    truth: (t) => ({
      ...healthy({ buildUpS: 33 })(),
      leakPsiPerMin: creep(1.2, 3.9, t, 4),
      appliedLeakPsiPerMin: creep(1.8, 5.2, t, 4),
    }),
    everyDays: 80,
    lastTestDaysAgo: 10,
    lastFound: { seals: 'perished' },
  },
  {
    // Loses nearly what it may: on a dial of 0.2 bar that cannot be told from too much.
    numbers: ['21', '26'],
    truth: (t) => ({
      ...healthy({ buildUpS: 28, cutOutPsi: 126.2, cutInPsi: 106.6 })(),
      leakPsiPerMin: creep(1.1, 2.8, t, 3),
    }),
    everyDays: 90,
    lastTestDaysAgo: 44,
  },
];
