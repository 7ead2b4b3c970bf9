import type { PairKind } from '../bench/pairs';
import { towedPrefix } from '../twin/network/network';
import type { AnswerShape, RigStateId } from './check';
import { callOf, OPENING, UNDER, type Bare, type Made } from './made';
import { STATES } from './states';

const seconds = (resolution: number, spread: number): AnswerShape => ({
  kind: 'number',
  unit: 's',
  resolution,
  error: resolution / 2,
  spread,
});
const points: Extract<AnswerShape, { kind: 'points' }> = {
  kind: 'points',
  from: 'in',
  to: 'out',
  resolution: 1,
  error: 0.7,
  spread: 2,
};

/** What is timed, and what is read at two ports going up. */
export function timingChecks(made: Made): Bare[] {
  return [...chamberChecks(made), ...handBrakeChecks(made), ...relayChecks(made)];
}

function chamberChecks({ network }: Made): Bare[] {
  const timed = network.nodes.filter(({ kind }) => kind === 'service chamber');
  const springs = network.nodes.filter(({ kind }) => kind === 'spring chamber');
  return [
    ...timed.flatMap((node): Bare[] => {
      const where = callOf(node);
      const part = node.part ?? '';
      const base = { unit: node.unit, part, state: STATES.released, minutes: 3 };
      const gauged = { cautions: [OPENING, UNDER], tools: ['gauge', 'tee', 'timer'] };
      return [
        {
          ...base,
          ...gauged,
          id: `${node.unit}/time/${node.id}/down`,
          act: 'time',
          title: `Time the ${where} on`,
          how: `With a gauge at the ${where}, have the pedal pressed fast and full: how long until 60 psi?`,
          answer: seconds(0.02, 0.12),
          sound: 'Well under half a second.',
          doing: { does: 'time', place: node.id, pastPsi: 60, pedal: 'down' },
        },
        {
          ...base,
          ...gauged,
          id: `${node.unit}/time/${node.id}/up`,
          act: 'time',
          title: `Time the ${where} off`,
          how: `With a gauge at the ${where}, have a full application let go fast: how long until 5 psi?`,
          answer: seconds(0.02, 0.2),
          sound: 'About half a second.',
          doing: { does: 'time', place: node.id, pastPsi: 5, pedal: 'up' },
        },
        {
          ...base,
          id: `${node.unit}/look/${node.id}/stroke`,
          act: 'look',
          title: `Measure the stroke of the ${where}`,
          state: STATES.applied,
          how: `Mark the rod at the ${where}, have 90 psi applied, and measure how far it came.`,
          cautions: [UNDER],
          tools: ['chalk', 'rule'],
          answer: { kind: 'number', unit: 'mm', resolution: 2, error: 1, spread: 3 },
          sound: 'Inside the limit of its type, and alike on both sides.',
          doing: { does: 'stroke', place: node.id },
        },
      ];
    }),
    ...springs.map((node): Bare => {
      const where = callOf(node);
      return {
        id: `${node.unit}/time/${node.id}/springs`,
        act: 'time',
        unit: node.unit,
        part: node.part ?? '',
        title: `Time the ${where} off`,
        state: STATES.parked,
        how: `With a gauge at the ${where}, have the park brake released: how long until 60 psi?`,
        cautions: [OPENING, UNDER, 'Chock the wheels: this releases the park brake.'],
        tools: ['gauge', 'tee', 'timer'],
        minutes: 3,
        answer: seconds(0.1, 0.5),
        sound: 'A few seconds.',
        doing: { does: 'springs', place: node.id, pastPsi: 60 },
      };
    }),
  ];
}

/** How fast the hand brake's line to the trailer fills: it holds the trailer's brakes off. */
function handBrakeChecks({ network }: Made): Bare[] {
  if (!network.nodes.some(({ id }) => id === 'hand brake line')) return [];
  return [
    {
      id: '0/time/hand brake line/springs',
      act: 'time',
      unit: 0,
      part: 'hand-brake-valve',
      title: 'Time the hand brake’s line to the trailer',
      state: STATES.parked,
      how: 'With a gauge in the hand brake’s line at 43, have the hand brake released: how long until 80 psi?',
      cautions: [OPENING, 'Chock the wheels: this releases the park brake.'],
      tools: ['gauge', 'tee', 'timer'],
      minutes: 3,
      answer: seconds(0.1, 0.5),
      sound: 'A second or so.',
      doing: { does: 'springs', place: 'hand brake line', pastPsi: 80 },
    },
  ];
}

