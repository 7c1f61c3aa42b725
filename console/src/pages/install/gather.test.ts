import { describe, expect, it } from 'vitest';
import type { JudgementView, MatrixLineView } from '../../api/schema.gen';
import { figure, markOf, unnamed } from './gather';

type Verdict = JudgementView['verdict'];

const line = (...verdicts: [Verdict, number][]): MatrixLineView => ({
  column: 'servers',
  right: 'A',
  count: verdicts.reduce((sum, [, count]) => sum + count, 0),
  verdicts: verdicts.map(([verdict, count]) => ({ verdict, count })),
  rights: [],
});

describe('a line of rights that are alike', () => {
  it.each([
    [line(['met', 2], ['missing', 1]), '2 of 3 met'],
    [line(['met', 1], ['done', 1], ['unseen', 1]), '2 of 3 met'],
    [line(['excess', 2]), 'excess 2 times'],
    [line(['excess', 1], ['forbidden', 1]), 'excess, forbidden'],
  ])('has a figure that says how many are met', (of, words) => expect(figure(of)).toBe(words));

  it('is marked with what is off, wherever that comes', () => {
    expect(markOf(line(['met', 8], ['missing', 1]))).toBe('missing');
    expect(markOf(line(['done', 2], ['met', 8]))).toBe('met');
  });

  it('says how many are off beside those that it names', () => {
    const named = { ...line(['met', 8], ['missing', 9]), rights: [{}, {}, {}, {}] as JudgementView[] };
    expect(unnamed(named)).toBe(5);
  });
});
