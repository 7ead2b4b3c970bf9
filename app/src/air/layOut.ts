import dagre from '@dagrejs/dagre';
import type { AirLayout, DrawnPlace, DrawnWay } from './drawnRig';

/** Room for “trailer service line”, the longest name of a part, px. */
const WIDTH = 124;

/** Size of a place on the drawing by what it is, px. */
function sizeOf({ isTank }: Pick<DrawnPlace, 'isTank'>): { width: number; height: number } {
  return { width: WIDTH, height: isTank ? 46 : 38 };
}

/** Lays an air system out from left to right, from the compressor to the last coupler. */
export function layOut(
  places: readonly Pick<DrawnPlace, 'isTank'>[],
  ways: readonly Pick<DrawnWay, 'id' | 'from' | 'to' | 'drawn'>[],
): AirLayout {
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
  places.forEach((place, i) => graph.setNode(String(i), sizeOf(place)));
  ways.forEach(({ from, to, id, drawn }) => {
    if (drawn) graph.setEdge(String(from), String(to), {}, id);
  });
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width,
    height,
    nodes: places.map((_, i) => {
      const at = graph.node(String(i));
      return {
        x: at.x - at.width / 2,
        y: at.y - at.height / 2,
        width: at.width,
        height: at.height,
      };
    }),
    ways: ways.map(({ from, to, id, drawn }) =>
      drawn ? (graph.edge({ v: String(from), w: String(to), name: id }).points ?? []) : [],
    ),
  };
}
