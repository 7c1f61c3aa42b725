/** A JSON Schema, as far as our files' schemas use it. */
export interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  description?: string;
  properties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  anyOf?: Schema[];
  enum?: unknown[];
}

/** Something that may stand where the cursor is. */
export interface Offer {
  label: string;
  detail?: string;
  /** What is written: a key with its colon, or a value. */
  apply: string;
}

/** Where the cursor is: the keys that lead there, and whether a key or the value of one is being typed. */
export interface Spot {
  path: string[];
  /** The key of which the value is being typed; null while a key is. */
  valueOf: string | null;
  /** What is typed of the word so far. */
  typed: string;
}

const keyLine = /^(\s*)(- )?([\w.-]+):(.*)$/;

/** The spot at the end of the last line, in block style: what our files are written in, but for short lists and mappings. */
export function spotOf(lines: string[]): Spot {
  const last = lines.at(-1) ?? '';
  const value = /^(\s*)(?:- )?([\w.-]+):\s+(\S*)$/.exec(last);
  const word = /^(\s*)(- )?([\w.-]*)$/.exec(last);
  let indent = value ? (value[1] ?? '').length : (word?.[1]?.length ?? 0);
  if (word?.[2]) indent += 2;
  const path: string[] = [];
  for (let i = lines.length - 2; i >= 0 && indent > 0; i--) {
    const line = keyLine.exec(lines[i] ?? '');
    if (!line) continue;
    const [, spaces = '', dash, key = '', rest = ''] = line;
    const at = spaces.length + (dash ? 2 : 0);
    if (at < indent && rest.trim() === '') {
      path.unshift(key);
      indent = spaces.length;
    }
  }
  return { path, valueOf: value?.[2] ?? null, typed: (value ? value[3] : word?.[3]) ?? '' };
}

/** What may stand at a spot, by the schema. */
export function offersAt(root: Schema, spot: Spot): Offer[] {
  let here = [root];
  for (const key of spot.path) here = here.flatMap((s) => below(root, s, key));
  if (spot.valueOf !== null) {
    const key = spot.valueOf;
    return here
      .flatMap((s) => below(root, s, key))
      .flatMap((s) => s.enum ?? [])
      .filter((v) => typeof v === 'string')
      .map((v) => ({ label: v, apply: v }));
  }
  return here.flatMap((s) =>
    Object.entries(s.properties ?? {}).map(([key, value]) => {
      const detail = resolved(root, value).description ?? value.description;
      return { label: key, apply: `${key}: `, ...(detail ? { detail } : {}) };
    }),
  );
}

/** What stands below a key; the items of lists and the alternatives of a shape count as the shape itself. */
function below(root: Schema, schema: Schema, key: string): Schema[] {
  const next =
    schema.properties?.[key] ?? (typeof schema.additionalProperties === 'object' ? schema.additionalProperties : null);
  return next ? unwrapped(root, next) : [];
}

function unwrapped(root: Schema, schema: Schema): Schema[] {
  const one = resolved(root, schema);
  if (one.items) return unwrapped(root, one.items);
  if (one.anyOf) return one.anyOf.flatMap((s) => unwrapped(root, s));
  return [one];
}

function resolved(root: Schema, schema: Schema): Schema {
  return (schema.$ref && root.$defs?.[schema.$ref.replace('#/$defs/', '')]) || schema;
}
