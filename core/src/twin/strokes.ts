import type { NetNode } from './network';

/** Volumes of places whose diaphragm moves between two pressures, as tables by node. */
export class Strokes {
  /** Nodes with a diaphragm. */
  readonly moving: Int32Array;
  private readonly volume: Float64Array;
  private readonly stroke: Float64Array;
  private readonly from: Float64Array;
  private readonly width: Float64Array;

  constructor(nodes: readonly NetNode[]) {
    this.moving = Int32Array.from(nodes.flatMap((node, i) => (node.strokeM3 === 0 ? [] : [i])));
    this.volume = Float64Array.from(nodes, (node) => node.volumeM3);
    this.stroke = Float64Array.from(nodes, (node) => node.strokeM3);
    this.from = Float64Array.from(nodes, (node) => node.strokeFromPa);
    this.width = Float64Array.from(nodes, (node) => node.strokeToPa - node.strokeFromPa);
  }

  /** Volume of a node at a gauge pressure, m³. */
  volumeAt(node: number, gaugePa: number): number {
    const x = (gaugePa - this.from[node]!) / this.width[node]!;
    return this.volume[node]! + this.stroke[node]! * stroked(x);
  }

  /** V + p·dV/dp at an absolute pressure: air that a rise of pressure takes in, in m³. */
  capacity(node: number, pa: number, outsidePa: number): number {
    const stroke = this.stroke[node]!;
    const volume = this.volume[node]!;
    if (stroke === 0) return volume;
    const width = this.width[node]!;
    const x = (pa - outsidePa - this.from[node]!) / width;
    if (x <= 0) return volume;
    if (x >= 1) return volume + stroke;
    return volume + stroke * (stroked(x) + (pa * 30 * x * x * (1 - x) * (1 - x)) / width);
  }

  /** How `capacity` changes with the pressure, m³/Pa. */
  capacitySlope(node: number, pa: number, outsidePa: number): number {
    const stroke = this.stroke[node]!;
    if (stroke === 0) return 0;
    const width = this.width[node]!;
    const x = (pa - outsidePa - this.from[node]!) / width;
    if (x <= 0 || x >= 1) return 0;
    return (
      (stroke / width) *
      (60 * x * x * (1 - x) * (1 - x) + (pa * 60 * x * (1 - x) * (1 - 2 * x)) / width)
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
