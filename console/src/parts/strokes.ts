import type { FitCountsView } from '../api/schema.gen';

const side = 7;

/** What the balance draws; at most seven strokes on a side, as the words say how many there are. */
export function strokes(counts: FitCountsView) {
  const take = (count: number, kind: string, room: number) =>
    Array<string>(Math.max(0, Math.min(count, room))).fill(kind);
  const missing = take(counts.missing, 'missing', side);
  const forbidden = take(counts.forbidden, 'forbidden', side);
  return {
    left: [...missing, ...take(counts.pending, 'pending', side - missing.length)],
    right: [...forbidden, ...take(counts.excess, 'excess', side - forbidden.length)],
    level: counts.missing + counts.excess + counts.forbidden === 0,
    seen: counts.unseen + counts.unread === 0,
    dots: take(counts.unseen, 'unseen', 4),
  };
}

/** Counts verdicts, for the heads of columns. */
export function countsOf(verdicts: string[]): FitCountsView {
  const count = (verdict: string) => verdicts.filter((v) => v === verdict).length;
  const counts = {
    met: count('met'),
    missing: count('missing'),
    pending: count('pending'),
    unseen: count('unseen'),
    excess: count('excess'),
    forbidden: count('forbidden'),
    unread: 0,
    accepted: 0,
  };
  const words = [
    counts.missing && `${counts.missing} missing`,
    counts.forbidden && `${counts.forbidden} forbidden`,
    counts.excess && `${counts.excess} excess`,
    !counts.missing &&
      !counts.forbidden &&
      !counts.excess &&
      (counts.unseen ? 'just right as far as seen' : 'just right'),
    counts.unseen && `${counts.unseen} unseen`,
    counts.pending && `${counts.pending} pending`,
  ];
  return { ...counts, words: words.filter(Boolean).join(', ') };
}
