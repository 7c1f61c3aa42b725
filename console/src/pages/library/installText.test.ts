import { expect, it } from 'vitest';
import { parse } from 'yaml';
import { installText } from './installText';

const ask = (field: string) => ({ field, asks: '', known: [], atLeast: 1, atMost: 9, default: null });

it('an install says each answer where its field is', () => {
  const asked = {
    sheet: 'x@4.2',
    product: 'x',
    release: '4.2',
    estate: 'e',
    name: 'x-e',
    asked: [ask('places.servers'), ask('places.store'), ask('answers.nightly'), ask('sign-in.directory')],
  };
  const text = installText(asked, 'mine', {
    'places.servers': ['h1', 'h2'],
    'places.store': ['s1/D'],
    'answers.nightly': ['yes'],
  });
  expect(parse(text)).toEqual({
    install: 1,
    name: 'mine',
    product: 'x',
    release: '4.2',
    estate: 'e',
    stage: 'planned',
    places: { servers: ['h1', 'h2'], store: 's1/D' },
    answers: { nightly: 'yes' },
  });
  expect(text).toContain('release: "4.2"');
});

it('an account has a name of its own, or is one that is there', () => {
  const asked = { sheet: 'x@1', product: 'x', release: '1', estate: 'e', name: 'x-e', asked: [] };
  const own = {
    poller: { name: ' svc-old ', existing: true },
    lookup: { name: 'svc-mine', existing: false },
    setup: { name: ' ', existing: false },
  };
  const { accounts } = parse(installText(asked, 'mine', {}, own)) as { accounts: unknown };
  expect(accounts).toEqual({ poller: { existing: 'svc-old' }, lookup: { name: 'svc-mine' } });
  expect(installText(asked, 'mine', {})).not.toContain('accounts');
});
