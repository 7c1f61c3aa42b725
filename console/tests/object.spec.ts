import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test.describe.configure({ mode: 'serial' });

let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
});

test('an object says whether its controllers agree; its protection is set and lifted after a confirmation that lists the changes', async () => {
  await page.getByRole('link', { name: 'Object' }).click();
  await expect(page.getByText('Enter an object.')).toBeVisible();
  await page.getByLabel('A branch of the estate').fill('people');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Not protected' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Controllers' })).toContainText('the simulation');
  await page.getByRole('button', { name: 'Protect…' }).click();
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('heading', { name: 'Protected from' })).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Remove the protection…' }).click();
  await expect(page.getByRole('dialog')).toContainText('no longer forbid Everyone to delete it');
  await page.getByRole('button', { name: 'Lift it' }).click();
  await expect(page.getByRole('heading', { name: 'Not protected' })).toBeVisible();
  await page.getByLabel('A branch of the estate').fill('peeple');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText("Did you mean 'people'?");
});

test('everything that an account can do to an object is told, each with what decides it', async ({ service }) => {
  await page.goto(`${service.address}/object?dn=people`);
  await page.getByRole('textbox', { name: 'Account' }).fill('svc-roundsman');
  await page.keyboard.press('Enter');
  const acts = page.getByRole('table', { name: 'What it can do' });
  await expect(acts.getByRole('row', { name: /cannot/ }).first()).toBeVisible();
  expect(await faults(page)).toEqual([]);
  const all = await acts.getByRole('row').count();
  await page.getByRole('radiogroup', { name: 'Which of it is shown' }).getByText('● can').click();
  await expect(acts.getByRole('row', { name: /cannot/ })).toHaveCount(0);
  expect(await acts.getByRole('row').count()).toBeLessThan(all);
});

test('the directory part of a worklist can be taken as a file', async ({ service }) => {
  await page.goto(`${service.address}/installs/roundsman-dataroom`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: 'As LDIF…' }).first().click();
  await expect(page.getByLabel('roundsman-dataroom.ldif')).toContainText('SIMULATED');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save roundsman-dataroom.ldif' }).click();
  expect((await download).suggestedFilename()).toBe('roundsman-dataroom.ldif');
});
