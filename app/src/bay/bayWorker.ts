import {
  deviceStates,
  exhaustsOf,
  faultsOf,
  jointsOf,
  listenAt,
  nearestReadingPsi,
  needlePsi,
  scfmOf,
  soapAt,
  trembleAt,
  Twin,
  usualSeenGauge,
  type CouplerState,
  type Fault,
} from '@keen-bleed/core/twin';
import { describeRig } from '../air/describeRig';
import type {
  BayEnd,
  BayFrame,
  BayMove,
  BayRig,
  BaySetup,
  BayWorker,
  HandBrake,
  HowBad,
  Named,
} from './bayProtocol';

/** As often as a screen is drawn anew. */
const FRAME_MS = 16;
/** A tab that slept does not owe its rig the time, s. */
const LONGEST_FRAME_S = 0.25;
/** A hand brake drawn half way asks for this in the park line, psi. */
const PARTLY_PSI = 55;
const NO_WEAR = { engineS: 0, loadedS: 0, loadedTurns: 0, purges: 0, applications: 0 };
const SEVERITY: Readonly<Record<HowBad, number>> = { slight: 0.15, plain: 0.5, bad: 1 };
/** What the rig stands with when it is walked up to: parked overnight, part of its air gone. */
const FOUND_PSI = 60;

