import { describe, expect, it } from 'vitest';
import type { FitView, JudgementView } from '../../api/schema.gen';
import { columnsOf, elsewhere, figure, gather } from './gather';

const right = (name: string, verdict: string, group = 'servers', givenBy: string | null = 'us') =>
  ({ id: `${name} ${verdict} ${group}`, right: name, verdict, group, givenBy }) as unknown as JudgementView;

describe('rights that are alike', () => {
  it('are one, in the order in which their names come first', () => {
    const cell = [right('A', 'met'), right('B', 'met'), right('A', 'missing')];
    expect(gather(cell).map((g) => [g.right, g.all.length])).toEqual([
      ['A', 2],
      ['B', 1],
    ]);
  });

  it('have a figure that says how many are met', () => {
    const of = (...verdicts: string[]) => figure({ right: 'A', all: verdicts.map((v) => right('A', v)) });
    expect(of('met', 'met', 'missing')).toBe('2 of 3 met');
    expect(of('met', 'done', 'unseen')).toBe('2 of 3 met');
    expect(of('excess', 'excess')).toBe('excess 2 times');
    expect(of('excess', 'forbidden')).toBe('excess, forbidden');
  });
});

describe('the columns', () => {
  const fit = (places: string[]) =>
    ({
      places: ['DAIRY', 'servers', ...places],
      accounts: [{ rights: [right('A', 'met'), ...places.map((p) => right('X', 'excess', p, null))] }],
    }) as unknown as FitView;

  it('are those of few places each, and one for many that the sheet does not name', () => {
    expect(columnsOf(fit(['h1', 'h2'])).places).toEqual(['DAIRY', 'servers', 'h1', 'h2']);
    const many = columnsOf(fit(['h1', 'h2', 'h3', 'h4', 'h5']));
    expect(many.places).toEqual(['DAIRY', 'servers', elsewhere]);
    expect(many.columnOf(right('X', 'excess', 'h3', null))).toBe(elsewhere);
    expect(many.columnOf(right('A', 'met'))).toBe('servers');
  });
});
