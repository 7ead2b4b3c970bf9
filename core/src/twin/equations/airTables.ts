import { FIRST_FOLLOWER, OUTSIDE, type NetElement, type Network } from '../network/network';
import { SparseLu } from '../algebra/sparseLu';
import { patternFor } from './knownPatterns';

/** Rows, and columns, in which one element may stand: both its ends, and the temperatures of both. */
const ENDS = 4;

/**
 * A network flattened: nothing but numbers in a row, so that the equations only walk along them. Outside air stands
 * behind the last place of the state, so that no element needs a question.
 */
export interface AirTables {
  /** Places of the state: each node, each follower, the temperature of each tank's air, then of each tank's wall. */
  size: number;
  nodeCount: number;
  /** Places that have a pressure: nodes and followers. */
  pressures: number;
  /** Nodes whose air may be warmer than outside, and by place where its temperature and its wall's stand, or −1. */
  tanks: Int32Array;
  heat: Int32Array;
  wall: Int32Array;
  /** By element. */
  from: Int32Array;
  to: Int32Array;
  critical: Float64Array;
  /** By element, and by opening: ranges of what follows. */
  openingStart: Int32Array;
  controlStart: Int32Array;
  controlNode: Int32Array;
  /** By control: its weight over its opening's band. */
  controlWeight: Float64Array;
  /** By opening. */
  band: Float64Array;
  weightSum: Float64Array;
  lu: SparseLu;
  /** By element: slots of its rows (from, its temperature, to, its temperature) and columns (from, to, both temperatures). */
  slots: Int32Array;
  /** By control: slots of its element's rows in the control's column. */
  controlSlots: Int32Array;
  /** By place: slots of its row's own temperature, and of its temperature's row: its pressure, itself. */
  pressureByHeat: Int32Array;
  heatByPressure: Int32Array;
  own: Int32Array;
  /** By place: slots of its row, and of its temperature's, by its wall. */
  pressureByWall: Int32Array;
  heatByWall: Int32Array;
}

/** Place in the state of a node or of a follower. */
export const stateOf = (nodeCount: number, node: number): number =>
  node >= 0 ? node : nodeCount + FIRST_FOLLOWER - node;

const known = {
  sound: new WeakMap<Network, AirTables>(),
  faulty: new WeakMap<Network, AirTables>(),
};

/**
 * Flattens a network, and takes or works out what the solver needs to know of its pattern: once for all that run it.
 *
 * @param of 'sound' leaves out of the pattern the ways that only a fault makes: a fifth of the solver's work goes
 * where no air does
 */
export function airTables(network: Network, of: 'sound' | 'faulty'): AirTables {
  const found = known[of].get(network) ?? flattened(network, of);
  known[of].set(network, found);
  return found;
}

/** Whether a sound rig has this way. */
export const isSound = ({ conductance }: NetElement) => conductance > 0;

