import { BUBBLE_LEAST_S, BUBBLE_WAIT_S } from '../bench/bubbles';
import type { PairKind } from '../bench/pairs';
import type { PartRole } from '../rig/partsOf';
import { OUTSIDE, towedPrefix } from '../twin/network/network';
import type { AnswerShape, Check, RigStateId } from './check';
import { EXHAUST_SPEAKS } from './exhaustChecks';
import {
  callOf,
  EYES,
  OPENING,
  psiShape,
  ROLL,
  titleOf,
  UNDER,
  type Bare,
  type Made,
} from './made';
import { STATES } from './states';

const points = (
  as: PairKind,
  [from, to]: readonly [from: string, to: string],
  spread: number,
): AnswerShape => ({
  kind: 'points',
  from,
  to,
  as,
  resolution: 1,
  error: 0.7,
  spread,
});

interface Pair {
  unit: number;
  part: string;
  title: string;
  from: string;
  to: string;
  as: PairKind;
  /** What the two ports are called; in and out where nothing is said. */
  ends?: readonly [from: string, to: string];
  asked: readonly number[];
  how: string;
  sound: string;
  state?: RigStateId;
  by?: 'pedal' | 'hand' | 'bleed';
  drain?: string;
  emptied?: { drain: string; tank: string };
  cyclesPark?: true;
  heldPsi?: number;
}

const UP = [10, 20, 40, 60, 80] as const;
const DOWN = [90, 75, 60, 45, 30, 15, 0] as const;
const PEDAL =
  'Tee a gauge in at each port. Press to each pressure in turn, always going up, and read both; then let it down in steps.';

/** What is done on one valve for its own sake: two ports read against each other, and bubbles timed at its exhaust. */
export function benchChecks(made: Made): Bare[] {
  return [...pairs(made), ...bubbles(made), ...safetyValve(made)].map((check) => ({
    ...check,
    onBench: true,
  }));
}

function pairs(made: Made): Bare[] {
  const { network, parts } = made;
  const has = (id: string) => network.nodes.some((node) => node.id === id);
  const hasWay = (id: string) => network.elements.some((way) => way.id === id);
  return [...powered(made), ...towed(made)]
    .filter(
      ({ unit, part, from, to, drain, emptied }) =>
        has(from) &&
        has(to) &&
        (parts[unit]?.has(part) ?? false) &&
        (drain === undefined || hasWay(drain)) &&
        (emptied === undefined || (hasWay(emptied.drain) && has(emptied.tank))),
    )
    .map((pair): Bare => {
      const { unit, part, title, from, to, as, asked, how, sound, state = 'released' } = pair;
      const { by = 'pedal', ends = ['in', 'out'], drain, emptied, cyclesPark, heldPsi } = pair;
      return {
        id: `${unit}/compare/${from}/${to}/${as}`,
        act: 'compare',
        unit,
        part,
        title,
        state: STATES[state],
        how,
        cautions: [
          OPENING,
          ...(drain || emptied ? [EYES] : []),
          ...(state === 'released' || cyclesPark ? [ROLL] : []),
        ],
        tools: ['two gauges', 'two tees', ...(heldPsi ? ['helper'] : [])],
        minutes: drain || emptied ? 9 : 6,
        answer: points(
          as,
          ends,
          as === 'modulates' || as === 'takes over' || as === 'shuts' ? 5 : 2,
        ),
        sound,
        doing: {
          does: 'compare',
          from,
          to,
          by: drain ? 'drain' : by,
          asked,
          ...(drain ? { drain } : {}),
          ...(emptied ? { emptied } : {}),
          ...(cyclesPark ? { cyclesPark } : {}),
          ...(heldPsi ? { heldPsi } : {}),
        },
      };
    });
}

