import { stringify } from 'yaml';
import type { InstallAskedView } from '../../api/schema.gen';
import type { Said } from './Question';

/** The text of an install from the answers to what its sheet leaves open. */
export function installText(asked: InstallAskedView, name: string, said: Said): string {
  const sections: Record<string, Record<string, string | string[]>> = {};
  for (const { field } of asked.asked) {
    const [section = '', ...key] = field.split('.');
    const values = said[field] ?? [];
    if (values.length === 0) continue;
    (sections[section] ??= {})[key.join('.')] = values.length === 1 ? (values[0] ?? '') : values;
  }
  const { product, release, estate } = asked;
  return stringify({ install: 1, name, product, release, estate, stage: 'planned', ...sections });
}
