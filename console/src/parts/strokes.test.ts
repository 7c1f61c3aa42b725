import { describe, expect, it } from 'vitest';
import type { FitCountsView } from '../api/schema.gen';
import { strokes } from './strokes';

/** How many of these words there are of each verdict. */
const countsOf = (verdicts: string[]): FitCountsView => {
  const count = (verdict: string) => verdicts.filter((v) => v === verdict).length;
  return {
    met: count('met'),
    missing: count('missing'),
    pending: count('pending'),
    unseen: count('unseen'),
    excess: count('excess'),
    forbidden: count('forbidden'),
    unread: 0,
    accepted: 0,
    words: '',
  };
};

describe('the balance', () => {
  it('draws what is missing to the left and what is excess to the right, forbidden first', () => {
    const drawn = strokes(countsOf(['missing', 'pending', 'excess', 'forbidden']));
    expect(drawn.left).toEqual({ strokes: ['missing', 'pending'], figure: null });
    expect(drawn.right).toEqual({ strokes: ['forbidden', 'excess'], figure: null });
    expect(drawn.level).toBe(false);
  });

  it('is level when nothing is missing or excess, whatever is pending', () => {
    expect(strokes(countsOf(['met', 'pending'])).level).toBe(true);
  });

  it('never claims more than was seen', () => {
    expect(strokes(countsOf(['met', 'unseen'])).seen).toBe(false);
  });

  it('draws seven strokes on a side, and of more a figure', () => {
    const left = (count: number) => strokes(countsOf(Array<string>(count).fill('missing'))).left;
    expect([left(7).strokes.length, left(7).figure]).toEqual([7, null]);
    expect([left(30).strokes.length, left(30).figure]).toEqual([5, 30]);
  });

  it('gives missing strokes room before pending ones, and forbidden before excess, but lets neither vanish', () => {
    const many = (word: string, count: number) => Array<string>(count).fill(word);
    const { left, right } = strokes(
      countsOf([...many('missing', 9), ...many('pending', 2), ...many('forbidden', 2), ...many('excess', 9)]),
    );
    expect(left).toEqual({ strokes: [...many('missing', 4), 'pending'], figure: 11 });
    expect(right).toEqual({ strokes: ['forbidden', 'forbidden', ...many('excess', 3)], figure: 11 });
  });
});
