import { OUTSIDE } from '../twin/network/network';
import { placeInfo } from '../twin/network/placeKinds';
import type { AnswerShape, RigStateId, RodsWrong, Spot } from './check';
import { EXHAUST_SPEAKS } from './exhaustChecks';
import { whenOf } from './airChecks';
import { callOf, EYES, ROLL, UNDER, type Bare, type Made } from './made';
import { STATES } from './states';

/** Nothing stood out on a walk. */
export const NOTHING = 'nothing';
/** It is so everywhere. */
export const ALL = 'all';

/*
 * What one person does on one walk round the rig: it answers where, not how much. A walk is where to begin while nothing
 * points anywhere: it covers dozens of places in the time that a gauge takes at one.
 */
export function walkChecks(made: Made): Bare[] {
  return [
    ...airWalks(made),
    ...rodWalk(made),
    ...strokeWalk(made),
    ...drainWalk(made),
    ...hoseWalk(made),
    ...lampWalk(made),
  ];
}

const slug = (text: string) =>
  text
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '')
    .slice(0, 54);

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Where something is, in words: the unit is named where there is more than one. */
const named = ({ parts }: Made, unit: number, where: string) =>
  capital(parts.length > 1 ? `${where}, ${unit === 0 ? 'front unit' : `unit ${unit + 1}`}` : where);

const choicesOf = (spots: readonly Spot[], nothing: string): AnswerShape => ({
  kind: 'choice',
  choices: [{ id: NOTHING, title: nothing }, ...spots.map(({ id, title }) => ({ id, title }))],
});

/** Walks with an open ear. The engine is off: beside it nothing is heard from two paces away. */
const WALKED = {
  parked: ', parked',
  released: ', brakes released',
  applied: ', pedal held down',
  'red out': ', red pulled',
  'hand on': ', hand valve on',
} as const satisfies Partial<Record<RigStateId, string>>;

/** Which circuits are under air in a state. */
const FILLED: Partial<Record<RigStateId, readonly string[]>> = {
  parked: ['supply'],
  released: ['supply', 'park'],
  applied: ['supply', 'park', 'service'],
  'red out': ['supply', 'park'],
  'hand on': ['supply', 'park', 'service'],
};

function airWalks(made: Made): Bare[] {
  const { network, parts } = made;
  return (Object.keys(WALKED) as (keyof typeof WALKED)[]).flatMap((state): Bare[] => {
    const joints = network.nodes.flatMap((node): Spot[] => {
      const { unit, part, kind, id } = node;
      if (unit < 0 || part === null) return [];
      if (!(FILLED[state] ?? []).includes(placeInfo(kind).circuit)) return [];
      // Before the dryer's outlet there is air only while the engine runs.
      if (STATES[whenOf(node)].engine !== 'off') return [];
      const title = named(made, unit, `joints of the ${callOf(node)}`);
      return [{ id: `${unit}.${slug(callOf(node))}`, title, unit, part, at: id, is: 'joints' }];
    });
    const exhausts = network.elements.flatMap((way): Spot[] => {
      const { unit, part, id, to } = way;
      if (to !== OUTSIDE || unit < 0 || part === null) return [];
      const role = parts[unit]?.get(part)?.role;
      if (role === undefined || !(EXHAUST_SPEAKS[role] ?? []).includes(state)) return [];
      const title = named(made, unit, callOf(way));
      return [{ id: `${unit}.${slug(callOf(way))}.port`, title, unit, part, at: id, is: 'port' }];
    });
    const spots = [...joints, ...exhausts].sort((a, b) => a.unit - b.unit);
    return [
      {
        id: `0/walk/air/${state}`,
        act: 'walk',
        unit: 0,
        part: anyPart(made),
        title: `Walk round and listen${WALKED[state]}`,
        state: STATES[state],
        how: 'With everything quiet, walk the whole rig from front to rear and back on the other side, ears low. Where something hisses, go close until you know what it is. Name the loudest.',
        cautions: state === 'parked' ? [EYES] : [EYES, ROLL],
        tools: state === 'applied' || state === 'hand on' ? ['helper'] : [],
        minutes: 3 + 1.5 * (parts.length - 1),
        answer: choicesOf(spots, 'quiet all round'),
        sound: 'Quiet all round.',
        doing: { does: 'walk', of: 'air', spots },
      },
    ];
  });
}

/** A part that every rig of the kind has, for what is done at none alone. */
const anyPart = ({ parts }: Made): string =>
  ['foot-valve', 'tank', 'relay'].find((id) => parts[0]?.has(id)) ??
  [...(parts[0]?.keys() ?? [])][0] ??
  '';

