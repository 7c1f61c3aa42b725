import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { expect, test } from './service';

const install = 'thermograph-dataroom';

test.describe.configure({ mode: 'serial' });

let page: Page;
let used: string;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  used = service.link();
  await page.goto(used);
  await page.getByRole('heading', { name: 'What needs you' }).waitFor();
  await page.getByRole('link', { name: 'Installs', exact: true }).click();
});

test('a link signs in once, and leaves no code in the address', async ({ browser, service }) => {
  expect(page.url()).toBe(`${service.address}/installs`);
  const other = await browser.newPage();
  await other.goto(used);
  await expect(other.getByRole('alert')).toContainText('unknown, used or too old');
  await other.goto(`${service.address}/installs`);
  await expect(other).toHaveURL(/\/enter\?to=%2Finstalls$/); // not signed in: to the door, and back later
  await other.close();
});

test('installs filter as one types, by a key', async () => {
  const rows = page.getByRole('table', { name: 'Installs' }).getByRole('row');
  await expect(rows).toHaveCount(12);
  await page.keyboard.press('f');
  await page.keyboard.type('tally');
  await expect(rows).toHaveCount(2);
  await page.getByRole('textbox', { name: 'Search Installs' }).fill('');
  await page.getByRole('button', { name: 'Install', exact: true }).press('Enter');
  await expect(page.getByRole('columnheader', { name: 'Install', exact: true })).toHaveAttribute(
    'aria-sort',
    'ascending',
  );
});

test('verify fills the matrix; a host that restarts leaves its rights unseen', async () => {
  await page.getByRole('link', { name: install }).click();
  await expect(page.getByText('This estate was not surveyed yet')).toBeVisible();
  await page.getByRole('button', { name: 'Verify' }).click();
  const matrix = page.getByRole('table', { name: 'Accounts and places' });
  await expect(matrix).toBeVisible();
  await expect(
    page.getByRole('img', { name: '10 missing, 1 forbidden, 3 excess, 3 unseen, 4 pending' }).first(),
  ).toBeVisible();
  await expect(
    matrix.getByRole('button', { name: 'unseen Event Log Readers on fm-temp02 for svc-archive' }),
  ).toBeVisible();
  await expect(page.getByText('fm-temp02 does not answer: it is restarting')).toBeVisible();
});

test('hover shows need, path, team and sheet line; Enter opens them, Escape closes, arrows walk', async () => {
  const chip = page.getByRole('button', { name: 'met Event Log Readers on fm-temp01 for svc-archive' });
  await chip.hover();
  const settings = page.locator('.mantine-HoverCard-dropdown');
  await expect(settings).toContainText('files the alarms with the readings');
  await expect(settings).toContainText('the host team');
  await expect(settings).toContainText('thermograph.yaml:');
  await expect(settings).toContainText('FENNMOOR\\plant-tools');
  await page.mouse.move(0, 0);
  await chip.focus();
  await page.keyboard.press('Enter');
  const side = page.getByRole('dialog', { name: 'Event Log Readers on fm-temp01', exact: true });
  await expect(side).toContainText('held another way');
  await page.keyboard.press('Escape');
  await expect(side).toBeHidden();
  await chip.focus();
  await page.keyboard.press('ArrowDown');
  await expect(
    page.getByRole('button', { name: 'unseen Event Log Readers on fm-temp02 for svc-archive' }),
  ).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.matrix td:nth-child(4) button:focus')).toHaveCount(1);
});

test('the panel of a right leads to its account and to the password', async () => {
  await page.getByRole('button', { name: 'met Event Log Readers on fm-temp01 for svc-archive' }).click();
  await page.getByRole('link', { name: 'All that svc-archive holds' }).click();
  await expect(page.getByRole('heading', { name: 'archivist' })).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'met Event Log Readers on fm-temp01 for svc-archive' }).click();
  await page.getByRole('link', { name: 'The password of svc-archive' }).click();
  await expect(page).toHaveURL(/\/passwords\/fennmoor\/svc-archive/);
  await expect(page.getByRole('heading', { name: 'svc-archive', exact: true })).toBeVisible();
  await page.goBack();
});

