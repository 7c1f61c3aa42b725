import { describe, expect, it } from 'vitest';
import { layered } from './layered';

const room = { width: 100, height: 20, across: 50, down: 10 };
const lines = (...pairs: string[]) => pairs.map((p) => ({ from: p[0] ?? '', to: p[1] ?? '' }));

describe('a picture in layers', () => {
  it('leads every line to the right', () => {
    const drawn = lines('AB', 'BC', 'CD', 'AD', 'XD');
    const { corners } = layered(['A', 'B', 'C', 'D', 'X'], drawn, room);
    for (const { from, to } of drawn) expect(corners.get(to)?.x).toBeGreaterThan(corners.get(from)?.x ?? 999);
  });

  it('lets no two boxes lie on each other', () => {
    const many = Array.from({ length: 12 }, (_, i) => `b${i}`);
    const { corners, height } = layered(
      ['a', ...many],
      many.map((to) => ({ from: 'a', to })),
      room,
    );
    const places = [...corners.values()].map((c) => `${c.x} ${c.y}`);
    expect(new Set(places).size).toBe(13);
    expect(height).toBeGreaterThanOrEqual(12 * room.height);
  });

  it('ends on a ring, and on a box that leads to itself', () => {
    expect(layered(['A', 'B'], lines('AB', 'BA', 'AA'), room).corners.size).toBe(2);
  });

  it('has no height where there is nothing', () => expect(layered([], [], room).height).toBe(0));
});
