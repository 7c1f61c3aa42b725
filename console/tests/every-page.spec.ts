import { faults } from './accessibility';
import { everyPage, settled } from './everyPage';
import { enter, expect, test, verifyTwice } from './service';

test.describe.configure({ mode: 'serial' });

test('an install is verified, so that every page has something to show', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await verifyTwice(page);
});

for (const scheme of ['light', 'dark'] as const) {
  for (const width of [1280, 600]) {
    test(`no page has accessibility faults or scrolls sideways, ${scheme}, ${width} wide`, async ({
      page,
      service,
    }) => {
      await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
      await page.setViewportSize({ width, height: 800 });
      await enter(page, service);
      for (const path of everyPage) {
        await page.goto(service.address + path);
        await settled(page);
        expect(await faults(page), path).toEqual([]);
        expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(width);
      }
    });
  }
}

test('the panel of a right acts: what it hangs on comes along, and what is off is accepted', async ({
  page,
  service,
}) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom?tab=matrix`);
  await page.getByRole('button', { name: /^missing Administrators on fm-temp01/ }).click();
  const acts = page.getByRole('region', { name: 'What can be done' });
  await expect(acts).toContainText('app-thermo-operators');
  expect(await faults(page)).toEqual([]);
  await acts.getByRole('button', { name: /^Give it/ }).click();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  await acts.getByRole('button', { name: 'Accept it for a time…' }).click();
  await page.getByRole('textbox', { name: 'Because' }).fill('the vendor mends it in spring');
  await page.getByLabel('Until').fill(new Date(Date.now() + 40 * 86_400_000).toISOString().slice(0, 10));
  expect(await faults(page)).toEqual([]);
  await page.getByRole('dialog').getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(page.getByText('accepted by')).toBeVisible();
});

test('a service is set to what an install asks for, from its row', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/wheyline-lines`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('table', { name: 'Accounts and places' }).waitFor();
  await page.goto(`${service.address}/estates/fennmoor/hosts/fm-line01`);
  await page.getByRole('tab', { name: 'Services' }).click();
  const row = page.getByRole('row', { name: /WheylineSender/ });
  await row.getByRole('button', { name: /^Set to svc-whey-sender/ }).click();
  const steps = page.getByRole('dialog').getByRole('listitem');
  // it may not run as an account that may not log on as a service: that step comes along
  await expect(steps).toContainText([/log on as a service on fm-line01/, /run as FENNMOOR\\svc-whey-sender/]);
  expect(await faults(page)).toEqual([]);
  const make = page.getByRole('dialog').getByRole('button', { name: /^Make these/ });
  await expect(make).toBeDisabled(); // not before the password is known that the service is to be given
  await page.getByLabel(/^The password of FENNMOOR\\svc-whey-sender/).fill('simulated-svc-whey-sender');
  await make.click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('grant of wheyline-lines');
  await expect(page.locator('main .tag').first()).toHaveText('done');
  await page.goto(`${service.address}/estates/fennmoor/hosts/fm-line01`);
  await page.getByRole('tab', { name: 'Services' }).click();
  await expect(row.locator('td').nth(1)).toContainText('FENNMOOR\\svc-whey-sender');
  await expect(row.getByRole('button', { name: /^Set to/ })).toHaveCount(0);
});
