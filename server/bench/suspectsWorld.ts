import type { RigUnderTest } from '@keen-bleed/core';
import { doCheck, USUAL_SENSES, type Check, type CheckAnswer } from '@keen-bleed/core/checks';
import { runFigures, type RunFigures } from '@keen-bleed/core/diagnosis';
import {
  dashRun,
  drawRig,
  drawsOf,
  effectsOf,
  noticedShare,
  played,
  Twin,
  type Draws,
  type Effect,
  type Fault,
} from '@keen-bleed/core/twin';

/* Rigs as they stand in a yard that the model does not know: what it takes for granted is off here. */

/** Ears, soap and eyes of somebody else than the model's. */
const OTHER_SENSES = {
  ...USUAL_SENSES,
  missed: 0.13,
  imagined: 0.03,
  soapMisses: 0.08,
  soapOff: 0.25,
  lookWrong: 0.07,
};

/** What drivers say here: by what is wrong, with other words and shares than the model's table has. */
const SAID: readonly (readonly [RegExp, readonly (readonly [string, number])[]])[] = [
  [
    /^(compressor worn|intake|narrowed: discharge|unloader partly|narrowed: dryer)/,
    [
      ['slow-to-build', 0.45],
      ['lamp-flashes', 0.2],
    ],
  ],
  [
    /^governor (narrow|stuck|high)|^unloader stuck/,
    [
      ['short-cycles', 0.35],
      ['blows', 0.3],
    ],
  ],
  [
    /^governor|^narrowed: governor/,
    [
      ['lamp-flashes', 0.25],
      ['short-cycles', 0.1],
    ],
  ],
  [
    /^(seat: purge|outlet check|seat: supply|leak: supply|leak: governor|unloader piston|seat: safety|leak: discharge)/,
    [
      ['short-cycles', 0.3],
      ['blows', 0.2],
      ['slow-to-build', 0.2],
    ],
  ],
  [
    /^desiccant|^water/,
    [
      ['water', 0.5],
      ['freezes', 0.2],
      ['short-cycles', 0.1],
    ],
  ],
  [
    /^(leak|seat): (primary|secondary)|^pierced: acc|check$/,
    [
      ['buzzer-at-start', 0.4],
      ['short-cycles', 0.2],
    ],
  ],
  [
    /relay crack|control line/,
    [
      ['axle-late', 0.35],
      ['trailer-pushes', 0.15],
    ],
  ],
  [
    /#.*(relay: exhaust|crossed|cock)|^hand valve/,
    [
      ['trailer-drags', 0.4],
      ['stay-on', 0.2],
    ],
  ],
  [
    /^(leak|kinked|long stroke): #/,
    [
      ['trailer-pushes', 0.3],
      ['pulls', 0.1],
      ['blows', 0.1],
    ],
  ],
  [
    /^(kinked|long stroke)/,
    [
      ['pulls', 0.3],
      ['axle-late', 0.2],
    ],
  ],
  [/stays|blocked|spring line|modulating valve on|relay: exhaust/, [['stay-on', 0.4]]],
  [
    /^seat|^pierced|^centre/,
    [
      ['blows', 0.4],
      ['buzzer-at-start', 0.15],
    ],
  ],
  [
    /warning/,
    [
      ['lamp-flashes', 0.2],
      ['buzzer-at-start', 0.3],
    ],
  ],
  [
    /^leak/,
    [
      ['blows', 0.2],
      ['buzzer-at-start', 0.15],
    ],
  ],
];

/** A rig with some faults, as it stands. */
export interface World {
  rig: RigUnderTest;
  faults: readonly { fault: Fault; severity: number }[];
  drawn: readonly Effect[];
  draws: Draws;
  /** Small leaks that are there beside, by the faults' ids: naming one is no mistake. */
  also: readonly string[];
  /** How each needle of the dash is off, and bends over its range. */
  dials: Readonly<Record<'primary' | 'secondary', { off: number; bend: number }>>;
}

/** A needle shows its pressure within 7 % of cut-out, psi. */
const NEEDLE_PSI = 0.07 * 125;

