import type { AcceptedView, FitView, JudgementView } from '../../../api/schema.gen';

/** Something that the fit says is off. */
export interface Off {
  target: string;
  account: string;
  words: string;
  verdict: JudgementView['verdict'];
  reason: string;
  accepted: AcceptedView | null;
}

/** Whether a right is off, so that it may be accepted. */
export const isOff = ({ verdict }: JudgementView) =>
  verdict === 'missing' || verdict === 'excess' || verdict === 'forbidden';

/** A right that is off. */
export const offRight = (r: JudgementView): Off => ({
  target: r.id,
  account: r.account,
  words: r.place && !r.right.includes(r.place) ? `${r.right} on ${r.place}` : r.right,
  verdict: r.verdict,
  reason: r.reason,
  accepted: r.accepted ?? null,
});

/** Everything of a fit that is off: what may be accepted. */
export const offOf = (fit: FitView): Off[] => [
  ...fit.accounts.flatMap((a) => a.rights.filter(isOff).map(offRight)),
  ...fit.findings
    .filter((f) => f.isExcess)
    .map((f) => ({
      target: f.id,
      account: f.place,
      words: f.text,
      verdict: 'excess' as const,
      reason: '',
      accepted: f.accepted ?? null,
    })),
];
