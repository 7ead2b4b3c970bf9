import type { NetNode } from '../twin/network/network';
import { placeInfo, type PlaceKind } from '../twin/network/placeKinds';
import type { RigStateId } from './check';
import { graded, SOAPED, WATER } from './grades';
import { callOf, OPENING, psiShape, UNDER, type Bare, type Made } from './made';
import { STATES } from './states';

/** When a place holds the air that would leak from it, where its circuit does not say. */
const WHEN: Partial<Record<PlaceKind, RigStateId>> = {
  'discharge line': 'loading',
  dryer: 'loading',
  'purge volume': 'unloaded',
  'governor line': 'unloaded',
  'hand signal': 'hand on',
  'trailer supply line': 'released',
  'towed supply line': 'released',
  'rear supply': 'released',
};

/** The state in which a place holds the air that would leak from it. */
export const whenOf = ({ kind }: NetNode): RigStateId =>
  WHEN[kind] ??
  ({ supply: 'parked', service: 'applied', park: 'released' } as const)[placeInfo(kind).circuit];

/** What is done at a place that holds air: wet its joints, tee a gauge in, and drain it where it is a tank. */
export function airChecks(made: Made): Bare[] {
  return made.network.nodes.flatMap((node): Bare[] => {
    const { unit, part, kind } = node;
    if (unit < 0 || part === null) return [];
    const isTank = placeInfo(kind).isTank ?? false;
    return [
      wetAt(node, part),
      ...(kind === 'loose end' ? [] : [readAt(node, part)]),
      ...releasedToo(node, part),
      ...(isTank ? [drainAt(node, part)] : []),
    ];
  });
}

function wetAt(node: NetNode, part: string): Bare {
  const where = callOf(node);
  const under = placeInfo(node.kind).circuit !== 'supply';
  return {
    id: `${node.unit}/wet/${node.id}`,
    act: 'wet',
    unit: node.unit,
    part,
    title: `Wet the joints of the ${where}`,
    state: STATES[whenOf(node)],
    how: `Run soapy water over every joint, hose end and seam of the ${where}, and wait half a minute.`,
    cautions: under ? [UNDER] : [],
    tools: ['soap bottle'],
    minutes: 1.5,
    answer: graded(SOAPED),
    sound: 'Dry, or a film in one place.',
    doing: { does: 'wet', place: node.id },
  };
}

function readAt(node: NetNode, part: string, state = whenOf(node)): Bare {
  const where = callOf(node);
  return {
    id: `${node.unit}/read/${node.id}/${state}`,
    act: 'read',
    unit: node.unit,
    part,
    title: `Read the ${where} on a spare gauge`,
    state: STATES[state],
    how: `Tee a gauge into the ${where}, bring the rig into its state, and read once the needle stands.`,
    cautions: [OPENING],
    tools: ['gauge', 'tee'],
    minutes: 4,
    answer: psiShape(node.kind === 'discharge line' ? 6 : 5),
    sound: 'What the state asks for: nothing where nothing is asked.',
    doing: { does: 'read', place: node.id },
  };
}

/** Service air that stands there with nobody on the pedal, and springs with the park brake set. */
function releasedToo(node: NetNode, part: string): Bare[] {
  const { circuit } = placeInfo(node.kind);
  if (circuit === 'service') {
    const released = readAt(node, part, 'released');
    return [{ ...released, answer: psiShape(0.5), sound: 'Nothing: no brake is asked for.' }];
  }
  if (node.kind === 'spring line') {
    return [readAt(node, part, 'parked, applied'), readAt(node, part, 'applied')];
  }
  return [];
}

function drainAt(node: NetNode, part: string): Bare {
  const where = callOf(node);
  const drain = node.kind === 'towed tank' ? 'drain' : `${node.kind.split(' ')[0] ?? ''}-drain`;
  return {
    id: `${node.unit}/drain/${node.id}`,
    act: 'drain',
    unit: node.unit,
    part,
    title: `Drain the ${where} and look`,
    state: STATES.parked,
    how: `Hold a cup under the ${drain.replace('-', ' ')} and open it slowly until only air comes.`,
    cautions: ['Look away from the drain: it throws out water, oil and grit.'],
    tools: ['cup'],
    minutes: 1,
    answer: graded(WATER),
    sound: 'Nothing, or mist.',
    doing: { does: 'drain', place: node.id },
  };
}
