import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Accessibility faults that axe finds, as short lines. */
export async function faults(page: Page): Promise<string[]> {
  await page.evaluate(axeSource);
  return page.evaluate(async () => {
    // @ts-expect-error axe was put into the page just before
    const { violations } = await window.axe.run(document, { resultTypes: ['violations'] });
    return violations.flatMap((v: { id: string; nodes: { html: string }[] }) =>
      v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`),
    );
  });
}