function flattened(network: Network, of: 'sound' | 'faulty'): AirTables {
  const { nodes, elements, followers } = network;
  const nodeCount = nodes.length;
  const tanks = nodes.flatMap((node, i) => (node.wall === null ? [] : [i]));
  const pressures = nodeCount + followers.length;
  const size = pressures + 2 * tanks.length;
  const heat = new Int32Array(size + 1).fill(-1);
  const wall = new Int32Array(size + 1).fill(-1);
  tanks.forEach((node, i) => {
    heat[node] = pressures + i;
    wall[node] = pressures + tanks.length + i;
  });
  const many = elements.find((each) => each.openings.length > 2);
  if (many) throw new Error(`${many.name} has more than two openings`);
  const end = (node: number) => (node === OUTSIDE ? size : node);
  const openings = elements.flatMap((each) => each.openings);
  const controls = openings.flatMap((each) =>
    each.on.map(([node, weight]) => ({ place: stateOf(nodeCount, node), weight, ...each })),
  );
  const passing = of === 'sound' ? elements.filter(isSound) : elements;
  const lu = new SparseLu(
    patternFor(size, pattern({ ...network, elements: passing }, size, heat, wall)),
  );
  const slot = (row: number, column: number) =>
    row < 0 || column < 0 || row >= size || column >= size ? lu.slots : lu.slotOf(row, column);
  const rowsOf = (e: number) => {
    const { from, to } = elements[e]!;
    return [end(from), heat[end(from)]!, end(to), heat[end(to)]!];
  };
  const slots = new Int32Array(elements.length * ENDS * ENDS);
  const controlSlots: number[] = [];
  elements.forEach((element, e) => {
    const rows = rowsOf(e);
    const columns = [rows[0]!, rows[2]!, rows[1]!, rows[3]!];
    rows.forEach((row, r) =>
      columns.forEach((column, c) => {
        slots[(e * ENDS + r) * ENDS + c] = slot(row, column);
      }),
    );
    for (const { on } of element.openings) {
      for (const [node] of on) {
        controlSlots.push(...rows.map((row) => slot(row, stateOf(nodeCount, node))));
      }
    }
  });
  const places = Array.from({ length: size }, (_, i) => i);
  return {
    size,
    nodeCount,
    pressures,
    tanks: Int32Array.from(tanks),
    heat,
    wall,
    from: Int32Array.from(elements, (each) => end(each.from)),
    to: Int32Array.from(elements, (each) => end(each.to)),
    critical: Float64Array.from(elements, (each) => each.criticalRatio),
    openingStart: starts(elements.map((each) => each.openings.length)),
    controlStart: starts(openings.map((each) => each.on.length)),
    controlNode: Int32Array.from(controls, (each) => each.place),
    controlWeight: Float64Array.from(controls, (each) => each.weight / each.bandPa),
    band: Float64Array.from(openings, (each) => each.bandPa),
    weightSum: Float64Array.from(openings, (each) =>
      each.on.reduce((sum, [, weight]) => sum + weight, 0),
    ),
    lu,
    slots,
    controlSlots: Int32Array.from(controlSlots),
    own: Int32Array.from(places, (i) => slot(i, i)),
    pressureByHeat: Int32Array.from(places, (i) => slot(i, heat[i]!)),
    heatByPressure: Int32Array.from(places, (i) => slot(heat[i]!, i)),
    pressureByWall: Int32Array.from(places, (i) => slot(i, wall[i]!)),
    heatByWall: Int32Array.from(places, (i) => slot(heat[i]!, wall[i]!)),
  };
}

/**
 * Where a derivative may differ from 0. That of a wall by its air is left out: it warms by thousandths of a kelvin a
 * second, which the solver's stages follow well enough without, and a twentieth of its work is saved.
 */
function pattern(
  { elements, compressor, nodes }: Network,
  size: number,
  heat: Int32Array,
  wall: Int32Array,
): boolean[] {
  const found = new Array<boolean>(size * size).fill(false);
  const depends = (row: number, column: number) => {
    if (row < 0 || column < 0) return;
    found[row * size + column] = true;
    const warm = heat[row]!;
    if (warm >= 0) found[warm * size + column] = true;
  };
  for (let i = 0; i < size; i += 1) found[i * size + i] = true;
  for (let i = 0; i < nodes.length; i += 1) {
    depends(i, i);
    depends(i, heat[i]!);
    depends(i, wall[i]!);
  }
  for (const { from, to, openings } of elements) {
    const ends = [from, to].filter((node) => node !== OUTSIDE);
    const causes = [
      ...ends,
      ...ends.map((node) => heat[node]!),
      ...openings.flatMap((each) => each.on.map(([node]) => stateOf(nodes.length, node))),
    ];
    for (const end of ends) for (const cause of causes) depends(end, cause);
  }
  if (compressor) depends(compressor.into, compressor.unloader);
  return found;
}

function starts(lengths: readonly number[]): Int32Array {
  const out = new Int32Array(lengths.length + 1);
  lengths.forEach((length, i) => (out[i + 1] = out[i]! + length));
  return out;
}
