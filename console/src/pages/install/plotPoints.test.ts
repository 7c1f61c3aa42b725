import { expect, test } from 'vitest';
import type { KeptFitView } from '../../api/schema.gen';
import { plotPoints } from './plotPoints';

const fit = (
  number: number,
  from: string,
  until: string,
  missing: number,
  excess: number,
  forbidden: number,
): KeptFitView => ({
  number,
  from,
  until,
  seen: 1,
  counts: { met: 0, missing, pending: 0, unseen: 0, excess, forbidden, unread: 0, words: `fit ${number}`, accepted: 0 },
});

test('a fit that was seen for a while has two points, what is missing hangs below the line', () => {
  const points = plotPoints([
    fit(2, '2026-11-26T10:00:00Z', '2026-11-26T12:00:00Z', 0, 1, 2),
    fit(1, '2026-11-26T08:00:00Z', '2026-11-26T08:00:00Z', 4, 0, 0),
  ]);
  expect(points.map((p) => [new Date(p.at).getUTCHours(), p.missing, p.excess, p.words])).toEqual([
    [8, -4, 0, 'fit 1'],
    [10, 0, 3, 'fit 2'],
    [12, 0, 3, 'fit 2'],
  ]);
});

test('nothing kept, nothing drawn', () => expect(plotPoints([])).toEqual([]));