const chambersOf = (made: Made): Spot[] =>
  made.network.nodes.flatMap((node): Spot[] => {
    const { kind, unit, part, id } = node;
    if (kind !== 'service chamber' || unit < 0 || part === null) return [];
    const where = id.replace(/^#\d+ /, '');
    return [
      {
        id: `${unit}.${slug(where)}`,
        title: named(made, unit, where),
        unit,
        part,
        at: id,
        is: 'joints',
      },
    ];
  });

/** What a rod does wrong, the worst first: what is shown of it goes before the place. */
const RODS: readonly { id: RodsWrong; title: string }[] = [
  { id: 'out', title: 'stays out' },
  { id: 'idle', title: 'does not move at 9 psi' },
  { id: 'late', title: 'comes last' },
];

/** Rods and slack adjusters, watched while a helper works the pedal. */
function rodWalk(made: Made): Bare[] {
  const spots = chambersOf(made);
  if (spots.length < 2) return [];
  return [
    {
      id: '0/walk/rods',
      act: 'walk',
      unit: 0,
      part: anyPart(made),
      title: 'Watch the rods while a helper works the pedal',
      state: STATES.released,
      how: 'At each axle a helper holds 9 psi, then stamps, then lets go. Look at the rods of both sides: does each move at 9 psi, do they go together, and are all back two seconds later?',
      cautions: [UNDER],
      tools: ['helper'],
      minutes: 3 + 1.5 * (made.parts.length - 1),
      answer: {
        kind: 'choice',
        choices: [
          { id: NOTHING, title: 'all move, together, and are back' },
          { id: `out.${ALL}`, title: 'None is back' },
          { id: `idle.${ALL}`, title: 'None moves at 9 psi' },
          ...RODS.flatMap(({ id, title }) =>
            spots.map((spot) => ({ id: `${id}.${spot.id}`, title: `${spot.title}: ${title}` })),
          ),
        ],
      },
      sound: 'All move, together, and are back.',
      doing: { does: 'walk', of: 'rods', spots },
    },
  ];
}

function strokeWalk(made: Made): Bare[] {
  const spots = chambersOf(made);
  if (spots.length === 0) return [];
  return [
    {
      id: '0/walk/strokes',
      act: 'walk',
      unit: 0,
      part: anyPart(made),
      title: 'Measure every stroke',
      state: STATES.applied,
      how: 'Mark each rod at its chamber with the pedal up, and measure how far the mark has come with the pedal full. Name the longest, where it is past its limit or plainly longer than its fellow.',
      cautions: [UNDER],
      tools: ['chalk', 'rule', 'helper'],
      minutes: 2 + 0.7 * spots.length,
      answer: choicesOf(spots, 'all within their limit'),
      sound: 'All within their limit.',
      doing: { does: 'walk', of: 'strokes', spots },
    },
  ];
}

function drainWalk(made: Made): Bare[] {
  const spots = made.network.nodes.flatMap((node): Spot[] => {
    const { kind, unit, part, id } = node;
    if (unit < 0 || part === null || !placeInfo(kind).isTank) return [];
    return [
      {
        id: `${unit}.${slug(callOf(node))}`,
        title: named(made, unit, callOf(node)),
        unit,
        part,
        at: id,
        is: 'joints',
      },
    ];
  });
  if (spots.length < 2) return [];
  return [
    {
      id: '0/walk/drains',
      act: 'walk',
      unit: 0,
      part: spots[0]!.part,
      title: 'Drain every tank and look',
      state: STATES.parked,
      how: 'Open each drain slowly over a cup until only air comes. Name the one that gave most, where any gave more than a cup.',
      cautions: ['Look away from the drain: it throws out water, oil and grit.'],
      tools: ['cup'],
      minutes: 1 + 0.7 * spots.length,
      answer: choicesOf(spots, 'none gave more than a cup'),
      sound: 'None gives more than a cup.',
      doing: { does: 'walk', of: 'water', spots },
    },
  ];
}

/** An eye follows a hose so well [common practice, no source]. */
const KINK_SEEN = 0.85;
const KINK_IMAGINED = 0.05;

function hoseWalk(made: Made): Bare[] {
  const spots = chambersOf(made);
  if (spots.length < 2) return [];
  const even = (share: number) =>
    Object.fromEntries(spots.map(({ id }) => [id, share / spots.length]));
  return [
    {
      id: '0/walk/hoses',
      act: 'walk',
      unit: 0,
      part: anyPart(made),
      title: 'Look along every brake hose',
      state: STATES.parked,
      how: 'Follow each hose to its chamber over its whole length, with the wheels straight and turned. Name the one that is kinked, twisted or flat.',
      cautions: [UNDER],
      tools: ['lamp'],
      minutes: 1 + 0.5 * spots.length,
      answer: choicesOf(spots, 'all straight and whole'),
      sound: 'All straight and whole.',
      doing: {
        does: 'look',
        sound: { [NOTHING]: 1 - KINK_IMAGINED, ...even(KINK_IMAGINED) },
        under: Object.fromEntries(
          spots.map(({ id, at }) => [
            `kinked: ${at} hose`,
            {
              ...even(0.03),
              [NOTHING]: 1 - KINK_SEEN - 0.03 * (1 - 1 / spots.length),
              [id]: KINK_SEEN,
            },
          ]),
        ),
      },
    },
  ];
}

function lampWalk(made: Made): Bare[] {
  const lamps = made.network.latches.find(({ role }) => role === 'stop-lamp switch');
  if (!lamps || !made.network.nodes.some(({ id }) => id === 'supply tank')) return [];
  return [
    {
      id: '0/walk/lamps',
      act: 'walk',
      unit: 0,
      part: lamps.part,
      title: 'Watch the stop lamps as the pedal goes down slowly',
      state: STATES.released,
      how: 'Key on. From behind, see the lamps with the pedal up, at 8 psi, and at 30 psi.',
      cautions: [ROLL],
      tools: ['helper'],
      minutes: 1,
      answer: {
        kind: 'choice',
        choices: [
          { id: NOTHING, title: 'off, and on from a light pedal' },
          { id: 'always', title: 'on with the pedal up' },
          { id: 'late', title: 'on at 30 psi only' },
          { id: 'dead', title: 'never on' },
        ],
      },
      sound: 'Off, and on from a light pedal.',
      doing: { does: 'walk', of: 'lamps', spots: [] },
    },
  ];
}
