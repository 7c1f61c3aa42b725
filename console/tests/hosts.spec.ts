import type { Page } from '@playwright/test';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test.describe.configure({ mode: 'serial' });

let page: Page;

test.beforeAll(async ({ browser, service }) => {
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await enter(page, service);
  for (const name of ['wheyline-lines', 'nightchurn-dataroom']) {
    await page.goto(`${service.address}/installs/${name}`);
    await page.getByRole('button', { name: 'Verify' }).click();
    await page.getByRole('table', { name: 'Accounts and places' }).waitFor();
  }
});

test('from a right one comes to its host: who decides on each right, and what the next refresh takes back', async () => {
  await page
    .getByRole('button', { name: /^met log on as a batch job/ })
    .first()
    .press('Enter');
  await page.getByRole('link', { name: 'fm-night01' }).click();
  await expect(page.getByRole('heading', { name: 'fm-night01' })).toBeVisible();
  const row = page.getByRole('row', { name: /SeBatchLogonRight/ });
  await expect(row).toContainText('policy Job servers: who may log on');
  await expect(row).toContainText('◁ the next refresh takes it back from FENNMOOR\\svc-nightjobs');
  await page.keyboard.press('f');
  await page.keyboard.type('SeImpersonate');
  await expect(page.getByRole('table', { name: 'rights' }).getByRole('row')).toHaveCount(2);
  await page.getByRole('tab', { name: 'Policies' }).click();
  await expect(page.getByRole('row', { name: /Job servers/ })).toContainText('link number 1');
  expect(await faults(page)).toEqual([]);
});

test('services are drawn and listed in their order, with what is pending and what stands in the way', async ({
  service,
}) => {
  await page.goto(`${service.address}/estates/fennmoor/hosts/fm-line02`);
  await page.getByRole('tab', { name: 'Services' }).click();
  await expect(page.locator('.picture').getByText('WheylineSender')).toBeVisible();
  await expect(page.getByRole('row', { name: /Sender of Wheyline/ })).toContainText('nobody restarted it');
  expect(await faults(page)).toEqual([]);
  await page.goto(`${service.address}/estates/fennmoor/hosts/fm-rec01`);
  await page.getByRole('tab', { name: 'Services' }).click();
  await expect(page.getByRole('row', { name: /Wheyline pages/ })).toContainText('it waits for WheylineMail');
  await page.getByRole('tab', { name: 'Local groups' }).click();
  await expect(page.getByRole('row', { name: /Wheyline Writers/ })).toContainText(
    'FENNMOOR\\FM-LINE01$ a computer account',
  );
});

test('tasks and pools say what they run as and where a password is kept', async ({ service }) => {
  await page.goto(`${service.address}/estates/fennmoor/hosts/fm-night01`);
  await page.getByRole('tab', { name: 'Services' }).click();
  await expect(page.getByRole('row', { name: /Remote Procedure Call/ })).toContainText(
    'other hosts see FENNMOOR\\FM-NIGHT01$',
  );
  await page.getByRole('tab', { name: 'Tasks and pools' }).click();
  await expect(page.getByRole('row', { name: /Nightly churn/ })).toContainText('kept with it: renew it here too');
  await expect(page.getByRole('row', { name: /NightchurnPages/ })).toContainText('none');
  expect(await faults(page)).toEqual([]);
});

test('a handover says what and why, and goes out as a bundle', async ({ service }) => {
  await page.goto(`${service.address}/installs/wheyline-lines?tab=handover`);
  const bundle = page.getByRole('region', { name: 'host team, fm-line01' });
  await expect(bundle).toContainText('let WheylineSender on fm-line01 run as FENNMOOR\\svc-whey-sender');
  await expect(bundle).toContainText('the script asks for the password');
  expect(await faults(page)).toEqual([]);
  const download = page.waitForEvent('download');
  await bundle.getByRole('link', { name: 'Bundle' }).click();
  expect((await download).suggestedFilename()).toBe('wheyline-lines-host-fm-line01.zip');
  await page.getByText('To take away').click();
  await expect(page.getByText('Nothing to remove.')).toBeVisible();
});

test('facts that come back for a host that is not handed over are refused with the way to fix it', async () => {
  const facts = JSON.stringify({
    'host-facts': 1,
    'read-at': '2026-11-25T09:30:00Z',
    host: { name: 'FM-REC01', role: 'member' },
  });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Host facts came back…' }).click();
  await (
    await chooser
  ).setFiles({ name: 'back.json', mimeType: 'application/json', buffer: Buffer.from(`\ufeff${facts}`, 'utf16le') });
  await expect(page.getByRole('alert')).toContainText('reach: handed-over in the estate');
});
