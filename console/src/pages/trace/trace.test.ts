import { describe, expect, it } from 'vitest';
import { diffLines } from './diffLines';
import { orderOf } from './order';

describe('diffLines', () => {
  it('keeps what stayed, and marks what came and went', () => {
    const lines = diffLines(['a', 'b', 'c'], ['a', 'x', 'c', 'd']);
    expect(lines.map((l) => l.sign + l.text)).toEqual([' a', '+x', '-b', ' c', '+d']);
  });

  it('gives both lists back, whatever they are', () => {
    const letters = ['a', 'b', 'c'];
    const random = (seed: number) =>
      Array.from({ length: seed % 7 }, (_, i) => letters[(seed * 31 + i * 17) % 3] ?? '');
    for (let seed = 0; seed < 200; seed++) {
      const [before, after] = [random(seed), random(seed * 7 + 3)];
      const lines = diffLines(before, after);
      expect(lines.filter((l) => l.sign !== '+').map((l) => l.text)).toEqual(before);
      expect(lines.filter((l) => l.sign !== '-').map((l) => l.text)).toEqual(after);
    }
  });
});

describe('orderOf', () => {
  it('leaves out what is empty, and takes objects a line each, commas and all', () => {
    const order = orderOf({
      account: ' svc-roundsman ',
      objects: 'CN=Milo Northam,OU=Saltmere\n\n m.northam \n',
      below: ' ',
    });
    expect(order.account).toBe('svc-roundsman');
    expect(order.objects).toEqual(['CN=Milo Northam,OU=Saltmere', 'm.northam']);
    expect([order.below, order.service, order.act]).toEqual([null, null, 'write attributes']);
  });

  it('sends attributes only for acts that name them', () => {
    expect(orderOf({ act: 'unlock', attributes: ['mail'] }).attributes).toEqual([]);
    expect(orderOf({ act: 'read attributes', attributes: ['mail'] }).attributes).toEqual(['mail']);
  });
});
