import {
  deviceStates,
  drawRig,
  drawsOf,
  effectsOf,
  faultsOf,
  knownPatterns,
  learnPatterns,
  listenAt,
  scfmOf,
  soapAt,
  Twin,
  type Fault,
} from '@keen-bleed/core/twin';
import { bayDials, followPlaces, FOUND_PSI, seenNeedles, type Dial } from './bayDials';
import type { BayEnd, BayFrame, BayMove, BayRig, BaySetup, BayWorker, HowBad } from './bayProtocol';
import { moveHand, parkedCab, type CabState } from './cabState';
import { describeBay } from './describeBay';

/** As often as a screen is drawn anew. */
export const FRAME_MS = 16;
/** A tab that slept does not owe its rig the time, s. */
const LONGEST_FRAME_S = 0.25;
const NO_WEAR = { engineS: 0, loadedS: 0, loadedTurns: 0, purges: 0, applications: 0 };
const SEVERITY: Readonly<Record<HowBad, number>> = { slight: 0.4, plain: 0.65, bad: 0.9 };

/** Hides as many faults as asked in the rig, and says which. */
function hideFaults(twin: Twin, setup: BaySetup, random: () => number): Fault[] {
  const pool = faultsOf(setup.rig, setup.outsideC);
  const hidden: Fault[] = [];
  for (let n = 0; n < (setup.hidden ?? 0) && pool.length > 0; n += 1) {
    hidden.push(...pool.splice(Math.floor(random() * pool.length), 1));
  }
  twin.apply(hidden.flatMap((fault) => effectsOf(fault, 0.35 + 0.5 * random())));
  return hidden;
}

/** A rig that stands in the Bay. */
interface RigInBay {
  setup: BaySetup;
  twin: Twin;
  faults: Fault[];
  dials: Dial[];
  cab: CabState;
}

/** One moment of the rig, as the cab and the seen-through drawing show it. */
function frameOf({ setup, twin, faults, dials, cab }: RigInBay, speed: number): BayFrame {
  return {
    timeS: twin.timeS,
    rpm: twin.rpm,
    needles: seenNeedles(dials, twin, setup.rig),
    parkIn: twin.isHigh('park valve'),
    trailerIn: twin.isHigh('trailer supply valve'),
    ...cab,
    opened: [...cab.opened],
    speed,
    faults: setup.hidden === null ? faults.map(({ part, title }) => `${part}: ${title}`) : [],
    warning: twin.isWarning,
    stopLamp: twin.isSomeHigh('stop-lamp switch'),
    purging: twin.hasPlace('dryer') && scfmOf(twin.flowKgPerS('purge valve')) > 0.5,
    psi: twin.system.network.nodes.map(({ id }) => twin.psi(id)),
    scfm: Array.from(twin.run.flows, scfmOf),
    devices: deviceStates(twin),
  };
}

/** Keeps one rig running in real time, or faster, and tells the screen what it does. */
export function makeBay(nowMs: () => number): BayWorker & { tick: () => void } {
  let bay: RigInBay | null = null;
  let tell: (frame: BayFrame) => unknown = () => undefined;
  // A screen that is still drawing the last moment is not told the next one: it gets as many as it can draw.
  let isDrawing = false;
  let speed = 1;
  let lastMs = 0;
  let checks = 0;

  const send = () => {
    if (!bay) return;
    const told = tell(frameOf(bay, speed));
    if (!(told instanceof Promise)) return;
    isDrawing = true;
    const done = () => (isDrawing = false);
    told.then(done, done);
  };

  /** Sets a fault openly; one that is there already stays as it is. */
  const setFault = ({ setup, twin, faults }: RigInBay, id: string, howBad: HowBad) => {
    const fault = faultsOf(setup.rig, setup.outsideC).find((each) => each.id === id);
    if (!fault || faults.some((each) => each.id === id)) return;
    faults.push(fault);
    twin.apply(effectsOf(fault, SEVERITY[howBad]));
  };

  return {
    open(setup, onFrame): BayRig {
      tell = onFrame;
      isDrawing = false;
      speed = 1;
      checks = 0;
      const { rig, outsideC, heightM, load } = setup;
      const twin = new Twin(rig, { outsideC, heightM, load, tanksPsi: FOUND_PSI, shopAir: true });
      // Like any rig in the yard it differs from its paper, and its needles are off: by the seed.
      const drawn = drawRig(rig, setup.seed);
      twin.apply(drawn.effects);
      const cab = parkedCab(twin);
      const random = drawsOf(setup.seed).even;
      const faults = hideFaults(twin, setup, random);
      const described = describeBay(twin, rig, outsideC);
      const dials = bayDials(twin, rig, described.gaugePlace, drawn);
      bay = { setup, twin, faults, dials, cab };
      lastMs = nowMs();
      send();
      return described;
    },
    move(move: BayMove) {
      if (!bay) return;
      if (move.kind === 'speed') speed = move.times;
      else if (move.kind === 'fault') setFault(bay, move.id, move.howBad);
      else bay.cab = moveHand(bay.cab, bay.twin, move);
      send();
    },
    soap(joint) {
      checks += 1;
      return bay ? soapAt(bay.twin, joint) : 'nothing';
    },
    listen(exhaust) {
      checks += 1;
      return bay ? listenAt(bay.twin, exhaust) : 'quiet';
    },
    end(guesses): BayEnd {
      const faults = bay?.faults ?? [];
      const ids = new Set(faults.map(({ id }) => id));
      const wrong = guesses.filter((id) => !ids.has(id)).length;
      return {
        was: faults.map(({ part, title }) => ({ part, title })),
        right: wrong === 0 && faults.every(({ id }) => guesses.includes(id)),
        checks,
        minutes: (bay?.twin.timeS ?? 0) / 60,
        wrongParts: wrong,
        wear: bay?.twin.wear ?? NO_WEAR,
      };
    },
    learn: learnPatterns,
    known: knownPatterns,
    close() {
      bay = null;
      tell = () => undefined;
    },
    tick() {
      const ms = nowMs();
      const elapsedS = Math.min(LONGEST_FRAME_S, (ms - lastMs) / 1000) * speed;
      lastMs = ms;
      if (!bay || elapsedS <= 0) return;
      bay.twin.advanceTo(bay.twin.timeS + elapsedS);
      followPlaces(bay.dials, bay.twin, elapsedS);
      if (!isDrawing) send();
    },
  };
}
