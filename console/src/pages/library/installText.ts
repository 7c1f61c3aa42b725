import { stringify } from 'yaml';
import type { InstallAskedView } from '../../api/schema.gen';
import type { Said } from './Question';

/** How an account is called, where the naming rules do not decide it. */
export interface Named {
  name: string;
  /** Whether it is there already. */
  existing: boolean;
}

/** Accounts with a name of their own, by their keys in the sheet. */
export type OwnNames = Record<string, Named>;

/** The text of an install from the answers to what its sheet leaves open. */
export function installText(asked: InstallAskedView, name: string, said: Said, own: OwnNames = {}): string {
  const sections: Record<string, Record<string, string | string[]>> = {};
  for (const { field } of asked.asked) {
    const [section = '', ...key] = field.split('.');
    const values = said[field] ?? [];
    if (values.length === 0) continue;
    (sections[section] ??= {})[key.join('.')] = values.length === 1 ? (values[0] ?? '') : values;
  }
  const { product, release, estate } = asked;
  const accounts = Object.fromEntries(
    Object.entries(own)
      .filter(([, { name }]) => name.trim() !== '')
      .map(([key, { name, existing }]) => [key, existing ? { existing: name.trim() } : { name: name.trim() }]),
  );
  return stringify({
    install: 1,
    name,
    product,
    release,
    estate,
    stage: 'planned',
    ...sections,
    ...(Object.keys(accounts).length > 0 ? { accounts } : {}),
  });
}
