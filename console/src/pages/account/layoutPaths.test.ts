import { describe, expect, it } from 'vitest';
import type { JudgementView } from '../../api/schema.gen';
import { layoutPaths } from './layoutPaths';

const right = (verdict: string, ...paths: string[][]): JudgementView =>
  ({
    id: verdict + paths.join(),
    verdict,
    paths: paths.map((steps) => ({
      steps: steps.map((name, i) => ({ kind: i === 0 ? 'account' : 'domain-group', name })),
    })),
  }) as unknown as JudgementView;

describe('the picture of paths', () => {
  it('draws a shared step once', () => {
    const { nodes, edges } = layoutPaths([right('met', ['a', 'g', 'x']), right('excess', ['a', 'g', 'y'])]);
    expect(nodes.map((n) => n.name)).toEqual(['a', 'g', 'x', 'y']);
    expect(edges).toHaveLength(3);
  });

  it('marks an edge by the heaviest verdict that passes over it', () => {
    const { edges } = layoutPaths([right('met', ['a', 'g', 'x']), right('forbidden', ['a', 'g', 'y'])]);
    expect(edges.find((e) => e.to === 'domain-group:g')?.verdict).toBe('forbidden');
  });

  it('lets every edge lead to the right, whatever the order of the paths', () => {
    const { nodes, edges } = layoutPaths([
      right('met', ['a', 'late', 'x']),
      right('met', ['a', 'b', 'c', 'late', 'x']),
    ]);
    const column = Object.fromEntries(nodes.map((n) => [n.id, n.column]));
    for (const edge of edges) expect(column[edge.to]).toBeGreaterThan(column[edge.from] ?? 99);
  });

  it('ends on a ring of groups', () => {
    expect(layoutPaths([right('met', ['a', 'g', 'h']), right('met', ['a', 'h', 'g'])]).nodes).toHaveLength(3);
  });
});
