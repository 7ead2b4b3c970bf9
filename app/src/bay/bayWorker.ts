import {
  apart,
  doAll,
  doCheck,
  hasFault,
  TELLS,
  USUAL_SENSES,
  type Chance,
  type Check,
} from '@keen-bleed/core/checks';
import { complaints, saysOf } from '@keen-bleed/core/diagnosis';
import {
  actOn,
  deviceStates,
  drawRig,
  drawsOf,
  effectsOf,
  faultsOf,
  knownPatterns,
  learnPatterns,
  partOf,
  scfmOf,
  Twin,
  type DrawnRig,
  type Fault,
} from '@keen-bleed/core/twin';
import { bayDials, followPlaces, FOUND_PSI, seenNeedles, type Dial } from './bayDials';
import type { BayEnd, BayFrame, BayMove, BayRig, BaySetup, BayWorker, HowBad } from './bayProtocol';
import { moveHand, parkedCab, type CabState } from './cabState';
import { describeBay } from './describeBay';

/** A gauge set that is teed in reads so often, s of the rig's time. */
const READS_EVERY_S = 0.25;
/** A tab that slept does not owe its rig the time, s. */
const LONGEST_FRAME_S = 0.25;
const NO_WEAR = { engineS: 0, loadedS: 0, loadedTurns: 0, purges: 0, applications: 0 };
const SEVERITY: Readonly<Record<HowBad, number>> = { slight: 0.4, plain: 0.65, bad: 0.9 };

/** A fault that the rig has, and how bad it is. */
interface Hidden {
  fault: Fault;
  severity: number;
}

/** Hides as many faults as asked in the rig, and says which. */
function hideFaults(twin: Twin, setup: BaySetup, random: () => number): Hidden[] {
  const pool = faultsOf(setup.rig, setup.outsideC);
  const hidden: Hidden[] = [];
  for (let n = 0; n < (setup.hidden ?? 0) && pool.length > 0; n += 1) {
    const [fault] = pool.splice(Math.floor(random() * pool.length), 1);
    if (fault) hidden.push({ fault, severity: 0 });
  }
  for (const each of hidden) each.severity = 0.35 + 0.5 * random();
  twin.apply(hidden.flatMap(({ fault, severity }) => effectsOf(fault, severity)));
  return hidden;
}

/** What a driver says of hidden faults, drawn as often as drivers say so. */
function complaintOf(faults: readonly Hidden[], random: () => number): BayRig['driverSays'] {
  for (const complaint of complaints) {
    const said = faults.some(({ fault, severity }) => {
      const share = saysOf(complaint, fault, severity);
      return share > saysOf(complaint, null) && random() < share;
    });
    if (said) return { id: complaint.id, title: complaint.title };
  }
  return null;
}

/** A rig that stands in the Bay. */
interface RigInBay {
  setup: BaySetup;
  twin: Twin;
  /** What is wrong with it now. */
  has: Hidden[];
  /** What was wrong with it, mended since or not. */
  had: Fault[];
  /** Parts that were changed, and whether anything was wrong with them. */
  mended: { wasAtFault: boolean }[];
  drawn: DrawnRig;
  dials: Dial[];
  cab: CabState;
  checks: readonly Check[];
}

/** One moment of the rig, as the cab and the seen-through drawing show it. */
function frameOf(
  { setup, twin, has, dials, cab }: RigInBay,
  speed: number,
): Omit<BayFrame, 'n' | 'samples'> {
  return {
    timeS: twin.timeS,
    rpm: twin.rpm,
    needles: seenNeedles(dials, twin, setup.rig),
    parkIn: twin.isHigh('park valve'),
    trailerIn: twin.isHigh('trailer supply valve'),
    ...cab,
    opened: [...cab.opened],
    speed,
    faults:
      setup.hidden === null ? has.map(({ fault: { part, title } }) => `${part}: ${title}`) : [],
    warning: twin.isWarning,
    stopLamp: twin.isSomeHigh('stop-lamp switch'),
    purging: twin.hasPlace('dryer') && scfmOf(twin.flowKgPerS('purge valve')) > 0.5,
    psi: twin.system.network.nodes.map(({ id }) => twin.psi(id)),
    scfm: Array.from(twin.run.flows, scfmOf),
    devices: deviceStates(twin),
    high: twin.system.network.latches.flatMap(({ id }) => (twin.isHigh(id) ? [id] : [])),
  };
}

