import type { PartRole } from '../rig/partsOf';
import { OUTSIDE, type NetElement } from '../twin/network/network';
import type { RigStateId } from './check';
import { graded, HEARD } from './grades';
import { callOf, EYES, type Bare, type Made } from './made';
import { STATES } from './states';

/** In which states an exhaust of a role has something to say: its inlet's seat in one, its exhaust's in the other. */
export const EXHAUST_SPEAKS: Partial<Record<PartRole, readonly RigStateId[]>> = {
  'foot-valve': ['released', 'applied'],
  'quick-release': ['released', 'applied'],
  relay: ['released', 'parked', 'applied'],
  'relay-emergency': ['released', 'applied', 'red out'],
  'park-relay': ['parked', 'released'],
  'park-control': ['parked', 'released'],
  'hand-brake-valve': ['parked', 'released'],
  'trailer-supply-control': ['red out', 'released'],
  'trailer-control-valve': ['released', 'applied'],
  'hand-valve': ['released', 'hand on'],
  'modulating-valve': ['released', 'applied'],
  'antilock-modulator': ['released', 'applied'],
  'load-sensing': ['released', 'applied'],
  dryer: ['loading', 'unloaded'],
  governor: ['loading', 'unloaded'],
  'safety-valve': ['parked', 'unloaded'],
  accessory: ['parked'],
  drain: ['parked'],
  cock: ['released', 'applied'],
  coupler: ['released', 'applied'],
};

/** Where an ear is held: each exhaust, each drain, and the open ends behind the last cocks. */
export function exhaustChecks(made: Made): Bare[] {
  const { network, parts } = made;
  return network.elements.flatMap((way): Bare[] => {
    const { id, does, to, unit, part } = way;
    if (to !== OUTSIDE || unit < 0 || part === null) return [];
    const isEnd = does === 'open end' && id.includes('cock');
    const isTakeOff = does === 'seal' && part === 'accessories';
    if (does !== 'exhaust' && does !== 'drain' && !isEnd && !isTakeOff) return [];
    const role = parts[unit]?.get(part)?.role;
    const states = role ? EXHAUST_SPEAKS[role] : undefined;
    return (states ?? []).map((state) => listenAt(made, way, part, state));
  });
}

function listenAt({ parts }: Made, way: NetElement, part: string, state: RigStateId): Bare {
  const where = callOf(way);
  const role = parts[way.unit]?.get(part)?.role;
  const isDrain = way.does === 'drain';
  const at =
    isDrain || role === 'accessory'
      ? where
      : where.includes('’s ')
        ? where
        : where.replace(/ exhaust$/, '’s exhaust');
  return {
    id: `${way.unit}/listen/${way.id}/${state}`,
    act: 'listen',
    unit: way.unit,
    part,
    title: `Listen at the ${at}`,
    state: STATES[state],
    how:
      role === 'accessory'
        ? 'Walk along suspension, horn and whatever else is worked by air, and listen at each.'
        : `Hold an ear, or a length of hose, close to the ${at}. Wait for the last air of a release to pass.`,
    cautions:
      role === 'dryer' ? [EYES, 'Keep clear of the dryer: it blows off without warning.'] : [EYES],
    tools: [],
    minutes: 0.5,
    answer: graded(HEARD),
    sound: 'Quiet.',
    doing: { does: 'listen', way: way.id },
  };
}
