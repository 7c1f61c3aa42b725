import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

const saltmere = 'OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example';

test.describe.configure({ mode: 'serial' });

let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
});

test('a right over a branch says how many refuse it, and leads to its trace', async ({ service }) => {
  await page.goto(`${service.address}/installs/roundsman-dataroom`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these 4/ }).click();
  await page.getByRole('button', { name: /^Make these 4/ }).click();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await expect(page.getByText('trace it, and choose a fix')).toBeVisible();
  await page.getByRole('tab', { name: 'Matrix' }).click();
  await page.getByRole('button', { name: /^missing write roomNumber/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('17 can, 9 cannot');
  await expect(sheet).toContainText(`inheritance stops at ${saltmere}`);
  await sheet.getByRole('link', { name: 'Trace it' }).click();
  await expect(page.getByLabel('Can', { exact: true })).toHaveValue('svc-roundsman');
});

test('the trace draws the branch where inheritance stops, and previews each remedy for everybody', async () => {
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await expect(page.getByRole('heading', { name: '26 objects: 9 refuse it, 17 grant it' })).toBeVisible();
  const tree = page.getByRole('table', { name: 'OUs and containers with user objects' });
  await expect(tree.getByRole('row', { name: /^Saltmere/ })).toContainText('inheritance stops here');
  await expect(tree.getByRole('row', { name: /^Highfield/ })).toContainText('12');
  await expect(page.getByRole('region', { name: 'Remedy 1-spot' }).getByRole('row')).toHaveCount(3);
  const inherit = page.getByRole('region', { name: 'Remedy 1-inherit' });
  await expect(inherit).toContainText('9 of 9 fixed. 10 access lists change');
  await expect(inherit.getByRole('row', { name: /help-desk reset password/ })).toBeVisible();
  await inherit.getByText('before and after').click();
  await expect(inherit.getByText('allow FENNMOOR\\svc-roundsman: write roomNumber of user (inherited')).toBeVisible();
});

for (const scheme of ['light', 'dark'] as const) {
  test(`a trace has no accessibility faults and does not scroll sideways, ${scheme}`, async () => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    expect(await faults(page)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  });
}

test('a remedy is carried out after one confirmation, traced again, and undone', async () => {
  const inherit = page.getByRole('region', { name: 'Remedy 1-inherit' });
  await inherit.getByRole('button', { name: 'Carry out…' }).click();
  await expect(page.getByRole('dialog')).toContainText(`enable inheritance at ${saltmere}`);
  await page.getByRole('button', { name: 'Make this change' }).click();
  await expect(page.getByRole('heading', { name: '26 objects: 26 grant it' })).toBeVisible();
  const earlier = page.getByRole('table', { name: 'Earlier traces' });
  await earlier.getByRole('button', { name: 'Undo…' }).first().click(); // the newest comes first
  await page.getByRole('button', { name: 'Undo this change' }).click();
  await expect(page.getByRole('heading', { name: '26 objects: 9 refuse it, 17 grant it' })).toBeVisible();
  await expect(earlier.getByText('undone')).toBeVisible();
});

test('supposing changes nothing and cannot be carried out; an unknown attribute names the nearest', async ({
  service,
}) => {
  await page.goto(`${service.address}/trace?account=svc-roundsman&attributes=%5B%22roomNumber%22%5D`);
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByLabel('As if inheritance were enabled here: one per line').fill(saltmere);
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await expect(page.getByRole('heading', { name: '26 objects: 26 grant it' })).toBeVisible();
  await expect(page.getByText(`Supposed that inheritance is on at ${saltmere}: it is not so now.`)).toBeVisible();
  await page.goto(`${service.address}/trace?account=svc-roundsman&attributes=%5B%22roomNumbr%22%5D`);
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText("Did you mean 'roomNumber'?");
});
