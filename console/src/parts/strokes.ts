import type { LeaningView } from '../api/schema.gen';

const side = 7;

/** What the balance draws; at most seven strokes on a side, as the words say how many there are. */
export function strokes(leaning: LeaningView) {
  const take = (count: number, kind: string, room: number) =>
    Array<string>(Math.max(0, Math.min(count, room))).fill(kind);
  const missing = take(leaning.missing, 'missing', side);
  const barred = take(leaning.barred, 'barred', side);
  return {
    left: [...missing, ...take(leaning.later, 'later', side - missing.length)],
    right: [...barred, ...take(leaning.spare, 'spare', side - barred.length)],
    level: leaning.missing + leaning.spare + leaning.barred === 0,
    seen: leaning.unseen + leaning.unread === 0,
    dots: take(leaning.unseen, 'unseen', 4),
  };
}

/** Adds verdicts up to a leaning, for the heads of columns. */
export function leaningOf(verdicts: string[]): LeaningView {
  const count = (verdict: string) => verdicts.filter((v) => v === verdict).length;
  const leaning = {
    met: count('met'),
    missing: count('unmet'),
    later: count('later'),
    unseen: count('unseen'),
    spare: count('spare'),
    barred: count('barred'),
    unread: 0,
    accepted: 0,
  };
  const words = [
    leaning.missing && `${leaning.missing} missing`,
    leaning.barred && `${leaning.barred} barred`,
    leaning.spare && `${leaning.spare} too much`,
    !leaning.missing &&
      !leaning.barred &&
      !leaning.spare &&
      (leaning.unseen ? 'just right as far as seen' : 'just right'),
    leaning.unseen && `${leaning.unseen} unseen`,
    leaning.later && `${leaning.later} later`,
  ];
  return { ...leaning, words: words.filter(Boolean).join(', ') };
}
