import { chamberAt } from '../rig/chamberAt';
import { unitsOf } from '../rig/rigUnderTest';
import { usualStrokeMm } from '../standards/strokeLimits';
import type { Fault } from '../twin/faults/fault';
import { noticedShare } from '../twin/faults/noticed';
import { towedPrefix } from '../twin/network/network';
import { outflowScfm } from '../twin/senses/freeAir';
import { lossAt } from '../twin/senses/soapAndEar';
import type { Twin } from '../twin/twin';
import { bubbleSeconds } from '../bench/bubbles';
import { bring, press, wait, waitFor } from './bring';
import { USUAL_SENSES, type Check, type CheckAnswer, type Senses } from './check';
import { HEARD, SOAPED, WATER, WET } from './grades';
import { walked } from './walked';

/** The draws of somebody's ear, hand and eye. */
export interface Chance {
  even: () => number;
  normal: () => number;
}

/** Nobody errs and no gauge is off. */
export const NO_CHANCE: Chance = { even: () => 0.5, normal: () => 0 };

/** It blows from so much on, scfm. */
const BLOWS_SCFM = 2;
/** From film to blown off, scfm [trade: from a film that barely swells to mist blown away]. */
const SOAP_SCFM = [0.002, 0.05, 0.25, 1] as const;
/** A purge valve that opens as it should, scfm at its most. */
const BLAST_SCFM = 25;
const NEVER_S = 60;
/** The governor out of the way, psi, and how long a tank is raised at most, s. */
const RAISED_PSI = 100;
const RAISES_S = 120;
/** A cock on a line is opened by so much at first, m³/(s·Pa), so many times at most. */
const BLEED_STEP = 2e-9;
const BLEED_STEPS = 90;
/** A tank is empty by then, s. */
const EMPTIES_S = 180;
/** An unloader lets go under this, psi. */
const LOADS_PSI = 35;
/** Slow turns, so that what goes back past rings and valves counts. */
const BUILD_RPM = 1000;

/** A fault that a rig has, and what share of eyes notice it at its severity, 0 to 1. */
export interface Has {
  id: string;
  noticed: number;
}

/** A fault at a severity, as an eye meets it. */
export const hasFault = (fault: Fault, severity: number): Has => ({
  id: fault.id,
  noticed: noticedShare(fault, severity),
});

export interface Doer {
  senses?: Senses;
  chance?: Chance;
  /** The faults the rig has: only looks that air does not show go by them. */
  faults?: readonly Has[];
}

/**
 * Does a check on a twin and gives what would be observed through that gauge, ear or eye. The twin is brought into the
 * check's state first, where it does not stand in it already, and is left as the check leaves it.
 */
export function doCheck(
  twin: Twin,
  check: Check,
  { senses = USUAL_SENSES, chance = NO_CHANCE, faults = [] }: Doer = {},
  isInState = false,
): CheckAnswer {
  if (!isInState) bring(twin, check.state);
  return observed(twin, check, senses, chance, faults);
}