interface Pair {
  unit: number;
  part: string;
  title: string;
  from: string;
  to: string;
  state?: RigStateId;
  by?: 'pedal' | 'hand';
  as?: PairKind;
  ends?: readonly [from: string, to: string];
}

/** A valve's control against its delivery, going up: where it opens, and how it follows. */
function relayChecks({ network, parts }: Made): Bare[] {
  const has = (id: string) => network.nodes.some((node) => node.id === id);
  const units = [...new Set(network.nodes.map(({ unit }) => unit))].filter(
    (unit) => unit > 0 || !has('rear signal'),
  );
  const pairs: Pair[] = [
    {
      unit: 0,
      part: 'rear-relay',
      title: 'rear relay',
      from: 'rear relay control',
      to: 'rear delivery',
    },
    {
      unit: 0,
      part: 'foot-valve',
      title: 'foot valve’s two circuits',
      ends: ['primary', 'secondary'],
      from: 'rear signal',
      to: 'front signal',
      as: 'balance',
    },
    {
      unit: 0,
      part: 'load-sensing',
      title: 'load-sensing valve',
      from: 'rear signal',
      to: 'rear relay control',
      as: 'ratio',
    },
    {
      unit: 0,
      part: 'front-load-sensing',
      title: 'front load-sensing valve',
      from: 'front signal',
      to: 'front load control',
      as: 'ratio',
    },
    {
      unit: 0,
      part: 'rear-control-line',
      title: 'rear control line',
      from: 'rear signal',
      to: 'rear relay control',
    },
    {
      unit: 0,
      part: 'tractor-protection',
      title: 'tractor protection',
      from: 'trailer signal',
      to: 'trailer service line',
    },
    {
      unit: 0,
      part: 'trailer-control-valve',
      title: 'trailer control valve',
      from: 'rear signal',
      to: 'trailer service line',
    },
    {
      unit: 0,
      part: 'tractor-protection',
      title: 'tractor protection with red pulled',
      from: 'trailer signal',
      to: 'trailer service line',
      state: 'red out',
      as: 'shut',
    },
    ...units.flatMap((unit): Pair[] => {
      const at = towedPrefix(unit);
      const load = has(`${at}load control`);
      return [
        {
          unit,
          part: 'relay',
          title: 'relay',
          from: load ? `${at}load control` : `${at}service line`,
          to: `${at}delivery`,
        },
        {
          unit,
          part: 'load-sensing',
          title: 'load-sensing valve',
          from: `${at}service line`,
          to: `${at}load control`,
          as: 'ratio',
        },
      ];
    }),
  ];
  return pairs
    .filter(
      ({ unit, part, from, to }) =>
        has(from) &&
        has(to) &&
        (parts[unit]?.has(part) ?? false) &&
        // With a load-sensing valve in it the line is part of that pair.
        !(part === 'rear-control-line' && parts[unit]?.has('load-sensing')),
    )
    .map(({ unit, part, title, from, to, state = 'released', by = 'pedal', as, ends }): Bare => ({
      id: `${unit}/compare/${from}/${to}/${state}`,
      act: 'compare',
      unit,
      part,
      title: `Read in against out: ${title}`,
      state: STATES[state],
      how: 'Tee a gauge in at each port. Press to each pressure in turn, always going up, and read both; then let it down in steps without pressing again.',
      cautions: [OPENING],
      tools: ['two gauges', 'two tees'],
      minutes: 6,
      answer: {
        ...points,
        ...(as ? { as } : {}),
        ...(ends ? { from: ends[0], to: ends[1] } : {}),
      },
      sound: 'It opens near its crack pressure and then follows.',
      doing: {
        does: 'compare',
        from,
        to,
        by,
        asked: [4, 6, 8, 10, 15, 20, 40, 60],
      },
    }));
}
