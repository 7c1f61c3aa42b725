import { describe, expect, it } from 'vitest';
import type { HostServiceView } from '../../api/schema.gen';
import { layoutServices } from './layoutServices';

const service = (name: string, waitsFor: string[]): HostServiceView => ({
  name,
  title: '',
  account: 'LocalSystem',
  running: true,
  runsNowAs: null,
  runsSince: null,
  restartPending: false,
  start: 'automatic',
  startOrder: 'automatic',
  waitsFor,
  obstacle: null,
  askedBy: null,
  identity: '',
  identityRights: [],
});

describe('layoutServices', () => {
  it('puts each service beyond everything it waits for, and leaves out those that stand alone', () => {
    const { nodes, edges } = layoutServices([
      service('C', ['B', 'A']),
      service('B', ['a']),
      service('A', []),
      service('Alone', []),
    ]);
    expect(Object.fromEntries(nodes.map((n) => [n.name, n.column]))).toEqual({ A: 0, B: 1, C: 2 });
    expect(edges).toHaveLength(3);
  });

  it('shows what is waited for and not there', () => {
    const gone = layoutServices([service('A', ['+Group', 'Gone'])]).nodes.filter((n) => !n.service);
    expect(gone.map((n) => n.name).sort()).toEqual(['+Group', 'Gone']);
  });

  it('puts what waits for nothing just before the first that waits for it', () => {
    const { nodes } = layoutServices([service('D', ['C', 'X']), service('C', ['B']), service('B', ['A'])]);
    expect(nodes.find((n) => n.name === 'X')?.column).toBe(2);
    expect(nodes.find((n) => n.name === 'A')?.column).toBe(0);
  });

  it('ends on a ring', () => {
    expect(layoutServices([service('A', ['B']), service('B', ['A'])]).nodes).toHaveLength(2);
  });
});
