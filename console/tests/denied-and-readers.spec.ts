import { expect, test } from '@playwright/test';
import { enter, Service } from './service';

const install = 'tallystick-dataroom';

// A service of this file's own: each file starts from the demo as it ships.
let service: Service;
test.beforeAll(async () => {
  service = await Service.start();
});
test.afterAll(() => service.stop());

test('a denied right shows both paths, and no step claims to fix it', async ({ page }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('button', { name: /^missing log on as a service on fm-tally01/ }).click();
  const side = page.getByRole('dialog', { name: 'log on as a service on fm-tally01', exact: true });
  await expect(side).toContainText('denied by FENNMOOR\\no-service-hosts');
  await expect(side.locator('.path')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await expect(page.getByText('S-1-5-21-1004336348-1177238915-682003330-1999')).toBeVisible(); // seen at the place
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await expect(page.getByText('create the account FENNMOOR\\svc-tally-installer')).toBeVisible();
  await expect(page.getByText('log on as a service on fm-tally01')).toBeHidden();
});

test('a reader sees the worklist and cannot carry it out', async ({ page }) => {
  await enter(page, service);
  // The same person, as the service would describe a reader.
  await page.route('**/api/me', (route) => route.fulfill({ json: { name: 'a reader', role: 'reader' } }));
  await page.goto(`${service.address}/installs/${install}?tab=worklist`);
  await expect(page.getByText('a reader, reader')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Grant these/ })).toBeDisabled();
});

test('a worklist that changed in between is said, and nothing is made', async ({ page }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}?tab=worklist`);
  await page.route('**/grant', (route) =>
    route.continue({ postData: JSON.stringify({ remove: false, steps: ['something else'] }) }),
  );
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Make these/ })
    .click();
  await expect(page.getByRole('alert')).toContainText('The worklist no longer holds this step: something else.');
});

test('what the service cannot answer is said in words', async ({ page }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/no-such-install`);
  await expect(page.getByRole('alert')).toContainText("There is no install called 'no-such-install'.");
  await page.route('**/api/installs?*', (route) =>
    route.fulfill({ status: 500, json: { title: 'Something unexpected went wrong.' } }),
  );
  await page.goto(`${service.address}/installs`);
  await expect(page.getByRole('alert')).toContainText('Something unexpected went wrong.');
});
