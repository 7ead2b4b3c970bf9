import type {
  HeldNeedle,
  HeldState,
  JointMend,
  PressureUnit,
  SideFinding,
} from '@keen-bleed/contract';
import { fromPsi, rounded, sayPressure } from '@keen-bleed/core';
import type { Pass } from '@keen-bleed/core/hunt';

/** What soap shows, in a word that fits a narrow button. */
export const SOAP = [
  { value: 'dry', title: 'dry' },
  { value: 'film', title: 'film' },
  { value: 'froth', title: 'froth' },
  { value: 'stream', title: 'stream' },
  { value: 'blown-off', title: 'blows' },
] as const;

export const PASS_TITLES: Readonly<Record<Pass, string>> = {
  running: 'Engine on',
  parked: 'Parked',
  released: 'Released',
  applied: 'Pedal',
};

/** How the rig stands in a pass, and what is under air then. */
export const PASS_HOW: Readonly<Record<Pass, string>> = {
  running:
    'Engine running, before it is stopped: discharge line and dryer while it pumps, the governor’s line just after cut-out. The discharge line is hot.',
  parked:
    'Engine off, park brake set, tanks at cut-out: tanks, drains, checks and everything that is always fed.',
  released:
    'Engine off, wheels chocked, park brake and trailer released: springs, park lines, trailer supply.',
  applied:
    'Engine off, wheels chocked, a helper holds the pedal full down: chambers, hoses, relays’ service side.',
};

/** How a vehicle without an engine that runs is charged. */
export const SHOP_AIR =
  'No engine? Charge from shop air regulated to 120 psi: any dead vehicle by a service port, a trailer by its supply coupler. Then begin with the next pass.';

export const STATE_TITLES: Readonly<Record<HeldState, string>> = {
  parked: 'Parked',
  released: 'Released',
  'red out': 'Released, red pulled',
  applied: 'Pedal held',
  'supply drained': 'Released, supply drained',
  'cocks shut': 'Released, first cocks shut',
};

export const NEEDLE_TITLES: Readonly<Record<HeldNeedle, string>> = {
  primary: 'primary',
  secondary: 'secondary',
  supply: 'supply, teed in',
  trailer: 'trailer tank',
};

/** Needles by their numbers, where ports are numbered: circuits 1 and 2, and 1 for supply [std: ISO 6786, value from memory]. */
export const NEEDLE_NUMBERS: Readonly<Record<HeldNeedle, string>> = {
  primary: 'circuit 1 (21)',
  secondary: 'circuit 2 (22)',
  supply: 'supply (1), teed in',
  trailer: 'trailer tank',
};

/** What to do before a hold in a state: each leaves a part of the rig without air. */
export const ISOLATES: Readonly<Record<HeldState, string>> = {
  parked: 'Set the park brake and hold: springs, park lines and trailer are left out.',
  released: 'Release everything, engine off, and hold.',
  'red out': 'Pull red with the park brake released, and hold: the trailer is left out.',
  applied: 'Hold the pedal full down, and hold: the service side is added.',
  'supply drained':
    'Release everything, drain supply, leave its drain open, and hold: what is before the checks is left out.',
  'cocks shut':
    'Release everything, shut both cocks behind the first trailer, and hold: what is behind them is left out.',
};

export const MENDS: readonly { value: JointMend; title: string }[] = [
  { value: 'retightened', title: 'Retightened' },
  { value: 'sealed', title: 'Sealed again, paste or tape' },
  { value: 'reseated', title: 'Cleaned and reseated' },
  { value: 'remade', title: 'Remade longer, to relieve a bend' },
  { value: 'replaced', title: 'Replaced' },
  { value: 'capped', title: 'Capped' },
  { value: 'removed', title: 'Taken off' },
];

export const ASIDES: readonly { value: SideFinding; title: string }[] = [
  { value: 'steering', title: 'Steering' },
  { value: 'corrosion', title: 'Corrosion' },
  { value: 'linings', title: 'Linings' },
  { value: 'wiring', title: 'Wiring' },
  { value: 'tyres', title: 'Tyres' },
  { value: 'look-up', title: 'To be looked up' },
  { value: 'other', title: 'Something else' },
];

/** How fast a needle should fall, from and to, in the unit that is spoken. */
export const sayFalls = (from: number, to: number, unit: PressureUnit) => {
  const say = (psiPerMin: number) =>
    rounded(fromPsi(psiPerMin, unit), unit === 'bar' ? 2 : unit === 'kPa' ? 0 : 1);
  return `${say(from)} to ${say(to)} ${unit}/min`;
};

/** A hold in words. */
export const sayHeld = (
  state: HeldState,
  needle: string,
  fromPsiAt: number,
  toPsiAt: number,
  seconds: number,
  unit: PressureUnit,
) =>
  `${STATE_TITLES[state]}, ${needle}: ${sayPressure(fromPsiAt, unit)} to ${sayPressure(toPsiAt, unit)} in ${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;

/** A chance as people say it. */
export const sayChance = (chance: number) =>
  chance > 0.99 ? '99 in 100' : `${Math.max(1, Math.round(100 * chance))} in 100`;

const LITRES_PER_CUBIC_FOOT = 28.316847;

/** Free air in the units of the shop: standard cubic feet or litres a minute. */
export const sayFlow = (scfm: number, unit: PressureUnit) =>
  unit === 'psi'
    ? `${rounded(scfm, scfm < 1 ? 2 : 1)} scfm`
    : `${rounded(scfm * LITRES_PER_CUBIC_FOOT, scfm < 0.35 ? 1 : 0)} L/min`;
