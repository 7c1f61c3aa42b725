import type { KeptFitView } from '../../api/schema.gen';

/** A point of the plot. */
export interface PlotPoint {
  /** Milliseconds since 1970. */
  at: number;
  /** What was missing, below the line. */
  missing: number;
  /** What was excess or forbidden. */
  excess: number;
  number: number;
  words: string;
}

/** Two points for each kept fit, where it began and where it was seen last, the earliest first: between two fits nothing is known, and the step is drawn where the next was seen. */
export function plotPoints(fits: KeptFitView[]): PlotPoint[] {
  return [...fits]
    .sort((a, b) => a.number - b.number)
    .flatMap((f) =>
      [...new Set([Date.parse(f.from), Date.parse(f.until)])].map((at) => ({
        at,
        missing: f.counts.missing === 0 ? 0 : -f.counts.missing,
        excess: f.counts.excess + f.counts.forbidden,
        number: f.number,
        words: f.counts.words,
      })),
    );
}
