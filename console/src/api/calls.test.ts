import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const { paths } = JSON.parse(readFileSync('../docs/api/openapi.json', 'utf8')) as {
  paths: Record<string, Record<string, unknown>>;
};
const source = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.tsx?$/.test(file) && !/\.(test|gen)\.ts$/.test(file))
  .map((file) => readFileSync(join('src', file), 'utf8'))
  .join('\n');
const page = readFileSync('../docs/the-console.md', 'utf8');

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** A path as a pattern: each of its parameters is that parameter, or put in by a template. */
const pattern = (path: string) =>
  path
    .split(/(\{\w+\})/)
    .map((part) => (part.startsWith('{') ? `(?:${escaped(part)}|\\$\\{[^}]*(?:\\{[^}]*\\})?[^}]*\\})` : escaped(part)))
    .join('');

/** Whether the console makes a call: by its typed client, by a link, or with the last word put in. */
function isMade(method: string, path: string): boolean {
  if (new RegExp(`\\b${method}\\(\\s*['\`]${pattern(path)}['\`]`).test(source)) return true;
  if (method === 'POST' && source.includes(`fetch('${path}'`)) return true; // what comes back is a file
  const [, base = '', last] = /^(.*)\/([\w-]+)$/.exec(path) ?? [];
  if (last && new RegExp(`\\b${method}\\(\\s*\`${pattern(base)}/\\$\\{`).test(source) && source.includes(`'${last}'`))
    return true;
  if (method === 'GET' && last && source.includes(`\`\${path}/${last}`)) return true; // a link below the page's own path
  return method === 'GET' && new RegExp(`(?<!(?:POST|PUT|DELETE)\\(\\s*)['"\`]${pattern(path)}[?'"\`$]`).test(source);
}

const calls = Object.entries(paths).flatMap(([path, methods]) =>
  Object.keys(methods).map((method) => ({ method: method.toUpperCase(), path })),
);
const excused = [...page.matchAll(/^\| `([A-Z]+) (\/api\/\S+)` \|/gm)].map((m) => `${m[1]} ${m[2]}`);

describe('the calls of the API', () => {
  it('are made by the console, but for those that its page excuses', () => {
    const missing = calls.filter((c) => !isMade(c.method, c.path)).map((c) => `${c.method} ${c.path}`);
    expect(missing.sort()).toEqual([...excused].sort());
  });

  it('are many, and few are excused', () => {
    expect(calls.length).toBeGreaterThan(120);
    expect(excused.length).toBeLessThanOrEqual(10);
  });
});