export function worldOf(
  rig: RigUnderTest,
  faults: World['faults'],
  seed: number,
  { surprises = true } = {},
): World {
  const draws = drawsOf(seed * 7 + 3);
  const { effects } = drawRig(rig, seed + 100_000);
  const extra: Effect[] = [];
  const also: string[] = [];
  if (surprises) {
    const twin = new Twin(rig);
    const { nodes, elements } = twin.system.network;
    const tanks = nodes.filter(({ id, unit }) => unit >= 0 && id.endsWith('tank'));
    // Heat leaves faster or slower than any tank the model draws.
    const film = Math.exp(0.4 * draws.normal(2));
    for (const { id } of tanks) extra.push({ does: 'wall', place: id, film, heat: 1 });
    // A hose of another size.
    const bores = elements.filter(({ id, conductance }) => conductance > 0 && /hose|line/.test(id));
    const hose = bores[Math.floor(draws.even() * bores.length)];
    if (hose) extra.push({ does: 'bore', way: hose.id, times: Math.exp(0.5 * draws.normal(2)) });
    // A second, small leak.
    const place = tanks[Math.floor(draws.even() * tanks.length)];
    if (place && faults.length > 0 && draws.even() < 0.3) {
      extra.push({ does: 'leak', place: place.id, conductance: SMALL * (0.5 + draws.even()) });
      also.push(`leak: ${place.id}`);
    }
  }
  const dial = () => ({
    off: (2 * draws.even() - 1) * NEEDLE_PSI,
    bend: 0.02 * draws.normal(2),
  });
  const dials = { primary: dial(), secondary: dial() };
  return { rig, faults, drawn: [...effects, ...extra], draws, dials, also };
}

/** About 0.05 scfm at working pressure, m³/(s·Pa). */
const SMALL = 2.8e-11;

const twinOf = ({ rig, drawn, faults }: World, tanksPsi: number): Twin => {
  const twin = new Twin(rig, { tanksPsi });
  twin.apply(drawn);
  twin.apply(faults.flatMap(({ fault, severity }) => effectsOf(fault, severity)));
  return twin;
};

/** A run by the book, read by somebody at its dash: each needle off and bent, an eye that slips now and then. */
export function readRun(world: World, { channels = false } = {}): RunFigures {
  const { draws, dials } = world;
  const twin = twinOf(world, 70);
  const seen = new Map(played(twin, dashRun(twin, { channels, ears: false })));
  for (const [key, psi] of seen) {
    const gauge = (['primary', 'secondary'] as const).find((each) => key.endsWith(` ${each}`));
    if (!gauge) {
      if (/ (supply|service)$/.test(key)) seen.set(key, psi + 0.15 * draws.normal(3));
      continue;
    }
    if (channels) {
      seen.set(key, psi + 0.15 * draws.normal(3));
      continue;
    }
    const { off, bend } = dials[gauge];
    const slip = draws.even() < 0.01 ? 10 * (draws.even() < 0.5 ? -1 : 1) : 0;
    seen.set(
      key,
      Math.max(0, Math.round(psi + off + bend * (psi - 100) + 0.5 * draws.normal(3) + slip)),
    );
  }
  for (const key of ['at 85', 'at 100']) {
    const s = seen.get(key);
    if (s !== undefined) seen.set(key, s + 0.4 * draws.normal(3));
  }
  return runFigures(seen);
}

/** Of those who notice a bad fault, who notices this one: another curve than the model's. */
const noticedHere = (fault: Fault, severity: number): number =>
  noticedShare(fault, 0) === 1 ? 1 : 1 / (1 + Math.exp(-(severity - 0.35) / 0.08));

/** What a driver says of it; null where nothing. */
export function complained({ faults, draws }: World): string | null {
  const [first] = faults;
  const row = first && SAID.find(([of]) => of.test(first.fault.id))?.[1];
  // Of slight faults nobody speaks; where that ends is not where the model has it.
  const speaks = first ? noticedHere(first.fault, first.severity) : 0;
  let x = draws.even();
  for (const [said, share] of row ?? []) {
    if (x < share * speaks) return said;
    x -= share * speaks;
  }
  return draws.even() < 0.05 ? 'blows' : null;
}

/** Does a check on it. */
export function answered(world: World, check: Check): CheckAnswer {
  const { draws, faults } = world;
  const chance = { even: draws.even, normal: () => draws.normal(3) };
  const ids = faults.map(({ fault, severity }) => ({
    id: fault.id,
    noticed: noticedHere(fault, severity),
  }));
  return doCheck(twinOf(world, 90), check, { senses: OTHER_SENSES, chance, faults: ids });
}
