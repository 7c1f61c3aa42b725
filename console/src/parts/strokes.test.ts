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
});