/** What is seen of a twin that stands in the check's state. */
export function observed(
  twin: Twin,
  { doing, answer }: Check,
  senses: Senses,
  chance: Chance,
  faults: readonly Has[],
): CheckAnswer {
  const number = (value: number): CheckAnswer => {
    if (answer.kind !== 'number') return { kind: 'number', value };
    const shown = value + answer.error * chance.normal();
    return {
      kind: 'number',
      value: Math.max(0, Math.round(shown / answer.resolution) * answer.resolution),
    };
  };
  switch (doing.does) {
    case 'listen':
      return { kind: 'grade', grade: heard(twin, doing.way, senses, chance) };
    case 'wet':
      return { kind: 'grade', grade: soaped(twin, doing.place, senses, chance) };
    case 'read':
      return number(twin.psi(doing.place));
    case 'compare':
      return { kind: 'points', points: compared(twin, doing, answer, chance) };
    case 'bubble':
      return number(bubbleSeconds(outflowScfm(twin, doing.way)));
    case 'relief':
      return number(relievedAt(twin, doing));
    case 'fall': {
      const before = twin.psi(doing.place);
      wait(twin, doing.minutes * 60);
      return number(Math.max(0, before - twin.psi(doing.place)) / doing.minutes);
    }
    case 'drained':
      return number(drainedBy(twin, doing));
    case 'time':
      return number(timed(twin, doing));
    case 'springs': {
      twin.dash('park valve', true);
      return number(passed(twin, doing.place, doing.pastPsi, true));
    }
    case 'build':
      return number(built(twin, doing));
    case 'governor':
      return number(governed(twin, doing.way));
    case 'switches':
      return number(switchedAt(twin, doing));
    case 'lights':
      return number(litAt(twin, doing));
    case 'lamp':
      press(twin, doing.pedalPsi);
      wait(twin, 2);
      return lit(doing.lamp === 'warning' ? twin.isWarning : twin.isSomeHigh('stop-lamp switch'));
    case 'drain':
      return { kind: 'grade', grade: waterIn(twin, doing.place) };
    case 'blast': {
      waitFor(twin, () => twin.isHigh('governor'), 120, 0.1);
      let most = 0;
      for (let n = 0; n < 40; n += 1) {
        wait(twin, 0.1);
        most = Math.max(most, outflowScfm(twin, doing.way));
      }
      return { kind: 'choice', choice: most > BLAST_SCFM ? 'blast' : most > 1 ? 'weak' : 'none' };
    }
    case 'stroke':
      return number(strokeMm(twin, doing.place));
    case 'damp':
      return {
        kind: 'grade',
        grade: twin.drying > 0.85 ? WET[0] : twin.drying > 0.5 ? WET[1] : WET[2],
      };
    case 'couplers': {
      const at = towedPrefix(doing.unit);
      const crossed = twin.conductanceOf(`${at}supply on service coupler`) > 0;
      const apart = twin.conductanceOf(`${at}supply coupler, front`) > 0;
      return { kind: 'choice', choice: crossed ? 'crossed' : apart ? 'apart' : 'right' };
    }
    case 'cock':
      return {
        kind: 'choice',
        choice: faults.some(({ id }) => id === doing.fault) ? 'wrong' : 'right',
      };
    case 'walk':
      return { kind: 'choice', choice: walked(twin, doing, senses, chance) };
    case 'look':
      return { kind: 'choice', choice: looked(doing, chance, faults) };
  }
}

const lit = (on: boolean): CheckAnswer => ({ kind: 'choice', choice: on ? 'on' : 'off' });

function heard(twin: Twin, way: string, senses: Senses, chance: Chance): string {
  const scfm = outflowScfm(twin, way);
  const least = twin.rpm > 0 ? senses.heardRunningScfm : senses.heardQuietScfm;
  const isThere = scfm >= least;
  if (isThere && chance.even() < senses.missed) return HEARD[0];
  if (!isThere) return chance.even() < senses.imagined ? HEARD[1] : HEARD[0];
  return scfm < BLOWS_SCFM ? HEARD[1] : HEARD[2];
}

function soaped(twin: Twin, place: string, senses: Senses, chance: Chance): string {
  const scfm = lossAt(twin, place);
  let step = SOAP_SCFM.filter((least) => scfm > least).length;
  if (step > 0 && chance.even() < senses.soapMisses) step = 0;
  else if (step > 0 && chance.even() < senses.soapOff) step += chance.even() < 0.5 ? -1 : 1;
  return SOAPED[Math.min(SOAPED.length - 1, Math.max(0, step))]!;
}

function compared(
  twin: Twin,
  doing: Extract<Check['doing'], { does: 'compare' }>,
  answer: Check['answer'],
  chance: Chance,
): (readonly [number, number])[] {
  const { from, to, by, asked, drain, emptied, cyclesPark, heldPsi = 0 } = doing;
  const { error, resolution } = answer.kind === 'points' ? answer : { error: 0, resolution: 1 };
  const read = (place: string) =>
    Math.max(0, Math.round((twin.psi(place) + error * chance.normal()) / resolution) * resolution);
  if (emptied) {
    twin.open(emptied.drain, 1);
    waitFor(twin, () => twin.psi(emptied.tank) <= 2, EMPTIES_S, 0.5);
    wait(twin, 4);
  }
  if (cyclesPark) {
    twin.dash('park valve', true);
    wait(twin, 6);
    twin.dash('park valve', false);
    wait(twin, 10);
  }
  if (heldPsi > 0) press(twin, heldPsi);
  let bled = 0;
  const points = asked.map((psi) => {
    if (by === 'bleed') {
      press(twin, 0);
      // What stands in the service line goes back with the pedal first.
      wait(twin, 3);
      bled += bleedTo(twin, from, psi);
      press(twin, heldPsi);
    } else if (by === 'drain') letDown(twin, from, drain, psi);
    else if (by === 'hand') twin.ask('hand valve', psi);
    else press(twin, psi);
    wait(twin, 4);
    return [read(from), read(to)] as const;
  });
  // The cock that let it out is shut again.
  if (bled > 0) twin.leak(from, -bled);
  return points;
}

