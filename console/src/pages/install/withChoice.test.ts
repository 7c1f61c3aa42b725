import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { withChoice } from './withChoice';

const choice = { take: 'everything', why: 'the guide: says "so"', by: 'm.fenwick' };
const install = 'install: 1 # the first\nname: x\n\n# where\nplaces:\n  store: fm-sql01\n';

describe('a choice in the text of an install', () => {
  it('is added, and the rest stays as it was written', () => {
    const text = withChoice(install, 'archivist.nightly-jobs', choice);
    expect(parse(text)).toMatchObject({ name: 'x', choices: { 'archivist.nightly-jobs': choice } });
    expect(text).toContain('install: 1 # the first');
    expect(text).toContain('# where\nplaces:\n  store: fm-sql01');
  });

  it('takes the place of the one that is there', () => {
    const before = `${install}choices:\n  a.b: { take: one, why: w, by: b }\n  a.c: { take: two, why: w, by: b }\n`;
    expect(parse(withChoice(before, 'a.b', choice))).toMatchObject({
      choices: { 'a.b': choice, 'a.c': { take: 'two' } },
    });
  });
});