function powered(made: Made): Pair[] {
  if (made.isTowedAlone) return [];
  const name = (part: string) => titleOf(made, 0, part);
  const primary = { drain: 'primary drain', tank: 'primary tank' } as const;
  return [
    {
      unit: 0,
      part: 'front-quick-release',
      title: 'Read in against out: front quick-release',
      from: 'front signal',
      to: 'front delivery',
      as: 'follows',
      asked: [4, 6, 8, 10, 15, 20, 40, 60],
      how: PEDAL,
      sound: 'What goes in comes out.',
    },
    ...(
      [
        ['rear left', 'rear right', 'rear-chambers', 'Read rear left against rear right'],
        ['front left', 'front right', 'front-chambers', 'Read front left against front right'],
        ['rear delivery', 'front delivery', 'rear-relay', 'Read rear brakes against front'],
      ] as const
    ).map(([from, to, part, title]): Pair => ({
      unit: 0,
      part,
      title,
      from,
      to,
      as: 'balance',
      ends: part === 'rear-relay' ? ['rear', 'front'] : ['left', 'right'],
      asked: UP,
      how: PEDAL,
      sound: 'Both read alike.',
    })),
    ...(['primary', 'secondary'] as const).map((circuit): Pair => ({
      unit: 0,
      part: `${circuit}-check`,
      title: `Read either side: ${name(`${circuit}-check`)}`,
      from: 'supply tank',
      to: `${circuit} tank`,
      as: 'holds',
      ends: ['supply', circuit],
      asked: DOWN,
      drain: 'supply drain',
      state: 'parked',
      how: `With a gauge on the supply tank, let it down by its drain in steps and read it and the ${circuit} gauge at each.`,
      sound: `Supply goes down, ${circuit} stays.`,
    })),
    ...(['primary', 'secondary'] as const).map((circuit): Pair => {
      const other = circuit === 'primary' ? 'secondary' : 'primary';
      return {
        unit: 0,
        part: 'dash-double-check',
        title: `Read ${circuit} against the dash feed, ${other} empty`,
        from: `${circuit} tank`,
        to: 'dash feed',
        as: 'passes',
        ends: [circuit, 'dash'],
        asked: DOWN,
        drain: `${circuit} drain`,
        emptied: { drain: `${other} drain`, tank: `${other} tank` },
        state: 'parked',
        cyclesPark: true,
        how: `Empty the ${other} tank, then release and set the park brake once. Let ${circuit} down in steps, and read it and a gauge in the dash feed at each.`,
        sound: 'The dash has what the tank that is left has.',
      };
    }),
    ...(['rear signal', 'front signal'] as const).map((from): Pair => {
      const emptied = from === 'rear signal' ? ('secondary' as const) : ('primary' as const);
      const circuit = from === 'rear signal' ? 'primary' : 'secondary';
      return {
        unit: 0,
        part: 'foot-double-check',
        title: `Read the ${circuit} inlet against out: foot double check`,
        from,
        to: 'trailer foot signal',
        as: 'follows',
        asked: UP,
        emptied: { drain: `${emptied} drain`, tank: `${emptied} tank` },
        how: `Empty the ${emptied} tank, so that only the ${circuit} circuit gives. Press to each pressure in turn, and read the inlet and the outlet.`,
        sound: 'What goes in comes out.',
      };
    }),
    {
      unit: 0,
      part: 'hand-valve',
      title: 'Read in against out: hand valve to the trailer',
      from: 'hand signal',
      to: 'trailer service line',
      as: 'follows',
      by: 'hand',
      asked: UP,
      how: 'Pull the hand valve to each pressure in turn, always going up, and read a gauge behind it and one at the trailer’s service coupler.',
      sound: 'What goes in comes out.',
    },
    {
      unit: 0,
      part: 'tractor-protection',
      title: 'Read the trailer’s supply against service, as supply falls',
      from: 'trailer supply line',
      to: 'trailer service line',
      as: 'shuts',
      ends: ['supply', 'service'],
      by: 'bleed',
      heldPsi: 30,
      asked: [80, 60, 55, 50, 45, 40, 35, 30, 25, 20, 15],
      how: 'Red held in, gauges at both couplers. Crack the supply cock open until supply stands at each pressure in turn, going down; there press the pedal to 30 psi, read both, and let it go.',
      sound: 'Between 20 and 45 psi of supply it shuts: the tractor keeps its air.',
    },
    {
      unit: 0,
      part: 'anti-compounding',
      title: 'Read service against the spring side, parked',
      from: 'rear delivery',
      to: 'spring line',
      as: 'springs',
      ends: ['service', 'spring'],
      state: 'parked',
      asked: [20, 40, 60, 80],
      how: 'Parked, with a gauge at the rear relay’s delivery and one in the spring line: press to each pressure in turn and read both.',
      sound: 'The spring side follows the pedal, so that spring and service never add.',
    },
    {
      unit: 0,
      part: 'modulating-valve',
      title: 'Read front brakes against hold-off, primary empty',
      from: 'front signal',
      to: 'spring line',
      as: 'modulates',
      ends: ['front', 'spring'],
      emptied: primary,
      asked: [0, 10, 15, 20, 25, 30],
      how: 'Park brake released, empty the primary tank. Press to each pressure in turn, and read the front circuit and the spring line. Each press lets hold-off go: do it once, without pumping.',
      sound: 'Hold-off up to 95 psi, let off in proportion to the pedal.',
    },
    {
      unit: 0,
      part: 'modulating-valve',
      title: 'Read primary against hold-off, pedal held',
      from: 'primary tank',
      to: 'spring line',
      as: 'takes over',
      ends: ['primary', 'spring'],
      drain: 'primary drain',
      heldPsi: 20,
      asked: [90, 75, 70, 65, 60, 55, 50, 45, 40],
      how: 'Park brake released, a helper holds the pedal at 20 psi. Let primary down by its drain in steps, and read it and the spring line.',
      sound: 'At rest over 65 psi of primary, at work under 50 to 55.',
    },
  ];
}

