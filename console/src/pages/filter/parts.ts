/** A value as it stands in a filter [RFC 4515 3]: what has a meaning there as a backslash and two hexadecimal digits, spaces at the ends too. */
export function escapeValue(value: string): string {
  return value.replace(/[\\*()\0]|^ | $/g, (c) => '\\' + c.charCodeAt(0).toString(16).padStart(2, '0'));
}

/** A part that can be added to a filter. */
export interface Part {
  label: string;
  /** What is asked for, or null when nothing is. */
  asks: string | null;
  text: (value: string) => string;
}

const adLike: Part[] = [
  { label: 'are people, and no computers', asks: null, text: () => '(&(objectCategory=person)(objectClass=user))' },
  { label: 'are not disabled', asks: null, text: () => '(!(userAccountControl:1.2.840.113556.1.4.803:=2))' },
  {
    label: 'are in a group, also through others',
    asks: 'The group’s distinguished name',
    text: (v) => `(memberOf:1.2.840.113556.1.4.1941:=${escapeValue(v)})`,
  },
  { label: 'are groups', asks: null, text: () => '(objectClass=group)' },
  { label: 'are not what a domain comes with', asks: null, text: () => '(!(isCriticalSystemObject=TRUE))' },
];

const inetOrgPerson: Part[] = [
  { label: 'are people', asks: null, text: () => '(objectClass=inetOrgPerson)' },
  {
    label: 'are in a group',
    asks: 'The group’s distinguished name',
    text: (v) => `(memberOf=${escapeValue(v)})`,
  },
  { label: 'are groups of names', asks: null, text: () => '(objectClass=groupOfNames)' },
];

const both: Part[] = [
  { label: 'have a name that starts with', asks: 'The beginning', text: (v) => `(cn=${escapeValue(v)}*)` },
  { label: 'have a mail address', asks: null, text: () => '(mail=*)' },
];

/** The parts that make sense in a directory of a family. */
export const partsOf = (family: string): Part[] => [...(family === 'ad-like' ? adLike : inetOrgPerson), ...both];

/** A filter that asks for one more thing: within the outermost and, where there is one. */
export function withPart(filter: string, part: string): string {
  const text = filter.trim();
  if (text === '' || text === '(objectClass=*)') return part;
  return text.startsWith('(&') && text.endsWith(')') ? `${text.slice(0, -1)}${part})` : `(&${text}${part})`;
}

/** A filter turned into its opposite. */
export function negated(filter: string): string {
  const text = filter.trim();
  const inner = /^\(!(\(.*\))\)$/s.exec(text)?.[1];
  return inner ?? `(!${text})`;
}
