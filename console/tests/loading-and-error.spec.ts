import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { everyPage } from './everyPage';
import { enter, expect, test } from './service';

/** Pages that ask the service nothing before somebody does something there. */
const askNothing = ['/new-sheet', '/add/estate'];

/** Answers every call of the API otherwise, but those that the frame asks who is there by. */
async function answer(page: Page, otherwise: Parameters<Page['route']>[1]) {
  await page.route(/\/api\/(?!me$)/, otherwise);
}

for (const scheme of ['light', 'dark'] as const) {
  test(`no page has accessibility faults while it loads, ${scheme}`, async ({ page, service }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    await enter(page, service);
    await answer(page, () => new Promise(() => undefined)); // never
    for (const path of everyPage) {
      await page.goto(service.address + path);
      await expect(page.locator('#main')).not.toBeEmpty();
      await expect(page.getByRole('heading', { level: 1 }).or(page.getByLabel('Loading')).first(), path).toBeVisible();
      expect(await faults(page), path).toEqual([]);
    }
  });

  test(`no page has accessibility faults when the service fails, and each says so, ${scheme}`, async ({
    page,
    service,
  }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    await enter(page, service);
    await answer(page, (route) =>
      route.fulfill({
        status: 500,
        contentType: 'application/problem+json',
        body: JSON.stringify({ type: 'urn:justright:fault', title: 'Something went wrong here.', status: 500 }),
      }),
    );
    for (const path of everyPage) {
      await page.goto(service.address + path);
      await expect(page.locator('#main')).not.toBeEmpty();
      await page.waitForLoadState('networkidle');
      expect(await faults(page), path).toEqual([]);
      if (!askNothing.includes(path))
        await expect(page.getByRole('alert').first(), path).toContainText('Something went wrong here.');
    }
  });
}
