import { exhaustsOf } from '../senses/soapAndEar';
import type { Twin } from '../twin';
import type { Act } from './act';
import type { Routine, RoutineStep, Sight, Until } from './routine';
import { act, wait } from './steps';

const FULL_PSI = 150;
/** Pressed just so that the stop lamps of a sound unit are lit. */
const LIGHT_PSI = 9;
/** Small strokes: the needle stands close to where the governor, a lamp or a knob speaks. */
const CUT_IN_PSI = 30;
const FAN_PSI = 60;

/** How the rig stands when its exhausts are listened to. */
export type Listening = 'loading' | 'unloaded' | 'released' | 'parked' | 'applied';
export const LISTENINGS = [
  'loading',
  'unloaded',
  'released',
  'parked',
  'applied',
] as const satisfies readonly Listening[];

/** Where a channel on a service line sits: the first that the rig has. */
const SERVICE_PLACES = ['trailer service line', 'rear left', 'front left'] as const;

/** Where an exhaust was listened to, as the key of what was heard. */
export const heardKey = (way: string, when: Listening): string => `${when}: ${way}`;

/** Down and up again, until something comes: what is looked for is read where it came, not at the stroke's end. */
const pumpTo = (until: Until, psi: number, downS: number, upS: number): RoutineStep => ({
  step: 'repeat',
  steps: [
    act({ kind: 'pedal', psi }),
    { step: 'until', until, mostS: downS },
    act({ kind: 'pedal', psi: 0 }),
    { step: 'until', until, mostS: upS },
  ],
  until,
  most: 150,
});

/**
 * A run by the book on a powered rig, as far as its dash shows it: build-up, cut-out, cut-in, both holds of a minute,
 * stop lamps, and fanned down past warning and pop-out; and between, an ear at each exhaust.
 *
 * Keys of what is seen: `at 85` and `at 100` (s); `cut-out`, `cut-in` (psi); `static …`, `applied …` with `from` and
 * `to` of each gauge; `lamp light`, `lamp full`, `lamp off`; `warning …`, `red …`, `yellow …`; exhausts by `heardKey`.
 *
 * @param channels linked gauges sit on the supply tank and a service line as well, and send `… supply`, `… service`
 */
export function dashRun(twin: Twin, { channels = false, ears = true } = {}): Routine {
  const gauges = ['primary', 'secondary'].filter((circuit) => twin.hasPlace(`${circuit} tank`));
  const needles = (key: string): RoutineStep => ({
    step: 'see',
    sees: gauges.map((gauge) => ({
      key: `${key} ${gauge}`,
      sees: 'needle',
      place: `${gauge} tank`,
    })),
  });
  const clock = (key: string): RoutineStep => ({ step: 'see', sees: [{ key, sees: 'clock' }] });
  const lamp = (key: string): RoutineStep => ({
    step: 'see',
    sees: [{ key, sees: 'some', role: 'stop-lamp switch' }],
  });
  const service = SERVICE_PLACES.find((place) => twin.hasPlace(place));
  const channel = (key: string, ...which: readonly ('primary' | 'supply' | 'service')[]) => {
    const sees = which.flatMap((each): Sight[] => {
      const place = each === 'service' ? service : `${each} tank`;
      return place !== undefined && twin.hasPlace(place)
        ? [{ key: `${key} ${each}`, sees: 'needle', place }]
        : [];
    });
    return channels && sees.length > 0 ? [{ step: 'see', sees } as const] : [];
  };
  const exhausts = ears ? exhaustsOf(twin) : [];
  const listen = (when: Listening): RoutineStep => ({
    step: 'see',
    sees: exhausts.map((way): Sight => ({ key: heardKey(way, when), sees: 'exhaust', way })),
  });
  const until = (what: Until, mostS: number): RoutineStep => ({
    step: 'until',
    until: what,
    mostS,
  });
  const released: readonly Act[] = [
    { kind: 'park', isIn: true },
    { kind: 'trailer', isIn: true },
  ];
  const parked: readonly Act[] = [
    { kind: 'park', isIn: false },
    { kind: 'trailer', isIn: false },
  ];
  const fanDown = (to: Until) => pumpTo(to, FAN_PSI, 1, 1.5);
  const knob = (key: string, latch: string): readonly RoutineStep[] =>
    twin.hasLatch(latch) && !twin.hasHandBrake
      ? [fanDown({ latch, high: false }), needles(key)]
      : [];
  return [
    // Built up with the parking brakes set, and the trailer, where there is one, charged with the rest.
    act({ kind: 'engine', rpm: 1400 }, { kind: 'trailer', isIn: true }),
    until({ needle: 'primary tank', over: 85 }, 400),
    clock('at 85'),
    until({ needle: 'primary tank', over: 100 }, 400),
    clock('at 100'),
    ...channel('loading', 'primary', 'supply'),
    listen('loading'),
    until({ latch: 'governor', high: true }, 400),
    wait(2),
    needles('cut-out'),
    ...channel('cut-out', 'supply'),
    wait(60),
    listen('unloaded'),
    act({ kind: 'engine', rpm: 650 }),
    pumpTo({ latch: 'governor', high: false }, CUT_IN_PSI, 1, 2.5),
    needles('cut-in'),
    act({ kind: 'engine', rpm: 1400 }, ...released),
    wait(5),
    until({ latch: 'governor', high: true }, 400),
    wait(5),
    act({ kind: 'engine', rpm: 0 }),
    wait(90),
    needles('static from'),
    ...channel('static from', 'supply'),
    listen('released'),
    wait(60),
    needles('static to'),
    ...channel('static to', 'supply'),
    act(...parked),
    wait(20),
    listen('parked'),
    act(...released),
    wait(10),
    act({ kind: 'pedal', psi: LIGHT_PSI }),
    wait(2),
    lamp('lamp light'),
    ...channel('light', 'service'),
    act({ kind: 'pedal', psi: FULL_PSI }),
    wait(1),
    ...channel('soon', 'service'),
    wait(59),
    lamp('lamp full'),
    needles('applied from'),
    ...channel('applied from', 'supply', 'service'),
    listen('applied'),
    wait(60),
    needles('applied to'),
    ...channel('applied to', 'supply'),
    act({ kind: 'pedal', psi: 0 }),
    wait(5),
    lamp('lamp off'),
    ...channel('off', 'service'),
    fanDown({ some: 'low-air switch', high: false }),
    needles('warning'),
    ...knob('red', 'trailer supply valve'),
    ...knob('yellow', 'park valve'),
  ];
}
