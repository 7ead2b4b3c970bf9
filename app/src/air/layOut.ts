import dagre from '@dagrejs/dagre';
import { isDrawn } from './circuitOf';
import type { AirLayout } from '../bay/bayProtocol';

interface Way {
  name: string;
  from: number;
  to: number;
}

/** Size of a place on the drawing by what it is, px. */
function sizeOf(name: string): { width: number; height: number } {
  if (name.endsWith(' tank')) return { width: 118, height: 46 };
  return { width: 104, height: 38 };
}

/**
 * Lays an air system out from the compressor to the last coupler.
 *
 * @param down from top to bottom, for a phone held upright, and not from left to right
 */
export function layOut(nodes: readonly string[], ways: readonly Way[], down = false): AirLayout {
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({
    rankdir: down ? 'TB' : 'LR',
    align: 'UL',
    nodesep: 10,
    ranksep: 34,
    marginx: 12,
    marginy: 12,
  });
  graph.setDefaultEdgeLabel(() => ({}));
  nodes.forEach((name, i) => graph.setNode(String(i), sizeOf(name)));
  ways.forEach(({ from, to, name }) => {
    if (from >= 0 && to >= 0 && isDrawn(name)) graph.setEdge(String(from), String(to), {}, name);
  });
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width,
    height,
    nodes: nodes.map((_, i) => {
      const at = graph.node(String(i));
      return {
        x: at.x - at.width / 2,
        y: at.y - at.height / 2,
        width: at.width,
        height: at.height,
      };
    }),
    ways: ways.map(({ from, to, name }) =>
      from >= 0 && to >= 0 && isDrawn(name)
        ? (graph.edge({ v: String(from), w: String(to), name }).points ?? [])
        : [],
    ),
  };
}
