import type { Bare } from './made';
import { EYES, ROLL, UNDER } from './made';

/** What a hand, face or foot is in the way of while a check is done. */
export type Danger = 'heat' | 'moving' | 'open-port' | 'under' | 'roll';

const HOT =
  'The discharge line and the compressor are hot. Gloves, and sleeves away from belt and fan.';
const RODS = 'Keep hands clear of rods and slack adjusters while the pedal is worked.';

/** The caution that stands for each danger where a check has none of its own. */
const SAID: Readonly<Record<Danger, string>> = {
  heat: HOT,
  moving: RODS,
  'open-port': EYES,
  under: UNDER,
  roll: ROLL,
};

/** Words by which a caution is known to speak of a danger already. */
const SPEAKS: Readonly<Record<Danger, RegExp>> = {
  heat: /\bhot\b/i,
  moving: /\brods?\b|pushrods?/i,
  'open-port': /eye protection/i,
  under: /under\b|underneath|goes under/i,
  roll: /chock/i,
};

/** Parts at the engine that are hot, or stand beside what is. */
const AT_THE_ENGINE: ReadonlySet<string> = new Set([
  ...['compressor', 'discharge-line', 'governor', 'dryer'],
]);
/** Parts that are reached from the cab, or standing beside the vehicle. */
const IN_REACH: ReadonlySet<string> = new Set([
  ...['foot-valve', 'park-control', 'hand-brake-valve', 'trailer-supply-control', 'hand-valve'],
  ...['gauge', 'dash-feed', 'dash-double-check', 'supply-coupler', 'service-coupler', 'compressor'],
]);
/** Acts that are done from the driver’s seat where no tool is wanted. */
const FROM_THE_SEAT: ReadonlySet<string> = new Set(['watch', 'lamp', 'read', 'time']);
/** States in which the springs are off: only the chocks hold it. */
const ROLLS: ReadonlySet<string> = new Set([
  ...['released', 'applied', 'red out', 'hand on', 'supply drained', 'cocks shut'],
]);
/** Parts whose rods come out and go in. */
const ROD = /chamber|adjust/;

/** The dangers of a check, by its state and its place alone. */
export function dangersOf({ act, part, state, tools, doing }: Bare): Danger[] {
  const group = part.split('.')[0] ?? part;
  const isAway = FROM_THE_SEAT.has(act) && tools.every((tool) => tool === 'timer');
  const opens =
    doing.does === 'drain' ||
    doing.does === 'drained' ||
    doing.does === 'listen' ||
    doing.does === 'bubble' ||
    doing.does === 'damp' ||
    doing.does === 'wet' ||
    tools.includes('tee') ||
    group.endsWith('coupler');
  const dangers: (Danger | false)[] = [
    ROLLS.has(state.id) && 'roll',
    !isAway && AT_THE_ENGINE.has(group) && 'heat',
    !isAway && state.pedalPsi > 0 && !IN_REACH.has(group) && 'moving',
    !isAway && ROD.test(group) && 'moving',
    (doing.does === 'switches' || (!isAway && opens)) && 'open-port',
    !isAway && !IN_REACH.has(group) && 'under',
  ];
  return [...new Set(dangers.filter((each) => each !== false))];
}

/** A check’s cautions with those that its state and place ask for and it does not speak of. */
export function withCautions(check: Bare): readonly string[] {
  return dangersOf(check).reduce<readonly string[]>(
    (cautions, danger) =>
      cautions.some((each) => SPEAKS[danger].test(each)) ? cautions : [...cautions, SAID[danger]],
    check.cautions,
  );
}
