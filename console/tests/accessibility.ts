import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Accessibility faults that axe finds in the page, or in the one part of it that a dialog leaves reachable, as short lines. */
export async function faults(page: Page, part = ':root'): Promise<string[]> {
  await page.evaluate(axeSource);
  return page.evaluate(async (within) => {
    // @ts-expect-error axe was put into the page just before
    const { violations } = await window.axe.run(within, { resultTypes: ['violations'] });
    return violations.flatMap((v: { id: string; nodes: { html: string }[] }) =>
      v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`),
    );
  }, part);
}
