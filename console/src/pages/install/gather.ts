import type { JudgementView, MatrixLineView } from '../../api/schema.gen';

/** Whether a right is as it should be. */
export const isFine = (verdict: JudgementView['verdict']) => verdict === 'met' || verdict === 'done';

/** What a line of alike rights is marked with: the first verdict that is off, or that all is met. */
export const markOf = ({ verdicts }: MatrixLineView) => verdicts.find((v) => !isFine(v.verdict))?.verdict ?? 'met';

/** The figure of many alike rights: `18 of 19 met`, or what they all are. */
export function figure({ verdicts, count }: MatrixLineView): string {
  const met = verdicts.filter((v) => isFine(v.verdict)).reduce((sum, v) => sum + v.count, 0);
  if (verdicts.length === 1) return `${verdicts[0]?.verdict} ${count} times`;
  return met > 0 ? `${met} of ${count} met` : verdicts.map((v) => v.verdict).join(', ');
}

/** How many are off and not named. */
export const unnamed = ({ verdicts, rights }: MatrixLineView) =>
  verdicts.filter((v) => !isFine(v.verdict)).reduce((sum, v) => sum + v.count, 0) - rights.length;