function towed({ network }: Made): Pair[] {
  const units = [
    ...new Set(network.nodes.flatMap(({ unit, kind }) => (kind === 'towed tank' ? [unit] : []))),
  ];
  const has = (id: string) => network.nodes.some((node) => node.id === id);
  return units.flatMap((unit): Pair[] => {
    const at = towedPrefix(unit);
    const even = (
      from: string,
      to: string,
      part: string,
      title: string,
      ends: readonly [string, string],
    ): Pair => ({
      ends,
      unit,
      part,
      title,
      from,
      to,
      as: 'balance',
      asked: UP,
      how: PEDAL,
      sound: 'Both read alike.',
    });
    return [
      even(`${at}left`, `${at}right`, 'chambers', 'Read left against right', ['left', 'right']),
      ...(has('rear delivery')
        ? [
            even(
              'rear delivery',
              `${at}delivery`,
              'relay',
              'Read the vehicle in front against this',
              ['front', 'this'],
            ),
          ]
        : []),
      {
        unit,
        part: 'tank-check',
        title: 'Read either side: tank check',
        from: `${at}supply line`,
        to: `${at}tank`,
        as: 'holds',
        ends: ['line', 'tank'],
        asked: [0],
        state: 'red out',
        how: 'With a gauge in the supply line and one on the tank, pull red, and read both.',
        sound: 'The line goes down, the tank stays.',
      },
    ];
  });
}

/** Whose exhausts are timed by bubbles: those whose seats wear. */
const BUBBLES: ReadonlySet<PartRole> = new Set<PartRole>([
  'foot-valve',
  'quick-release',
  'relay',
  'relay-emergency',
  'park-relay',
  'park-control',
  'hand-brake-valve',
  'trailer-supply-control',
  'trailer-control-valve',
  'hand-valve',
  'load-sensing',
  'antilock-modulator',
]);

function bubbles({ network, parts }: Made): Bare[] {
  return network.elements.flatMap((way): Bare[] => {
    const { does, to, unit, part } = way;
    if (to !== OUTSIDE || does !== 'exhaust' || unit < 0 || part === null) return [];
    const role = parts[unit]?.get(part)?.role;
    if (role === undefined || !BUBBLES.has(role)) return [];
    const at = callOf(way)
      .replace(/(?<!’s \w*) exhaust$/, '’s exhaust')
      .replace('’s’s', '’s');
    return (EXHAUST_SPEAKS[role] ?? []).map((state) => ({
      id: `${unit}/bubble/${way.id}/${state}`,
      act: 'time',
      unit,
      part,
      title: `Time a bubble at the ${at}`,
      state: STATES[state],
      how: `Wet the ${at} and time how long one bubble takes to grow an inch across. None in a minute is ${BUBBLE_WAIT_S}.`,
      cautions: [EYES, UNDER],
      tools: ['soap bottle', 'timer'],
      minutes: 1.5,
      answer: { kind: 'number', unit: 's', resolution: 0.5, error: 0.5, spread: 4 },
      sound: `No bubble of an inch in less than ${BUBBLE_LEAST_S} seconds.`,
      doing: { does: 'bubble', way: way.id },
    }));
  });
}

/** It is raised by shop air with the governor left alone: a compressor that cannot unload is another fault. */
function safetyValve({ parts, network }: Made): Bare[] {
  if (!parts[0]?.has('safety-valve') || !network.elements.some(({ id }) => id === 'safety valve'))
    return [];
  const check: Omit<Check, 'bearsOn'> = {
    id: '0/read/safety valve/opens',
    act: 'read',
    unit: 0,
    part: 'safety-valve',
    title: 'Read where the safety valve opens',
    state: STATES.parked,
    how: 'With a gauge on the supply tank, feed it regulated shop air slowly, a few psi at a time, and read where the valve opens. Stop at 165 psi if it has not.',
    cautions: [
      OPENING,
      'Stand clear of the valve and keep under the rating of tank, hoses and gauge. Stop at 165 psi.',
    ],
    tools: ['gauge', 'tee', 'shop air'],
    minutes: 6,
    answer: psiShape(5),
    sound: 'At about 150 psi.',
    doing: { does: 'relief', way: 'safety valve', place: 'supply tank', mostPsi: 165 },
  };
  return [check];
}
