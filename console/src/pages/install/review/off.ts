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

/** Everything of a fit that is off: what may be accepted. */
export const offOf = (fit: FitView): Off[] => [
  ...fit.accounts.flatMap((a) =>
    a.rights
      .filter((r) => r.verdict === 'missing' || r.verdict === 'excess' || r.verdict === 'forbidden')
      .map((r) => ({
        target: r.id,
        account: a.name,
        words: r.place && !r.right.includes(r.place) ? `${r.right} on ${r.place}` : r.right,
        verdict: r.verdict,
        reason: r.reason,
        accepted: r.accepted ?? null,
      })),
  ),
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
