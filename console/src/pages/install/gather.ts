import type { FitView, JudgementView } from '../../api/schema.gen';

/** Rights that are alike in a cell but for the spot: one line with a figure where they are many. */
export interface Gathered {
  right: string;
  all: JudgementView[];
}

/** How many alike rights still stand each on a line of its own. */
export const fewEnough = 4;

/** The rights of a cell, those of one name together, in the order in which each name comes first. */
export function gather(rights: JudgementView[]): Gathered[] {
  const found = new Map<string, Gathered>();
  for (const right of rights) {
    const known = found.get(right.right);
    if (known) known.all.push(right);
    else found.set(right.right, { right: right.right, all: [right] });
  }
  return [...found.values()];
}

/** Whether a right is as it should be. */
export const isFine = (right: JudgementView) => right.verdict === 'met' || right.verdict === 'done';

/** The figure of many alike rights: `18 of 19 met`, or what they all are. */
export function figure({ all }: Gathered): string {
  const verdicts = new Set(all.map((r) => r.verdict));
  const met = all.filter(isFine).length;
  if (verdicts.size === 1) return `${all[0]?.verdict} ${all.length} times`;
  return met > 0 ? `${met} of ${all.length} met` : [...verdicts].join(', ');
}

/** The name of the column of what no place of the sheet asks for. */
export const elsewhere = 'elsewhere';

/** How many columns there may be for places that the sheet does not name. */
const mostOthers = 4;

/** The columns: the places of the sheet, and those where something else was found; many of those are one column. */
export function columnsOf(fit: FitView): { places: string[]; columnOf: (right: JudgementView) => string } {
  const needed = new Set(fit.accounts.flatMap((a) => a.rights.filter((r) => r.givenBy).map((r) => r.group)));
  const others = fit.places.filter((p, i) => i > 0 && !needed.has(p));
  if (others.length <= mostOthers) return { places: fit.places, columnOf: (r) => r.group };
  const far = new Set(others);
  return {
    places: [...fit.places.filter((p) => !far.has(p)), elsewhere],
    columnOf: (r) => (far.has(r.group) ? elsewhere : r.group),
  };
}
