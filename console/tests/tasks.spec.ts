import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test.describe.configure({ mode: 'serial' });

const install = 'millrace-gateway';
let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: 'Verify' }).click();
});

test('a task says what to do and how one sees it; it is done with a proof, which holds no secret', async () => {
  await page.getByRole('button', { name: /^pending alarm-address/ }).click();
  await expect(page.getByRole('dialog', { name: /^alarm-address/ })).toContainText(
    'It waits for the task first-administrator',
  );
  await page.getByRole('button', { name: /^unseen first-administrator/ }).click();
  const side = page.getByRole('dialog', { name: /^first-administrator on/ });
  await expect(side).toContainText('It is done when the gateway refuses the name');
  const done = side.getByRole('button', { name: 'It is done' });
  await expect(done).toBeDisabled();
  await side.getByRole('textbox', { name: 'How it was seen' }).fill('the new password is Kettle9!');
  await done.click();
  await expect(side.getByText(/it looks like it holds/)).toBeVisible();
  await side.getByRole('textbox', { name: 'How it was seen' }).fill('the gateway refused the name on page 5');
  await done.click();
  await expect(side.getByText(/confirmed by a person until/)).toBeVisible();
  await expect(side.getByText('the gateway refused the name on page 5')).toBeVisible();
  await expect(page.getByRole('button', { name: /^unseen alarm-address/ })).toBeVisible();
  expect(await faults(page, '.matrix-panel')).toEqual([]);
});

test('an owner erases the proof, and the confirmation stays', async () => {
  const side = page.getByRole('dialog', { name: /^first-administrator on/ });
  await side.getByRole('button', { name: 'Erase the proof…' }).click();
  await side.getByRole('button', { name: 'Erase it for good' }).click();
  await expect(side.getByText(/Its proof was erased by/)).toBeVisible();
  await expect(side.getByText('the gateway refused the name on page 5')).toBeHidden();
  await expect(side.getByText(/confirmed by a person until/)).toBeVisible();
});