/** Opens a cock on a line further and further until it stands at a pressure, and gives how far: conductance, m³/(s·Pa). */
function bleedTo(twin: Twin, place: string, psi: number): number {
  let opened = 0;
  let step = BLEED_STEP;
  for (let n = 0; n < BLEED_STEPS && twin.psi(place) > psi; n += 1) {
    twin.leak(place, step);
    opened += step;
    step *= 1.12;
    wait(twin, 0.4);
  }
  return opened;
}

/** Opens a drain until its tank is down to a pressure, and shuts it again. */
function letDown(twin: Twin, place: string, drain: string | undefined, psi: number): void {
  if (drain === undefined) return;
  twin.open(drain, 0.3);
  // The last of it goes slowly: near nothing is nothing.
  waitFor(twin, () => twin.psi(place) <= Math.max(psi, 1), EMPTIES_S, 0.2);
  if (psi > 0) twin.open(drain, 0);
}

/** The supply tank raised past cut-out, as shop air would, until its safety valve blows. */
function relievedAt(
  twin: Twin,
  { way, place, mostPsi }: Extract<Check['doing'], { does: 'relief' }>,
): number {
  const raised = { does: 'set', latch: 'governor', lowBy: RAISED_PSI, highBy: RAISED_PSI } as const;
  twin.apply([raised]);
  twin.engine(BUILD_RPM);
  waitFor(
    twin,
    () => outflowScfm(twin, way) > BLOWS_SCFM || twin.psi(place) >= mostPsi,
    RAISES_S,
    0.2,
  );
  const psi = twin.psi(place);
  twin.engine(0);
  twin.apply([{ ...raised, lowBy: -RAISED_PSI, highBy: -RAISED_PSI }]);
  return Math.min(psi, mostPsi);
}

function timed(
  twin: Twin,
  { place, pastPsi, pedal }: Extract<Check['doing'], { does: 'time' }>,
): number {
  if (pedal === 'up') {
    press(twin, 90);
    wait(twin, 6);
  }
  press(twin, pedal === 'down' ? 90 : 0);
  return passed(twin, place, pastPsi, pedal === 'down');
}

/** Seconds until a place has passed a pressure. */
function passed(twin: Twin, place: string, psi: number, up: boolean): number {
  const from = twin.timeS;
  const atMost = up ? 20 : NEVER_S;
  const came = waitFor(
    twin,
    () => (up ? twin.psi(place) >= psi : twin.psi(place) <= psi),
    atMost,
    0.02,
  );
  return came ? twin.timeS - from : NEVER_S;
}

function built(
  twin: Twin,
  { place, fromPsi, toPsi }: Extract<Check['doing'], { does: 'build' }>,
): number {
  const low = waitFor(
    twin,
    () => {
      twin.ask('pedal', 80);
      wait(twin, 1);
      twin.ask('pedal', 0);
      wait(twin, 1);
      return twin.psi(place) < fromPsi - 3;
    },
    200,
    0.2,
  );
  if (!low) return 0;
  twin.engine(BUILD_RPM);
  if (!waitFor(twin, () => twin.psi(place) >= fromPsi, 400, 0.2)) return 400;
  const from = twin.timeS;
  waitFor(twin, () => twin.psi(place) >= toPsi, 400, 0.2);
  return twin.timeS - from;
}

