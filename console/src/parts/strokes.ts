import type { FitCountsView } from '../api/schema.gen';

/** How many strokes fit on a side. */
const side = 7;

/** How many are drawn where more are meant: the rest of the room is for the figure. */
const beforeFigure = 5;

/** The strokes of one side; where they do not fit, a figure says how many there are. */
interface Side {
  strokes: string[];
  figure: number | null;
}

/** The strong kind comes first, but the weak one never vanishes. */
function sideOf(strong: string, strongCount: number, weak: string, weakCount: number): Side {
  const total = strongCount + weakCount;
  const room = total <= side ? side : beforeFigure;
  const weakDrawn = Math.min(weakCount, Math.max(room - strongCount, Math.min(weakCount, 1)));
  const strongDrawn = Math.min(strongCount, room - weakDrawn);
  return {
    strokes: [...Array<string>(strongDrawn).fill(strong), ...Array<string>(weakDrawn).fill(weak)],
    figure: total <= side ? null : total,
  };
}

/** What the balance draws. */
export function strokes(counts: FitCountsView) {
  return {
    left: sideOf('missing', counts.missing, 'pending', counts.pending),
    right: sideOf('forbidden', counts.forbidden, 'excess', counts.excess),
    level: counts.missing + counts.excess + counts.forbidden === 0,
    seen: counts.unseen + counts.unread === 0,
    dots: Array<string>(Math.min(counts.unseen, 4)).fill('unseen'),
  };
}
