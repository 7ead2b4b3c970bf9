import type { RigUnderTest } from '../rig/rigUnderTest';
import { airOf } from '../twin/network/airOf';
import { OUTSIDE, type Network } from '../twin/network/network';

/**
 * What else has no air once a place is capped or taken off: everything that hangs on it alone. By the lines and valves
 * of the rig, each as it is when it is open.
 *
 * @returns places in walking order, without the place itself; none where there is no such place
 */
export function losesAir(rig: RigUnderTest, place: string): string[] {
  const network = airOf(rig);
  const { nodes } = network;
  const at = nodes.findIndex(({ id }) => id === place);
  if (at < 0) return [];
  const whole = reached(network, -2);
  const without = reached(network, at);
  return nodes.flatMap(({ id, unit }, n) =>
    n !== at && unit >= 0 && whole.has(n) && !without.has(n) ? [id] : [],
  );
}

/** Places that air reaches from the compressor or the shop, where one is left out. */
function reached({ nodes, elements, compressor }: Network, left: number): Set<number> {
  const sources = nodes.flatMap(({ unit }, n) => (unit < 0 || n === compressor?.into ? [n] : []));
  const seen = new Set(sources.filter((n) => n !== left));
  const queue = [...seen];
  for (let n = queue.pop(); n !== undefined; n = queue.pop()) {
    for (const { from, to, openings, conductance, does } of elements) {
      if (to === OUTSIDE || from === OUTSIDE || (conductance <= 0 && does !== 'test position'))
        continue;
      // A way without a valve in it passes both ways.
      const next = from === n ? to : to === n && openings.length === 0 ? from : null;
      if (next === null || next === left || seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return seen;
}
