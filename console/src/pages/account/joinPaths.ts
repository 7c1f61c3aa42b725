import type { JudgementView } from '../../api/schema.gen';

export interface PictureNode {
  id: string;
  name: string;
  kind: string;
  verdict: string;
}

export interface PictureEdge {
  from: string;
  to: string;
  verdict: string;
}

/** The heaviest verdict that passes through wins: forbidden, excess, then the rest. */
const weight: Record<string, number> = { forbidden: 3, excess: 2, missing: 1 };
const heavier = (a: string, b: string) => ((weight[a] ?? 0) >= (weight[b] ?? 0) ? a : b);

/** What is drawn of paths: each step once, and the lines between them. */
export function joinPaths(rights: JudgementView[]): { nodes: PictureNode[]; edges: PictureEdge[] } {
  const nodes = new Map<string, PictureNode>();
  const edges = new Map<string, PictureEdge>();
  for (const right of rights) {
    for (const path of right.paths) {
      path.steps.forEach((step, i) => {
        const id = `${step.kind}:${step.name}`;
        const last = i === path.steps.length - 1;
        const before = nodes.get(id);
        const verdict = last ? right.verdict : 'passed';
        if (before) before.verdict = heavier(before.verdict, verdict);
        else nodes.set(id, { id, name: step.name, kind: step.kind, verdict });
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
  return { nodes: [...nodes.values()], edges: [...edges.values()] };
}
