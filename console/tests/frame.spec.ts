import { faults } from './accessibility';
import { enter, expect, test, verifyTwice } from './service';

test.describe.configure({ mode: 'serial' });

test('from the start to any page by keyboard alone', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(service.address);
  await expect(page).toHaveTitle('What needs you · Just Right');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the page' })).toBeFocused();
  await page.keyboard.press('/');
  await page.keyboard.type('fm-sql01');
  await expect(
    page.getByRole('table', { name: 'Found' }).getByRole('row', { name: /^instance fm-sql01/ }),
  ).toBeVisible();
  await page.getByRole('textbox', { name: 'Find' }).fill('secr');
  await expect(page.getByRole('link', { name: 'Secrets' })).toHaveCount(2); // in the map of pages, and found
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Secrets' })).toBeVisible();
});

test('what a run does stands on every page, and what failed waits on the first', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await verifyTwice(page);

  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  service.renameLocalGroup('fm-temp02', 'Event Log Readers', 'Event Readers'); // while somebody reads the list
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('link', { name: 'What needs you' }).click();
  const waits = page.getByRole('region', { name: 'Waiting for you' });
  await expect(waits).toContainText('A run failed: grant of thermograph-dataroom');
  await waits.getByRole('link', { name: 'Open the run' }).first().click();
  await expect(page).toHaveURL(/\/runs\//);
});

test('a page that is not there says so, and a session that ended leads back', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/no-such-page`);
  await expect(page.getByRole('heading', { name: 'No such page' })).toBeVisible();
  await page.goto(`${service.address}/hosts`);
  await expect(page.getByRole('table', { name: 'Hosts' })).toBeVisible();
  await page.context().clearCookies();
  await page.getByRole('link', { name: 'Calendar', exact: true }).click();
  await expect(page).toHaveURL(/\/enter\?to=%2Fcalendar/);
  const code = service.link().split('#')[1] ?? '';
  await page.getByLabel('Sign-in link').fill(code);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Calendar' })).toBeVisible();
});

test('the service away: said, asked again, and what was typed stays', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/add/sheet`);
  const text = page.getByRole('textbox', { name: 'Text of the sheet' });
  await text.fill('sheet: 1');
  await page.route('**/api/**', (route) => route.abort());
  await expect(page.getByText('The service does not answer.')).toBeVisible({ timeout: 30_000 });
  await page.unroute('**/api/**');
  await expect(page.getByText('The service does not answer.')).toBeHidden({ timeout: 30_000 });
  await expect(text).toContainText('sheet: 1');
});

test('the question mark tells what the signs and the keys are', async ({ page, service }) => {
  await enter(page, service);
  await page.getByRole('heading', { name: 'Installs' }).waitFor();
  await page.keyboard.press('Shift+?');
  const key = page.getByRole('dialog', { name: 'Signs and keys' });
  await expect(key.getByRole('row')).toHaveCount(14);
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(key).toBeHidden();
});

test('the stage is not set by an arrow key', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/curdhouse-books`);
  await page.getByRole('combobox', { name: 'Stage' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('dialog').getByRole('button', { name: 'Not now' }).click();
  await expect(page.getByRole('combobox', { name: 'Stage' })).toHaveValue('installed');
});
