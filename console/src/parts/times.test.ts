import { expect, it } from 'vitest';
import { ago } from './times';

const now = Date.parse('2026-11-25T12:00:00Z');

it.each([
  ['2026-11-25T11:59:30Z', 'just now'],
  ['2026-11-25T11:59:00Z', '1 minute ago'],
  ['2026-11-25T09:30:00Z', '2 hours ago'],
  ['2026-11-22T12:00:00Z', '3 days ago'],
  ['2026-11-25T12:00:05Z', 'just now'], // a clock that runs a little ahead
  ['2026-12-05T12:00:00Z', 'in 10 days'],
  ['2026-11-25T13:00:00Z', 'in 1 hour'],
])('%s was %s', (value, words) => expect(ago(value, now)).toBe(words));
