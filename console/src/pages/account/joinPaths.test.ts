import { describe, expect, it } from 'vitest';
import type { JudgementView } from '../../api/schema.gen';
import { joinPaths } from './joinPaths';

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
    const { nodes, edges } = joinPaths([right('met', ['a', 'g', 'x']), right('excess', ['a', 'g', 'y'])]);
    expect(nodes.map((n) => n.name)).toEqual(['a', 'g', 'x', 'y']);
    expect(edges).toHaveLength(3);
  });

  it('marks an edge by the heaviest verdict that passes over it', () => {
    const { edges } = joinPaths([right('met', ['a', 'g', 'x']), right('forbidden', ['a', 'g', 'y'])]);
    expect(edges.find((e) => e.to === 'domain-group:g')?.verdict).toBe('forbidden');
  });

  it('ends on a ring of groups', () => {
    expect(joinPaths([right('met', ['a', 'g', 'h']), right('met', ['a', 'h', 'g'])]).nodes).toHaveLength(3);
  });
});