/** What is done without bringing the rig into another state: it is heard, wetted and read as it stands. */
const AT_ONCE: ReadonlySet<string> = new Set([
  'listen',
  'wet',
  'read',
  'drain',
  'stroke',
  'damp',
  'couplers',
  'cock',
  'look',
]);

/** Lets go of what a check held, and shuts what it opened: the rig stands as a careful person leaves it. */
function leftAsFound(twin: Twin, { opened, coupling }: CabState): CabState {
  twin.engine(0);
  twin.ask('pedal', 0);
  twin.ask('hand valve', 0);
  for (const { id, does } of twin.system.network.elements) {
    if (does === 'drain') twin.open(id, opened.has(id) ? 1 : 0);
  }
  actOn(twin, { kind: 'couple', how: coupling });
  const released = twin.isHigh('park valve');
  return { pedalPsi: 0, handPsi: 0, handBrake: released ? 'released' : 'parked', coupling, opened };
}

/** How bad a fault is taken to be in looking for the check that tells it soonest. */
const PLAIN = 0.9;

/** For each fault that was there, the quickest check of the catalogue that tells it from a sound rig. */
function bestWay({ setup, had, checks }: RigInBay): BayEnd['best'] {
  if (had.length === 0) return [];
  const site = { outsideC: setup.outsideC };
  const sound = doAll(setup.rig, checks, [], site);
  return had.flatMap((fault) => {
    const answers = doAll(setup.rig, checks, [{ fault, severity: PLAIN }], site);
    const [best] = checks
      .filter(
        (check) =>
          apart(check, sound.get(check.id)!, answers.get(check.id)!) >= TELLS ||
          (check.doing.does === 'look' && fault.id in check.doing.under),
      )
      .sort(
        (a, b) =>
          Number(b.bearsOn.includes(fault.id)) - Number(a.bearsOn.includes(fault.id)) ||
          a.minutes + a.state.minutes - b.minutes - b.state.minutes,
      );
    return best
      ? [{ title: best.title, state: best.state.title, minutes: best.minutes + best.state.minutes }]
      : [];
  });
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
  let minutes = 0;
  let sent = 0;
  let samples: [number, number][] = [];
  let gaugePlace = '';
  let chance: Chance = drawsOf(1);

  const send = () => {
    if (!bay) return;
    sent += 1;
    const told = tell({ ...frameOf(bay, speed), n: sent, samples });
    samples = [];
    if (!(told instanceof Promise)) return;
    isDrawing = true;
    const done = () => (isDrawing = false);
    told.then(done, done);
  };

  /** Sets a fault openly; one that is there already stays as it is. */
  const setFault = ({ setup, twin, has, had }: RigInBay, id: string, howBad: HowBad) => {
    const fault = faultsOf(setup.rig, setup.outsideC).find((each) => each.id === id);
    if (!fault || has.some((each) => each.fault.id === id)) return;
    const severity = SEVERITY[howBad];
    has.push({ fault, severity });
    had.push(fault);
    twin.apply(effectsOf(fault, severity));
  };

  return {
    open(setup, onFrame): BayRig {
      tell = onFrame;
      isDrawing = false;
      speed = 1;
      checks = 0;
      minutes = 0;
      chance = drawsOf(setup.seed + 1);
      const { rig, outsideC, heightM, load } = setup;
      const twin = new Twin(rig, { outsideC, heightM, load, tanksPsi: FOUND_PSI, shopAir: true });
      // Like any rig in the yard it differs from its paper, and its needles are off: by the seed.
      const drawn = drawRig(rig, setup.seed);
      twin.apply(drawn.effects);
      const cab = parkedCab(twin);
      const random = drawsOf(setup.seed).even;
      const has = hideFaults(twin, setup, random);
      const had = has.map(({ fault }) => fault);
      const described = describeBay(twin, rig, outsideC);
      described.driverSays = setup.hidden === null ? null : complaintOf(has, random);
      gaugePlace = described.gaugePlace;
      samples = [];
      const dials = bayDials(twin, rig, described.gaugePlace, drawn);
      bay = {
        setup,
        twin,
        has,
        had,
        mended: [],
        drawn,
        dials,
        cab,
        checks: described.checks,
      };
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
    check(id, isBrought = false) {
      const check = bay?.checks.find((each) => each.id === id);
      if (!bay || !check) return null;
      checks += 1;
      const isAtOnce = !isBrought && AT_ONCE.has(check.doing.does);
      minutes += check.minutes + (isAtOnce ? 0 : check.state.minutes);
      const ids = bay.has.map(({ fault, severity }) => hasFault(fault, severity));
      const senses = bay.setup.senses ?? USUAL_SENSES;
      const answer = doCheck(bay.twin, check, { senses, chance, faults: ids }, isAtOnce);
      if (!isAtOnce) bay.cab = leftAsFound(bay.twin, bay.cab);
      lastMs = nowMs();
      send();
      return answer;
    },
    end(guesses): BayEnd {
      const faults = bay?.had ?? [];
      const left = bay?.has ?? [];
      const ids = new Set(faults.map(({ id }) => id));
      const changed = (bay?.mended ?? []).filter(({ wasAtFault }) => !wasAtFault).length;
      const wrong = guesses.filter((id) => !ids.has(id)).length;
      return {
        was: faults.map(({ part, title }) => ({ part, title })),
        right: wrong === 0 && left.every(({ fault }) => guesses.includes(fault.id)),
        checks,
        minutes,
        rigMinutes: (bay?.twin.timeS ?? 0) / 60,
        best: bay ? bestWay(bay) : [],
        wrongParts: wrong + changed,
        wear: bay?.twin.wear ?? NO_WEAR,
      };
    },
    mend(unit, partId) {
      if (!bay) return;
      const { setup, drawn, has, mended } = bay;
      const [group] = partId.split('.');
      const isOf = ({ fault }: Hidden): boolean => {
        const at = partOf(fault, bay!.twin);
        return at.unit === unit && (at.part === partId || at.part === group);
      };
      mended.push({ wasAtFault: has.some(isOf) });
      const left = has.filter((each) => !isOf(each));
      // The tanks are empty once a line was opened.
      const { outsideC, heightM, load, rig } = setup;
      const twin = new Twin(rig, { outsideC, heightM, load, tanksPsi: 0, shopAir: true });
      twin.apply(drawn.effects);
      twin.apply(left.flatMap(({ fault, severity }) => effectsOf(fault, severity)));
      const dials = bayDials(twin, rig, gaugePlace, drawn);
      bay = { ...bay, twin, has: left, dials, cab: parkedCab(twin) };
      lastMs = nowMs();
      send();
    },
    sound(ids) {
      if (!bay) return {};
      const { setup, checks } = bay;
      const asked = checks.filter(({ id }) => ids.includes(id));
      return Object.fromEntries(doAll(setup.rig, asked, [], { outsideC: setup.outsideC }));
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
      // A gauge set reads as often on a slow screen as on a fast one, however fast the rig's time goes.
      const steps = Math.max(1, Math.ceil(elapsedS / READS_EVERY_S));
      for (let step = 0; step < steps; step += 1) {
        bay.twin.advanceTo(bay.twin.timeS + elapsedS / steps);
        followPlaces(bay.dials, bay.twin, elapsedS / steps);
        samples.push([bay.twin.timeS, bay.twin.psi(gaugePlace)]);
      }
      if (!isDrawing) send();
    },
  };
}