/** Governor pressures as a gauge on the supply tank shows them. */
function governed(twin: Twin, way: 'out' | 'in'): number {
  const place = 'supply tank';
  if (way === 'out') {
    let most = 0;
    // What is delivered does not end with the latch: only an unloaded compressor lets it stand.
    waitFor(
      twin,
      () => {
        const psi = twin.psi(place);
        const isOver = psi < most - 0.05;
        most = Math.max(most, psi);
        return isOver;
      },
      200,
      0.5,
    );
    return most;
  }
  waitFor(twin, () => twin.isHigh('governor'), 200, 1);
  wait(twin, 2);
  // Light applications, until the compressor is heard to load: its unloader has lost the governor's signal.
  const loads = () => twin.psi('governor line') < LOADS_PSI;
  waitFor(
    twin,
    () => {
      twin.ask('pedal', 25);
      if (waitFor(twin, loads, 0.8, 0.1)) return true;
      twin.ask('pedal', 0);
      return waitFor(twin, loads, 0.8, 0.1);
    },
    400,
    0.1,
  );
  twin.ask('pedal', 0);
  return twin.psi(place);
}

function switchedAt(
  twin: Twin,
  { latch, drains, place }: Extract<Check['doing'], { does: 'switches' }>,
): number {
  if (!twin.isHigh(latch)) return twin.psi(place);
  for (const drain of drains) twin.open(drain, 0.2);
  const came = waitFor(twin, () => !twin.isHigh(latch) || twin.psi(place) < 2, 400, 0.2);
  for (const drain of drains) twin.open(drain, 0);
  return came && !twin.isHigh(latch) ? twin.psi(place) : 0;
}

function litAt(twin: Twin, { latch, place }: Extract<Check['doing'], { does: 'lights' }>): number {
  press(twin, 0);
  wait(twin, 3);
  for (let psi = 1; psi <= 40; psi += 1) {
    press(twin, psi);
    wait(twin, 1);
    if (twin.isHigh(latch)) return twin.psi(place);
  }
  return 60;
}

function drainedBy(
  twin: Twin,
  {
    drain,
    tank,
    underPsi,
    place,
    pedalPsi,
    tells,
    cyclesPark,
  }: Extract<Check['doing'], { does: 'drained' }>,
): number {
  const before = twin.psi(place);
  twin.open(drain, 1);
  waitFor(twin, () => twin.psi(tank) <= underPsi, 180, 0.5);
  if (cyclesPark) {
    twin.dash('park valve', false);
    wait(twin, 6);
    twin.dash('park valve', true);
    wait(twin, 60);
  }
  if (pedalPsi > 0) press(twin, pedalPsi);
  wait(twin, tells === 'fall' ? 60 : 10);
  const after = twin.psi(place);
  return tells === 'fall' ? Math.max(0, before - after) : after;
}

/** Water in a tank by the room it takes. */
function waterIn(twin: Twin, place: string): string {
  const at = twin.system.network.nodes.findIndex(({ id }) => id === place);
  const room = twin.system.network.nodes[at]?.volumeM3 ?? 1;
  const share = 1 - (twin.system.volume[at] ?? room) / room;
  return share < 0.02 ? WATER[0] : share < 0.06 ? WATER[1] : share < 0.2 ? WATER[2] : WATER[3];
}

/** What the rod of a chamber comes out by at full pedal: by its type and mark, longer by its fault. */
function strokeMm(twin: Twin, place: string): number {
  const at = twin.system.network.nodes.findIndex(({ id }) => id === place);
  const { unit = 0, part = '' } = twin.system.network.nodes[at] ?? {};
  const of = unitsOf(twin.rig)[unit];
  const chamber = of && part ? chamberAt(of, part) : null;
  const usual = usualStrokeMm(chamber?.group.type ?? '30', chamber?.stroke ?? 'standard');
  return usual * (twin.system.stroke[at] ?? 1);
}

function looked(
  { sound, under }: Extract<Check['doing'], { does: 'look' }>,
  chance: Chance,
  faults: readonly Has[],
): string {
  const there = faults.find(({ id }) => id in under);
  // Of a slight fault fewer eyes see anything: the rest see a sound part.
  const bad = there ? under[there.id] : undefined;
  const isSeen = bad !== undefined && (there!.noticed >= 1 || chance.even() < there!.noticed);
  const chances = Object.entries(isSeen ? bad : sound);
  const x = chance.even();
  let sum = 0;
  for (const [choice, share] of chances) {
    sum += share;
    if (x < sum) return choice;
  }
  return chances.at(-1)?.[0] ?? '';
}
