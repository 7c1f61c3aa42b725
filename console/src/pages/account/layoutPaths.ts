import type { JudgementView } from '../../api/schema.gen';

export interface PictureNode {
  id: string;
  name: string;
  kind: string;
  verdict: string;
  column: number;
  row: number;
}

export interface PictureEdge {
  from: string;
  to: string;
  verdict: string;
}

/** The heaviest verdict that passes through wins: forbidden, excess, then the rest. */
const weight: Record<string, number> = { forbidden: 3, excess: 2, missing: 1 };
const heavier = (a: string, b: string) => ((weight[a] ?? 0) >= (weight[b] ?? 0) ? a : b);

/** Lays paths out from left to right: the account first, each step one column beyond the farthest step before it, rights last. */
export function layoutPaths(rights: JudgementView[]): { nodes: PictureNode[]; edges: PictureEdge[] } {
  const nodes = new Map<string, PictureNode>();
  const edges = new Map<string, PictureEdge>();
  for (const right of rights) {
    for (const path of right.paths) {
      path.steps.forEach((step, i) => {
        const id = `${step.kind}:${step.name}`;
        const last = i === path.steps.length - 1;
        const before = nodes.get(id);
        const verdict = last ? right.verdict : 'passed';
        if (before) {
          before.column = Math.max(before.column, i);
          before.verdict = heavier(before.verdict, verdict);
        } else nodes.set(id, { id, name: step.name, kind: step.kind, verdict, column: i, row: 0 });
        const previous = path.steps[i - 1];
        if (!previous) return;
        const from = `${previous.kind}:${previous.name}`;
        const key = `${from}>${id}`;
        const edge = edges.get(key);
        if (edge) edge.verdict = heavier(edge.verdict, right.verdict);
        else edges.set(key, { from, to: id, verdict: right.verdict });
      });
    }
  }
  // A step that one path reaches early and another late pushes what follows it to the right.
  for (let pass = 0, moved = true; moved && pass < nodes.size; pass++) {
    moved = false;
    for (const edge of edges.values()) {
      const from = nodes.get(edge.from);
      const to = nodes.get(edge.to);
      if (from && to && to.column <= from.column) {
        to.column = from.column + 1;
        moved = true;
      }
    }
  }
  const rows: number[] = [];
  for (const node of nodes.values()) {
    node.row = rows[node.column] ?? 0;
    rows[node.column] = node.row + 1;
  }
  return { nodes: [...nodes.values()], edges: [...edges.values()] };
}
