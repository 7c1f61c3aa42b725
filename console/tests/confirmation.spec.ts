import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test.describe.configure({ mode: 'serial' });

const install = 'wheyline-lines';
let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: 'Verify' }).click();
});

test('what no survey reads is unseen until a person says what they saw, with a name, a time and an end', async () => {
  await page.getByRole('button', { name: /^unseen Tanker clerk/ }).click();
  const side = page.getByRole('dialog', { name: /^Tanker clerk on/ });
  await expect(side).toContainText('nobody has confirmed it');
  await expect(side).toContainText('read the settings of its own scale');
  await side.getByRole('textbox', { name: 'Who looked' }).fill('Nell Hathersage');
  await side.getByRole('button', { name: 'It is there' }).click();
  await expect(side.getByText(/confirmed by a person until .*: Nell Hathersage/)).toBeVisible();
  await expect(side.getByText(/valid until/)).toBeVisible();
  expect(await faults(page, '.matrix-panel')).toEqual([]);
});

test('a later word counts instead, and the step comes back', async () => {
  const side = page.getByRole('dialog', { name: /^Tanker clerk on/ });
  await side.getByRole('button', { name: 'It is not there' }).click();
  await expect(side.getByText(/not there; confirmed by a person/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Worklist' }).click();
  const row = page.getByRole('row', { name: /svc-whey-sender to 'Tanker clerk' inside Wheyline/ });
  await expect(row).toContainText('a person makes it inside the product');
  await expect(row).toContainText('blocked');
});

test('a reader sees the word and cannot give one', async ({ service }) => {
  await page.route('**/api/me', (route) => route.fulfill({ json: { name: 'a reader', role: 'reader' } }));
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: /^missing Tanker clerk/ }).click();
  await expect(page.getByRole('button', { name: 'It is there' })).toBeDisabled();
});
