import { readFileSync } from 'node:fs';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

const later = readFileSync('../demo-data/later/thermograph-5.0.yaml', 'utf8');

test.describe.configure({ mode: 'serial' });

test('a table becomes a sheet, a sheet an install, with its plan before anything is read', async ({
  page,
  service,
}) => {
  await enter(page, service);
  await page.getByRole('link', { name: 'New sheet' }).click();
  await page.getByRole('textbox', { name: 'Product, one word' }).fill('vatwatch');
  await page.getByRole('textbox', { name: 'Release' }).fill('1.0');
  await page.locator('input[type=file]').first().setInputFiles('../tests/vendor-tables/thermograph.csv');
  await expect(page.getByText(/rows were understood whole. Columns/)).toBeVisible();
  const text = page.getByRole('textbox', { name: 'Text of the sheet' });
  await expect(text).toContainText('product: vatwatch');
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Add …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page).toHaveURL(/\/sheets\/vatwatch(@|%40)1\.0$/);
  await page.reload(); // a name with dots in it is a page too
  await expect(page.getByRole('heading', { name: 'vatwatch@1.0' })).toBeVisible();

  await page.getByRole('link', { name: 'New install', exact: true }).click();
  await page.getByRole('combobox', { name: 'The product' }).selectOption('thermograph@4.2');
  await page.getByRole('combobox', { name: 'The estate' }).selectOption('fennmoor');
  await page.getByRole('textbox', { name: 'A name for the install' }).fill('thermograph-creamery');
  await expect(page.getByText('Still open: places.console-server, places.reporting-store')).toBeVisible();
  await page
    .getByLabel(/^Which host is/)
    .first()
    .fill('fm-temp01');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('combobox', { name: 'Which database is' }).selectOption('fm-sql02/ThermoReports');
  const nightly = page.getByRole('radiogroup', { name: /^Should the archivist file the readings/ });
  await expect(nightly.getByRole('radio', { name: 'yes' })).toBeChecked();
  await nightly.getByRole('radio', { name: 'no' }).check();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Show the install' }).click();
  await expect(page.getByRole('textbox', { name: 'Text of the install' })).toContainText('nightly-jobs: no');
  await page.getByRole('button', { name: 'Add …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page).toHaveURL(/\/installs\/thermograph-creamery\?tab=plan$/);
  const needs = page.getByRole('table', { name: 'What poller needs' });
  await expect(needs.getByRole('row', { name: /Administrators/ })).toContainText('reads the performance counters');
  expect(await faults(page)).toEqual([]);
});

test('who has gone to another page while something is saved is left there', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/sheets/thermograph@4.2`);
  const text = page.getByRole('textbox', { name: 'Text of the sheet' });
  await text.click();
  await page.keyboard.press('ControlOrMeta+End');
  await page.keyboard.type('# kept while its author looks elsewhere');
  let letThrough = () => {};
  const held = new Promise<void>((done) => (letThrough = done));
  await page.route('**/api/sheets', async (route) => {
    if (route.request().method() === 'POST') await held;
    await route.continue();
  });
  await page.getByRole('button', { name: 'Save …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Replace' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Calendar' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Calendar');
  const saved = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().endsWith('/api/sheets'));
  letThrough();
  expect((await saved).ok()).toBe(true);
  await expect(page.waitForURL(/\/sheets\//, { timeout: 3_000 })).rejects.toThrow();
});

test('another alternative is taken by a click, after it was seen what that changes', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom?tab=plan`);
  await page.getByRole('button', { name: 'Take everything …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Why' }).fill('the jobs are too many');
  expect(await faults(page, '[role=dialog]')).toEqual([]);
  await dialog.getByRole('button', { name: 'See what it changes' }).click();
  await expect(dialog.getByRole('listitem')).toContainText('take everything');
  await dialog.getByRole('button', { name: 'Take everything' }).click();
  await expect(page.getByText(/chosen by owner.*: the jobs are too many/)).toBeVisible();
});

test('faults stand in the text while one types; what changes is seen before it is kept', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/add/sheet`);
  const text = page.getByRole('textbox', { name: 'Text of the sheet' });
  await text.fill(later.replace('works-as: service', 'works-as: servant'));
  await expect(page.locator('.cm-lint-marker-error')).toHaveCount(1);
  await page.locator('.cm-lint-marker-error').hover();
  await expect(page.locator('.cm-tooltip')).toContainText('service');
  await text.fill(later);
  await expect(page.locator('.cm-lint-marker-error')).toHaveCount(0);
  await page.getByRole('button', { name: 'Add …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page).toHaveURL(/\/sheets\/thermograph(@|%40)5\.0$/);
  await text.fill(later.replace('Sends the alarms', 'Sends all alarms'));
  await page.getByRole('button', { name: 'Save …' }).click();
  await expect(page.getByRole('dialog').getByRole('listitem')).toContainText('Sends all alarms');
  await page.getByRole('dialog').getByRole('button', { name: 'Replace', exact: true }).click();
  await page.getByRole('button', { name: 'Version 2', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('Sends all alarms');
  expect(await faults(page, '[role=dialog]')).toEqual([]);
});

test('an install moves on to another release', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-creamery?tab=text`);
  await page.getByRole('combobox', { name: 'Release' }).selectOption('thermograph@5.0');
  await page.getByRole('button', { name: 'What would change' }).click();
  await page.getByRole('combobox', { name: 'Which host is' }).selectOption('fm-temp02');
  await page.getByRole('button', { name: 'Go on' }).click();
  const otherwise = page.getByRole('table', { name: 'What is needed otherwise' });
  await expect(otherwise.getByRole('row', { name: /Needed no more.*Administrators/ })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: /^Move thermograph-creamery to/ }).click();
  await expect(page.getByRole('link', { name: 'thermograph@5.0' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove thermograph-creamery' }).click();
  await expect(page).toHaveURL(/\/installs$/);
});

test('an estate is rehearsed, and the rehearsal ended', async ({ page, service }) => {
  await enter(page, service);
  await page.getByRole('link', { name: 'Estates', exact: true }).click();
  await page.getByRole('link', { name: 'fennmoor', exact: true }).click();
  await page.getByRole('button', { name: 'Rehearse' }).click();
  const rehearsal = page.getByRole('region', { name: 'Rehearsal' });
  await expect(rehearsal.getByRole('link', { name: 'fennmoor-rehearsal' })).toBeVisible();
  await expect(rehearsal.getByRole('listitem').first()).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await rehearsal.getByRole('button', { name: 'End it …' }).click();
  await rehearsal.getByRole('button', { name: 'Remove the rehearsal and its installs' }).click();
  await expect(rehearsal.getByRole('button', { name: 'Rehearse' })).toBeVisible();
});
