import { graphlib, layout } from '@dagrejs/dagre';

/** The size of a box of a picture, and the room between boxes, in pixels. */
export interface Room {
  width: number;
  height: number;
  /** Between one column and the next. */
  across: number;
  /** Between one box and the one below it. */
  down: number;
}

/** The upper left corner of a box. */
export interface Corner {
  x: number;
  y: number;
}

/** Boxes laid out from left to right so that lines lead to the right and cross as little as may be; rings come to an end too. */
export function layered(
  boxes: string[],
  lines: { from: string; to: string }[],
  { width, height, across, down }: Room,
): { corners: Map<string, Corner>; height: number } {
  const graph = new graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', ranksep: across, nodesep: down, ranker: 'network-simplex' });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const box of boxes) graph.setNode(box, { width, height });
  for (const line of lines) if (line.from !== line.to) graph.setEdge(line.from, line.to);
  layout(graph);
  const corners = new Map<string, Corner>();
  for (const box of boxes) {
    const { x = 0, y = 0 } = graph.node(box) as Partial<Corner>;
    corners.set(box, { x: x - width / 2, y: y - height / 2 });
  }
  const lowest = Math.max(0, ...[...corners.values()].map((c) => c.y + height));
  return { corners, height: lowest };
}
