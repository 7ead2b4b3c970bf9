import type { NetNode } from '../network/network';

/** Numbers kept of each diaphragm. */
const CONSTANTS = 4;

/** Volumes of places whose diaphragm moves between two pressures, as tables by node. */
export class Strokes {
  /** Nodes with a diaphragm. */
  readonly moving: Int32Array;
  /** By each of those: its volume at rest and that of its stroke, where it starts, and 1 over how far it goes on. */
  private readonly constants: Float64Array;

  /**
   * @param volume by node, with nothing moved, m³
   * @param stroke by node: its stroke against the one described
   */
  constructor(
    private readonly nodes: readonly NetNode[],
    private readonly volume: Float64Array,
    private readonly stroke: Float64Array,
  ) {
    this.moving = Int32Array.from([...nodes.keys()].filter((i) => nodes[i]!.strokeM3 > 0));
    this.constants = new Float64Array(this.moving.length * CONSTANTS);
    this.changed();
  }

  /** Says that a volume or a stroke was changed. */
  changed(): void {
    const { moving, constants, nodes, volume, stroke } = this;
    for (let n = 0; n < moving.length; n += 1) {
      const i = moving[n]!;
      const { strokeM3, strokeFromPa, strokeToPa } = nodes[i]!;
      constants[n * CONSTANTS] = volume[i]!;
      constants[n * CONSTANTS + 1] = strokeM3 * stroke[i]!;
      constants[n * CONSTANTS + 2] = strokeFromPa;
      constants[n * CONSTANTS + 3] = 1 / (strokeToPa - strokeFromPa);
    }
  }

  /** Volume of a node at a gauge pressure, m³. */
  volumeAt(node: number, gaugePa: number): number {
    const { strokeM3, strokeFromPa, strokeToPa } = this.nodes[node]!;
    const moved = stroked((gaugePa - strokeFromPa) / (strokeToPa - strokeFromPa));
    return this.volume[node]! + strokeM3 * this.stroke[node]! * moved;
  }

  /** V + p·dV/dp of the n-th diaphragm's node at an absolute pressure: air that a rise takes in, in m³. */
  capacity(n: number, pa: number, outsidePa: number): number {
    const { constants } = this;
    const at = n * CONSTANTS;
    const perPa = constants[at + 3]!;
    const x = (pa - outsidePa - constants[at + 2]!) * perPa;
    const volume = constants[at]!;
    if (x <= 0) return volume;
    const stroke = constants[at + 1]!;
    if (x >= 1) return volume + stroke;
    return volume + stroke * (stroked(x) + pa * 30 * x * x * (1 - x) * (1 - x) * perPa);
  }

  /** How `capacity` changes with the pressure, m³/Pa. */
  capacitySlope(n: number, pa: number, outsidePa: number): number {
    const { constants } = this;
    const at = n * CONSTANTS;
    const perPa = constants[at + 3]!;
    const x = (pa - outsidePa - constants[at + 2]!) * perPa;
    if (x <= 0 || x >= 1) return 0;
    return (
      constants[at + 1]! *
      perPa *
      (60 * x * x * (1 - x) * (1 - x) + pa * 60 * x * (1 - x) * (1 - 2 * x) * perPa)
    );
  }
}

/**
 * Share of its stroke a diaphragm has made: 0 to 1 with no corner, nor a corner of its slope, at either end: its
 * return spring, the linings' touching the drum and the drum's giving way follow on each other without a step.
 */
function stroked(x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  return x * x * x * (10 - 15 * x + 6 * x * x);
}