/** Draws from a seed (mulberry32): the same seed hides the same faults. */
function draw(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A dial shows up to so much too little or too much, psi: half of what it may, 7 % [std: 49 CFR 571.121 S5.1.4]. */
const DIAL_ERROR_PSI = 4;

const dialError = (random: () => number) => (2 * random() - 1) * DIAL_ERROR_PSI;

/** What does not change about a rig: its parts, where they stand on the drawing, and what can be done at them. */
function describe(twin: Twin, rig: BaySetup['rig'], outsideC: number): BayRig {
  const { network } = twin.system;
  const { nodes, elements } = network;
  const named = (ids: readonly string[], of: readonly Named[]) =>
    of.filter(({ id }) => ids.includes(id)).map(({ id, name }) => ({ id, name }));
  const first = nodes.find(({ kind }) => kind === 'primary tank' || kind === 'towed tank');
  return {
    ...describeRig(network, rig),
    joints: named(jointsOf(twin), nodes),
    exhausts: named(exhaustsOf(twin), elements),
    taps: elements
      .filter(({ does }) => does === 'drain' || does === 'cock')
      .map(({ id, name }) => ({ id, name })),
    hasCouplers: elements.some(({ does }) => does === 'coupler'),
    faults: faultsOf(rig, outsideC).map(({ id, part, title }) => ({ id, part, title })),
    hasPark: twin.hasPlace('park line') && !twin.hasHandBrake,
    hasTrailer: twin.hasLatch('trailer supply valve'),
    hasHandValve: twin.hasPlace('hand signal') && !twin.hasHandBrake,
    hasShopAir: twin.hasWay('shop service valve: inlet'),
    hasHandBrake: twin.hasHandBrake,
    gaugePlace: (first ?? nodes[0])?.id ?? '',
  };
}

interface Dial {
  title: string;
  place: string;
  errorPsi: number;
  psi: number;
}

/** The gauges a cab has; a trailer alone has one at its tank and one in the shop's service hose. */
function dialsOf(
  twin: Twin,
  { unit }: BaySetup['rig'],
  tankPlace: string,
): Omit<Dial, 'errorPsi'>[] {
  const powered = [
    { title: unit.circuits === 'dual' ? 'prim.' : 'tank', place: 'primary tank', psi: FOUND_PSI },
    { title: 'sec.', place: 'secondary tank', psi: FOUND_PSI },
  ].filter(({ place }) => twin.hasPlace(place));
  if (powered.length > 0) return powered;
  return [
    { title: 'tank', place: tankPlace, psi: FOUND_PSI },
    { title: 'service', place: 'shop service hose', psi: 0 },
  ];
}

/** Keeps one rig running in real time, or faster, and tells the screen what it does. */
export function makeBay(nowMs: () => number): BayWorker & { tick: () => void } {
  let twin: Twin | null = null;
  let hidden: Fault[] = [];
  let setup: BaySetup | null = null;
  let tell: (frame: BayFrame) => unknown = () => undefined;
  // A screen that is still drawing the last moment is not told the next one: it gets as many as it can draw.
  let isDrawing = false;
  let speed = 1;
  let lastMs = 0;
  let checks = 0;
  let dials: Dial[] = [];
  let pedalPsi = 0;
  let handPsi = 0;
  let handBrake: HandBrake = 'parked';
  let coupling: CouplerState = 'right';
  const opened = new Set<string>();

  const frame = (): BayFrame | null => {
    if (!twin || !setup) return null;
    const { rig } = setup;
    const on = twin;
    const { nodes } = on.system.network;
    const warned = ['primary', 'secondary'].some(
      (circuit) => on.hasPlace(`${circuit} tank`) && !on.isHigh(`${circuit} warning`),
    );
    const tremble = on.rpm > 0 ? trembleAt(usualSeenGauge, on.timeS) : 0;
    return {
      timeS: on.timeS,
      rpm: on.rpm,
      needles: dials.map(({ title, psi }) => ({
        title,
        // A needle at its stop has nothing to tremble about.
        psi: nearestReadingPsi(psi > 1 ? psi + tremble : psi, rig.unit.gauge),
      })),
      parkIn: on.isHigh('park valve'),
      trailerIn: on.isHigh('trailer supply valve'),
      handBrake,
      pedalPsi,
      handPsi,
      opened: [...opened],
      coupling,
      speed,
      faults: setup.hidden === null ? hidden.map(({ part, title }) => `${part}: ${title}`) : [],
      warning: on.hasPlace('primary tank') && warned,
      stopLamp: on.isHigh('stop lamp'),
      purging: on.hasPlace('dryer') && scfmOf(on.flowKgPerS('purge valve')) > 0.5,
      psi: nodes.map(({ id }) => on.psi(id)),
      scfm: Array.from(on.run.flows, scfmOf),
      devices: deviceStates(on),
    };
  };

  const send = () => {
    const now = frame();
    if (!now) return;
    const told = tell(now);
    if (!(told instanceof Promise)) return;
    isDrawing = true;
    const done = () => (isDrawing = false);
    told.then(done, done);
  };

  return {
    open(given, onFrame): BayRig {
      setup = given;
      tell = onFrame;
      isDrawing = false;
      speed = 1;
      checks = 0;
      pedalPsi = 0;
      handPsi = 0;
      handBrake = 'parked';
      coupling = 'right';
      opened.clear();
      twin = new Twin(given.rig, {
        outsideC: given.outsideC,
        heightM: given.heightM,
        load: given.load,
        tanksPsi: FOUND_PSI,
      });
      for (const { id, does } of twin.system.network.elements) {
        if (does === 'cock' && twin.openOf(id) > 0) opened.add(id);
      }
      const random = draw(given.seed);
      const pool = faultsOf(given.rig, given.outsideC);
      hidden = [];
      for (let n = 0; n < (given.hidden ?? 0) && pool.length > 0; n += 1) {
        const [taken] = pool.splice(Math.floor(random() * pool.length), 1);
        if (taken) hidden.push(taken);
      }
      for (const fault of hidden) fault.apply(twin, 0.35 + 0.5 * random());
      const described = describe(twin, given.rig, given.outsideC);
      dials = dialsOf(twin, given.rig, described.gaugePlace).map((dial) => ({
        ...dial,
        errorPsi: dialError(random),
      }));
      lastMs = nowMs();
      send();
      return described;
    },
    move(move: BayMove) {
      if (!twin) return;
      switch (move.kind) {
        case 'engine':
          twin.engine(move.rpm);
          break;
        case 'pedal':
          pedalPsi = move.psi;
          twin.ask('pedal', move.psi);
          break;
        case 'hand':
          handPsi = move.psi;
          twin.ask('hand valve', move.psi);
          break;
        case 'park':
          twin.dash('park valve', move.isIn);
          break;
        case 'trailer':
          twin.dash('trailer supply valve', move.isIn);
          break;
        case 'hand-brake':
          handBrake = move.at;
          twin.dash('park valve', move.at === 'released' || move.at === 'part');
          if (move.at === 'part') twin.ask('hand brake', PARTLY_PSI);
          if (move.at === 'test') twin.testPosition(true);
          break;
        case 'fault': {
          const fault = faultsOf(setup?.rig ?? twin.rig, setup?.outsideC).find(
            ({ id }) => id === move.id,
          );
          if (!fault || hidden.some(({ id }) => id === fault.id)) break;
          hidden.push(fault);
          fault.apply(twin, SEVERITY[move.howBad]);
          break;
        }
        case 'open':
          if (move.share > 0) opened.add(move.way);
          else opened.delete(move.way);
          twin.open(move.way, move.share);
          break;
        case 'couple': {
          coupling = move.how;
          const [first, ...others] = twin.towedUnits;
          if (first !== undefined) twin.couple(first, move.how);
          // What comes apart does so behind the truck; what is crossed is crossed all along.
          for (const unit of others)
            twin.couple(unit, move.how === 'crossed' ? 'crossed' : 'right');
          break;
        }
        case 'speed':
          speed = move.times;
          break;
      }
      send();
    },
    soap(joint) {
      checks += 1;
      return twin ? soapAt(twin, joint) : 'nothing';
    },
    listen(exhaust) {
      checks += 1;
      return twin ? listenAt(twin, exhaust) : 'quiet';
    },
    end(guesses): BayEnd {
      const ids = new Set(hidden.map(({ id }) => id));
      const wrong = guesses.filter((id) => !ids.has(id)).length;
      return {
        was: hidden.map(({ part, title }) => ({ part, title })),
        right: wrong === 0 && hidden.every(({ id }) => guesses.includes(id)),
        checks,
        minutes: (twin?.timeS ?? 0) / 60,
        wrongParts: wrong,
        wear: twin?.wear ?? NO_WEAR,
      };
    },
    close() {
      twin = null;
      tell = () => undefined;
    },
    tick() {
      const ms = nowMs();
      const elapsedS = Math.min(LONGEST_FRAME_S, (ms - lastMs) / 1000) * speed;
      lastMs = ms;
      if (!twin || elapsedS <= 0) return;
      twin.advanceTo(twin.timeS + elapsedS);
      for (const dial of dials) {
        const { errorPsi, place } = dial;
        dial.psi = needlePsi({ ...usualSeenGauge, errorPsi }, dial.psi, twin.psi(place), elapsedS);
      }
      if (!isDrawing) send();
    },
  };
}

export { FRAME_MS };
