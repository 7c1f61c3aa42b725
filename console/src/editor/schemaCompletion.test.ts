import { describe, expect, it } from 'vitest';
import estate from '../../../schemas/estate.schema.json';
import sheet from '../../../schemas/sheet.schema.json';
import { offersAt, type Schema, spotOf } from './schemaCompletion';

const labels = (schema: unknown, text: string) =>
  offersAt(schema as Schema, spotOf(text.split('\n'))).map((o) => o.label);

describe('what may stand at the cursor', () => {
  it('is every key of the file at its head', () => {
    expect(labels(sheet, 'sheet: 1\n')).toEqual(expect.arrayContaining(['product', 'places', 'accounts', 'services']));
  });

  it('is what a key of the writer’s own may say', () => {
    expect(labels(sheet, 'accounts:\n  poller:\n    ')).toEqual(
      expect.arrayContaining(['purpose', 'works-as', 'needs']),
    );
    expect(labels(sheet, 'accounts:\n  poller:\n    purpose: Asks\n    ')).toContain('works-as');
  });

  it('is what an item of a list may say', () => {
    expect(labels(sheet, 'accounts:\n  poller:\n    needs:\n      - ')).toEqual(
      expect.arrayContaining(['local-group', 'logon', 'when']),
    );
    expect(labels(sheet, 'accounts:\n  poller:\n    needs:\n      - logon: service\n        ')).toContain('on');
  });

  it('is the closed words of a value', () => {
    expect(labels(sheet, 'accounts:\n  poller:\n    works-as: ')).toEqual(
      expect.arrayContaining(['service', 'pool', 'job']),
    );
    expect(labels(estate, 'directory:\n  reach: l')).toEqual(expect.arrayContaining(['ldaps', 'simulation']));
  });

  it('is nothing where the schema knows nothing', () => {
    expect(labels(sheet, 'nowhere:\n  ')).toEqual([]);
    expect(labels(sheet, 'title: ')).toEqual([]);
  });
});
