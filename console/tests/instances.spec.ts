import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test.describe.configure({ mode: 'serial' });

let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
});

test('an instance that was not surveyed says how to survey it', async ({ service }) => {
  await page.goto(`${service.address}/estates/fennmoor/instances/fm-sql01`);
  await expect(page.getByRole('alert')).toContainText('justright survey fennmoor');
});

test('from a right one comes to its instance: who can do what there, by which path, and what needs it', async ({
  service,
}) => {
  await page.goto(`${service.address}/installs/quernstone-sql01`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page
    .getByRole('button', { name: /sysadmin on fm-sql01/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'fm-sql01', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'fm-sql01' })).toBeVisible();
  const table = page.getByRole('table', { name: 'rights at the instance' });
  await expect(table.getByRole('row', { name: /svc-quern/ })).toContainText('sysadmin can do anything on its instance');
  await page.keyboard.press('f');
  await page.keyboard.type('FM-TEMP01');
  await expect(table.getByRole('row')).toHaveCount(2);
  await expect(table.getByRole('row', { name: /a computer account/ })).toContainText('db_datareader');
  await page.getByRole('textbox', { name: 'Search rights at the instance' }).fill('');
  expect(await faults(page)).toEqual([]);
});

test('who can come to more than was granted is told with the steps', async ({ service }) => {
  await page.goto(`${service.address}/estates/fennmoor/instances/fm-sql03`);
  const ways = page.getByRole('table', { name: 'ways to more than was granted' });
  await expect(ways.getByRole('row', { name: /svc-curd-fitter/ })).toContainText('sysadmin');
  await expect(ways.getByRole('listitem')).toHaveText(['securityadmin can grant itself CONTROL SERVER']);
  expect(await faults(page)).toEqual([]);
});

test('a choice shows what each alternative lets the account do', async ({ service }) => {
  await page.goto(`${service.address}/installs/quernstone-sql01`);
  const table = page.getByRole('table', { name: 'alternatives of watcher.reading' });
  await expect(table.getByRole('rowheader').first()).toContainText('taken');
  const big = table.getByRole('row', { name: /^everything/ });
  await expect(big).toContainText('sysadmin can do anything on its instance');
  await expect(table.getByRole('row', { name: /^small-set/ })).toContainText('VIEW SERVER STATE on fm-sql01');
  await expect(big.getByRole('button', { name: 'Take everything …' })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.goto(`${service.address}/estates/fennmoor/instances/fm-sql01`);
});

test('the widest rights come first when one sorts by reach', async () => {
  const table = page.getByRole('table', { name: 'rights at the instance' });
  await page.getByRole('button', { name: 'how far it reaches', exact: true }).click();
  await page.getByRole('button', { name: 'how far it reaches', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: 'how far it reaches' })).toHaveAttribute('aria-sort', /./);
  const rows = await table.getByRole('row').allInnerTexts();
  expect([rows[1], rows.at(-1)].some((row) => row?.includes('sysadmin'))).toBe(true);
});
