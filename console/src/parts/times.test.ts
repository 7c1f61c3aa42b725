import { expect, it } from 'vitest';
import { ago, clockIn, dayIn, exactIn } from './times';

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

it.each([
  ['2026-11-25T12:00:05Z', 'Europe/Berlin', '2026-11-25 13:00:05 +01:00'],
  ['2026-07-25T22:30:00Z', 'Europe/Berlin', '2026-07-26 00:30:00 +02:00'],
  ['2026-11-25T12:00:05Z', 'UTC', '2026-11-25 12:00:05 +00:00'],
  ['2026-11-25T00:00:00Z', 'America/St_Johns', '2026-11-24 20:30:00 -03:30'],
])('%s is told by the clock of %s as %s', (value, zone, words) => {
  expect(exactIn(value, zone)).toBe(words);
  expect(`${dayIn(value, zone)} ${clockIn(value, zone)}`).toBe(words.slice(0, 19));
});
