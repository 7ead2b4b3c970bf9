import type { Bare, Made } from './made';
import type { RigState } from './check';
import { STATES } from './states';
import { towedPrefix } from '../twin/network/network';

interface Look {
  id: string;
  unit: number;
  part: string;
  title: string;
  how: string;
  good: string;
  bad: string;
  /** Faults it would show, and how often it does [common practice, no source]. */
  faults: Readonly<Record<string, number>>;
  minutes?: number;
  /** Where it is not done charged and parked. */
  state?: RigState;
}

/** An eye is wrong so often on a sound part. */
const WRONG = 0.05;

/** What air does not show, or shows less well than an eye. */
export function looks(made: Made): Bare[] {
  const { network, parts } = made;
  const hasLatch = (role: string) => network.latches.filter((latch) => latch.role === role);
  const has = (unit: number, part: string) => parts[unit]?.has(part) ?? false;
  const all: Look[] = [
    {
      id: 'intake',
      unit: 0,
      part: 'compressor',
      title: 'Look at the compressor’s intake and its filter',
      how: 'Take the intake hose off: is the filter clean, the hose whole, nothing sucked flat?',
      good: 'clean and open',
      bad: 'clogged, or sucked flat',
      faults: { 'intake blocked': 0.95 },
      minutes: 5,
    },
    {
      id: 'discharge',
      unit: 0,
      part: 'discharge-line',
      title: 'Look into the discharge line',
      how: 'Take it off cold at the dryer: is there carbon in it, and how much oil?',
      good: 'clear',
      bad: 'carbon or oil in it',
      faults: { 'narrowed: discharge': 0.9, 'compressor worn': 0.6 },
      minutes: 15,
    },
    {
      id: 'unloader',
      unit: 0,
      part: 'compressor',
      title: 'Feel air at the intake while the compressor is unloaded',
      how: 'With the governor cut out, hold a hand over the intake: an unloader that leaks breathes back.',
      good: 'nothing comes back',
      bad: 'it breathes back',
      state: STATES.unloaded,
      faults: { 'unloader piston': 0.85, 'unloader partly open': 0.7, 'unloader stuck': 0.5 },
      minutes: 2,
    },
    ...[...hasLatch('low-air switch'), ...hasLatch('stop-lamp switch')].map((latch): Look => ({
      id: `wiring ${latch.id}`,
      unit: latch.unit,
      part: latch.part,
      title: `Look at the wiring of the ${latch.id} switch`,
      how: 'Pull the plug and bridge it, then look along the wire: does the lamp follow, is it chafed?',
      good: 'the lamp follows, the wire is whole',
      bad: 'it does not follow, or the wire is chafed',
      faults: {
        'warning dead': 0.9,
        'warning always': 0.9,
        [`${latch.id} dead`]: 0.8,
        [`${latch.id} always`]: 0.8,
      },
      minutes: 4,
    })),
    ...network.nodes
      .filter(({ kind, unit }) => kind === 'service chamber' && unit >= 0)
      .map(({ id, unit, part }): Look => ({
        id: `hose ${id}`,
        unit,
        part: part ?? '',
        title: `Look along the ${id.replace(/^#\d+ /, '')} hose`,
        how: 'Follow it over its whole length with the wheels straight and turned: kinked, twisted, flat, chafed?',
        good: 'straight and whole',
        bad: 'kinked, twisted or chafed',
        faults: { [`kinked: ${id} hose`]: 0.85 },
        minutes: 1,
      })),
    ...network.nodes
      .filter(({ kind, unit }) => kind === 'towed tank' && unit >= 0)
      .map(({ unit }): Look => ({
        id: `ice ${unit}`,
        unit,
        part: 'supply-line',
        title: 'Look for a blocked supply line at the rear coupler',
        how: 'Open the rear supply coupler, hold the line and press trailer supply: how much air comes?',
        good: 'plenty of air',
        bad: 'little air',
        faults: { [`${towedPrefix(unit)}supply iced`]: 0.9, [`${towedPrefix(unit)}cock`]: 0.95 },
        minutes: 3,
      })),
  ];
  return all
    .filter(({ unit, part }) => has(unit, part))
    .map(({ id, unit, part, title, how, good, bad, faults, minutes = 2, state }): Bare => ({
      id: `${unit}/look/${id}`,
      act: 'look',
      unit,
      part,
      title,
      state: state ?? STATES.parked,
      how,
      cautions: [],
      tools: [],
      minutes,
      answer: {
        kind: 'choice',
        choices: [
          { id: 'good', title: good },
          { id: 'bad', title: bad },
        ],
      },
      sound: `${good.charAt(0).toUpperCase()}${good.slice(1)}.`,
      doing: {
        does: 'look',
        sound: { good: 1 - WRONG, bad: WRONG },
        under: Object.fromEntries(
          Object.entries(faults).map(([fault, shown]) => [fault, { good: 1 - shown, bad: shown }]),
        ),
      },
    }));
}
