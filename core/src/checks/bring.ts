import type { Twin } from '../twin/twin';
import type { RigState } from './check';

const FAST_RPM = 1800;
const IDLE_RPM = 650;
/** A compressor that cannot do it by then is told by other checks, s. */
const CHARGE_AT_MOST_S = 150;
/** Tanks cool and chambers fill in this, s. */
const SETTLES_S = 25;
const APPLIED_SETTLES_S = 8;
/** A tank is drained under this, psi, and by then, s. */
const EMPTY_PSI = 3;
const DRAINS_S = 180;
/** Under cut-out by so much the compressor loads again, psi. */
const LOADS_UNDER_PSI = 20;

/** Lets time pass on a twin. */
export const wait = (twin: Twin, seconds: number): void => twin.advanceTo(twin.timeS + seconds);

/** Waits until something holds, at most so long; whether it came. */
export function waitFor(twin: Twin, holds: () => boolean, atMostS: number, stepS = 0.5): boolean {
  const until = twin.timeS + atMostS;
  while (twin.timeS < until) {
    if (holds()) return true;
    wait(twin, Math.min(stepS, until - twin.timeS));
  }
  return holds();
}

/** The cocks behind the first unit that is towed, where they lead on to another. */
export const firstCocks = (twin: Twin): string[] =>
  ['#1 supply cock', '#1 service cock'].filter((way) => twin.hasWay(way));

const tankOf = (twin: Twin): string => (twin.hasPlace('primary tank') ? 'primary tank' : '#0 tank');

/** Charges a rig: with its own compressor to cut-out, or from the shop's air. */
function charge(twin: Twin): void {
  if (twin.hasWay('shop valve')) {
    twin.open('shop valve', 1);
    wait(twin, CHARGE_AT_MOST_S / 3);
    return;
  }
  twin.engine(FAST_RPM);
  waitFor(twin, () => twin.isHigh('governor'), CHARGE_AT_MOST_S, 2);
}

/**
 * Brings a twin that stands as it was found into a state, the way a person does: charge it, set the controls, stop the
 * engine, let it settle, then hold what has to be held.
 */
export function bring(twin: Twin, state: RigState): void {
  const own = !twin.hasWay('shop valve');
  charge(twin);
  if (state.park === 'in') twin.dash('park valve', true);
  wait(twin, 3);
  if (state.red === 'in') twin.dash('trailer supply valve', true);
  wait(twin, state.park === 'in' || state.red === 'in' ? SETTLES_S : 5);
  // Filling springs and trailers has taken from it: back to cut-out.
  if (own && (state.park === 'in' || state.red === 'in')) charge(twin);
  if (own) twin.engine(0);
  if (state.id === 'red out' && !twin.hasLatch('trailer supply valve')) {
    // Without a control on the dash its supply is taken off at the coupler.
    const [first] = twin.towedUnits;
    if (first !== undefined) twin.couple(first, 'apart');
  }
  if (state.id === 'supply drained' && twin.hasWay('supply drain')) {
    twin.open('supply drain', 1);
    waitFor(twin, () => twin.psi('supply tank') < EMPTY_PSI, DRAINS_S);
  }
  if (state.id === 'cocks shut') for (const cock of firstCocks(twin)) twin.open(cock, 0);
  wait(twin, SETTLES_S);
  if (state.engine === 'fast' && own) {
    pumpDown(twin);
    twin.engine(FAST_RPM);
    wait(twin, 10);
  }
  if (state.engine === 'idle' && own) {
    charge(twin);
    twin.engine(IDLE_RPM);
    // The purge and its dry air back have to be over.
    wait(twin, 40);
  }
  if (state.pedalPsi > 0) press(twin, state.pedalPsi);
  if (state.handPsi > 0) twin.ask('hand valve', state.handPsi);
  if (state.pedalPsi > 0 || state.handPsi > 0) wait(twin, APPLIED_SETTLES_S);
}

/** Presses the pedal, or what stands for it where the shop works the brakes. */
export function press(twin: Twin, psi: number): void {
  twin.ask('pedal', psi);
  if (!twin.hasPlace('governor line')) twin.ask('hand valve', psi);
}

/** Pumps the pedal until the compressor would load with room to spare. */
function pumpDown(twin: Twin): void {
  const tank = tankOf(twin);
  const from = twin.psi(tank);
  waitFor(
    twin,
    () => {
      twin.ask('pedal', 80);
      wait(twin, 1.5);
      twin.ask('pedal', 0);
      wait(twin, 1.5);
      return twin.psi(tank) < from - 2 * LOADS_UNDER_PSI;
    },
    120,
    0.5,
  );
}
