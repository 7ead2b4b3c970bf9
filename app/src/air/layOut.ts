import dagre from '@dagrejs/dagre';
import { isDrawn } from './circuitOf';
import type { AirLayout } from '../bay/bayProtocol';

interface Way {
  name: string;
  from: number;
  to: number;
}

/** Room for “trailer service line”, the longest name of a part, px. */
const WIDTH = 124;

/** Size of a place on the drawing by what it is, px. */
function sizeOf(name: string): { width: number; height: number } {
  if (name.endsWith(' tank')) return { width: WIDTH, height: 46 };
  return { width: WIDTH, height: 38 };
}

/** Lays an air system out from left to right, from the compressor to the last coupler. */
export function layOut(nodes: readonly string[], ways: readonly Way[]): AirLayout {
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({
    rankdir: 'LR',
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
