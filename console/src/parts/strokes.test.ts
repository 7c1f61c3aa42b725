import { describe, expect, it } from 'vitest';
import { leaningOf, strokes } from './strokes';

describe('the balance', () => {
  it('leans left for what is missing and right for what is too much, barred first', () => {
    const drawn = strokes(leaningOf(['unmet', 'later', 'spare', 'barred']));
    expect(drawn.left).toEqual(['missing', 'later']);
    expect(drawn.right).toEqual(['barred', 'spare']);
    expect(drawn.level).toBe(false);
  });

  it('is level when nothing is missing or too much, whatever comes later', () => {
    expect(strokes(leaningOf(['met', 'later'])).level).toBe(true);
    expect(leaningOf(['met', 'later']).words).toBe('just right, 1 later');
  });

  it('never claims more than was seen', () => {
    expect(strokes(leaningOf(['met', 'unseen'])).seen).toBe(false);
    expect(leaningOf(['unseen']).words).toBe('just right as far as seen, 1 unseen');
  });

  it('draws at most seven strokes on a side', () => {
    expect(strokes(leaningOf(Array<string>(30).fill('unmet'))).left).toHaveLength(7);
  });

  it.each([
    [[], 'just right'],
    [['met', 'done'], 'just right'],
    [['unmet', 'unmet', 'spare'], '2 missing, 1 too much'],
    [['barred', 'later'], '1 barred, 1 later'],
    [['unmet', 'unseen'], '1 missing, 1 unseen'],
    [['met', 'unseen', 'later'], 'just right as far as seen, 1 unseen, 1 later'],
  ])('says of %j: %s', (verdicts, words) => {
    expect(leaningOf(verdicts).words).toBe(words);
  });

  it('gives missing strokes room before later ones, and barred before spare', () => {
    const drawn = strokes(
      leaningOf([...Array<string>(6).fill('unmet'), 'later', 'later', ...Array<string>(7).fill('barred'), 'spare']),
    );
    expect(drawn.left.filter((s) => s === 'later')).toHaveLength(1);
    expect(drawn.right).not.toContain('spare');
  });
});
