import { describe, expect, it } from 'vitest';
import { countsOf, strokes } from './strokes';

describe('the balance', () => {
  it('draws what is missing to the left and what is excess to the right, forbidden first', () => {
    const drawn = strokes(countsOf(['missing', 'pending', 'excess', 'forbidden']));
    expect(drawn.left).toEqual(['missing', 'pending']);
    expect(drawn.right).toEqual(['forbidden', 'excess']);
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

  it('draws at most seven strokes on a side', () => {
    expect(strokes(countsOf(Array<string>(30).fill('missing'))).left).toHaveLength(7);
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

  it('gives missing strokes room before pending ones, and forbidden before excess', () => {
    const drawn = strokes(
      countsOf([
        ...Array<string>(6).fill('missing'),
        'pending',
        'pending',
        ...Array<string>(7).fill('forbidden'),
        'excess',
      ]),
    );
    expect(drawn.left.filter((s) => s === 'pending')).toHaveLength(1);
    expect(drawn.right).not.toContain('excess');
  });
});