test('give asks once with every change by name, and shows each as it is made', async () => {
  await page.getByRole('button', { name: 'Verify' }).click(); // the host is back
  await expect(
    page.getByRole('button', { name: 'missing Administrators on fm-temp02 for svc-thermo-poller' }),
  ).toBeVisible();
  await expect(page.getByText('does not answer')).toHaveCount(0);
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await expect(page.getByRole('button', { name: /^Remove these/ })).toBeDisabled(); // first give
  await page.getByRole('button', { name: 'Grant these 22…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('listitem')).toHaveCount(22);
  await expect(dialog).toContainText('create the account FENNMOOR\\svc-thermo-poller');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Grant these 22…' }).click();
  await dialog.getByRole('button', { name: 'Make these 22 changes' }).click();
  await expect(page.getByText('22 made; now 1 forbidden, 3 excess, 6 pending', { exact: true })).toBeVisible();
  await expect(page.getByText('✓ made')).toHaveCount(22);
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await expect(page.getByText('Nothing left to grant.')).toBeVisible();
});

test("an account's paths are a picture with a table twin", async ({ service }) => {
  await page.goto(`${service.address}/installs/${install}/accounts/archivist`);
  await expect(page.locator('.react-flow__node')).not.toHaveCount(0);
  await expect(page.locator('.node-forbidden')).toContainText('FENNMOOR\\Domain Admins');
  const row = page.getByRole('table', { name: 'Paths' }).getByRole('row', { name: /forbidden/ });
  await expect(row).toContainText('FENNMOOR\\server-keepers');
});

for (const scheme of ['light', 'dark'] as const) {
  test(`no page has accessibility faults or scrolls sideways, ${scheme}`, async ({ service }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    const pages = [
      '/installs',
      `/installs/${install}`,
      `/installs/${install}?tab=worklist`,
      `/installs/${install}/accounts/archivist`,
      '/log',
    ];
    for (const path of pages) {
      await page.goto(service.address + path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await page.waitForLoadState('networkidle');
      expect(await faults(page), path).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(1280);
    }
  });
}

test('taking away what is excess ends just right', async ({ service }) => {
  await page.goto(`${service.address}/installs/${install}?tab=worklist`);
  await page.getByRole('button', { name: 'Remove these 3…' }).click();
  await expect(page.getByRole('dialog')).toContainText('remove FENNMOOR\\svc-archive from FENNMOOR\\fm-dba-legacy');
  await page.getByRole('dialog').getByRole('button', { name: 'Remove these 3' }).click();
  await expect(page.getByText('3 made; now just right, 7 pending', { exact: true })).toBeVisible();
  await page.goto(`${service.address}/installs`);
  await expect(page.getByRole('row', { name: new RegExp(install) })).toContainText("run the product's setup");
});

test('the log lists what was done and its chain is sound', async () => {
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByRole('button', { name: 'Check the chain' }).click();
  await expect(page.getByText(/The log is sound: \d+ entries\./)).toBeVisible();
  const search = page.getByRole('textbox', { name: 'Search Log' });
  await search.fill('no entry says this');
  await expect(page.getByText('Nothing matches')).toBeVisible();
  await search.fill('THERMO-OPERATORS'); // as people type, and among all entries, not those that are shown
  await expect(page.getByText(/^All \d+ that match\.$/)).toBeVisible();
  await expect(page.getByRole('table', { name: 'Log' }).getByRole('row').nth(1)).toContainText('thermo-operators');
});

test('signing out shuts the door', async () => {
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/\/enter$/);
  await expect(page.getByRole('heading', { name: 'Just Right' })).toBeVisible();
  expect(await faults(page)).toEqual([]);
});
