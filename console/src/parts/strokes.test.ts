import { describe, expect, it } from 'vitest';
import { countsOf, strokes } from './strokes';

describe('the balance', () => {
  it('draws what is missing to the left and what is excess to the right, forbidden first', () => {
    const drawn = strokes(countsOf(['missing', 'pending', 'excess', 'forbidden']));
    expect(drawn.left).toEqual({ strokes: ['missing', 'pending'], figure: null });
    expect(drawn.right).toEqual({ strokes: ['forbidden', 'excess'], figure: null });
    expect(drawn.level).toBe(false);
  });

  it('is level when nothing is missing or excess, whatever is pending', () => {
    expect(strokes(countsOf(['met', 'pending'])).level).toBe(true);
    expect(countsOf(['met', 'pending']).words).toBe('just right, 1 pending');
  });

  it('never claims more than was seen', () => {
    expect(strokes(countsOf(['met', 'unseen'])).seen).toBe(false);
    expect(countsOf(['unseen']).words).toBe('just right as far as seen, 1 unseen');
  });

  it('draws seven strokes on a side, and of more a figure', () => {
    const left = (count: number) => strokes(countsOf(Array<string>(count).fill('missing'))).left;
    expect([left(7).strokes.length, left(7).figure]).toEqual([7, null]);
    expect([left(30).strokes.length, left(30).figure]).toEqual([5, 30]);
  });

  it.each([
    [[], 'just right'],
    [['met', 'done'], 'just right'],
    [['missing', 'missing', 'excess'], '2 missing, 1 excess'],
    [['forbidden', 'pending'], '1 forbidden, 1 pending'],
    [['missing', 'unseen'], '1 missing, 1 unseen'],
    [['met', 'unseen', 'pending'], 'just right as far as seen, 1 unseen, 1 pending'],
  ])('says of %j: %s', (verdicts, words) => {
    expect(countsOf(verdicts).words).toBe(words);
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
