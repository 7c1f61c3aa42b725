import { describe, expect, it } from 'vitest';
import type { HostServiceView } from '../../api/schema.gen';
import { joinServices } from './joinServices';

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
  asked: null,
  identity: '',
  identityRights: [],
});

describe('joinServices', () => {
  it('draws who waits for whom, and leaves out those that stand alone', () => {
    const { nodes, edges } = joinServices([
      service('C', ['B', 'A']),
      service('B', ['a']),
      service('A', []),
      service('Alone', []),
    ]);
    expect(nodes.map((n) => n.name).sort()).toEqual(['A', 'B', 'C']);
    expect(edges).toHaveLength(3);
  });

  it('shows what is waited for and not there', () => {
    const gone = joinServices([service('A', ['+Group', 'Gone'])]).nodes.filter((n) => !n.service);
    expect(gone.map((n) => n.name).sort()).toEqual(['+Group', 'Gone']);
  });

  it('ends on a ring', () => {
    expect(joinServices([service('A', ['B']), service('B', ['A'])]).nodes).toHaveLength(2);
  });
});
