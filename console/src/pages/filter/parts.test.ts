import { describe, expect, it } from 'vitest';
import { escapeValue, negated, partsOf, withPart } from './parts';

describe('building a filter', () => {
  it.each([
    ['a*b', 'a\\2ab'],
    ['(x)', '\\28x\\29'],
    ['back\\slash', 'back\\5cslash'],
    [' ends ', '\\20ends\\20'],
    ['in between', 'in between'],
    ['nul\0', 'nul\\00'],
    ['Größe 😀', 'Größe 😀'],
  ])('escapes %j', (value, escaped) => expect(escapeValue(value)).toBe(escaped));

  it.each([
    ['', '(mail=*)', '(mail=*)'],
    ['(objectClass=*)', '(mail=*)', '(mail=*)'],
    ['(cn=a)', '(mail=*)', '(&(cn=a)(mail=*))'],
    ['(&(cn=a)(sn=b))', '(mail=*)', '(&(cn=a)(sn=b)(mail=*))'],
    ['(|(cn=a)(sn=b))', '(mail=*)', '(&(|(cn=a)(sn=b))(mail=*))'],
  ])('adds to %j', (filter, part, whole) => expect(withPart(filter, part)).toBe(whole));

  it('turns a filter around and back', () => {
    expect(negated('(cn=a)')).toBe('(!(cn=a))');
    expect(negated('(!(cn=a))')).toBe('(cn=a)');
  });

  it('has parts for either family', () => {
    expect(partsOf('ad-like').some((p) => p.text('x').includes('1.2.840.113556.1.4.1941'))).toBe(true);
    expect(partsOf('inetorgperson').some((p) => p.text('x').includes('1.2.840'))).toBe(false);
  });
});
