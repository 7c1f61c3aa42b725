import { faults } from './accessibility';
import { enter, expect, test } from './service';

const until = new Date(Date.now() + 60 * 86_400_000).toISOString().slice(0, 10);

test('a deviation is accepted until a day, reviewed, and found in the calendar', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/quernstone-sql01`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Review' }).click();
  const off = page.getByRole('table', { name: 'deviations' });
  await expect(off.getByRole('row').filter({ hasText: 'sysadmin' })).toContainText('open');
  await off.getByRole('button', { name: /^Accept… svc-quern: sysadmin/ }).click();
  const form = page.getByRole('dialog', { name: 'Accept a deviation' });
  await expect(form.getByRole('button', { name: 'Accept' })).toBeDisabled(); // without a reason, or a day
  await form.getByLabel('Because').fill('until the release in March');
  await form.getByLabel('Until').fill(until);
  await form.getByLabel('Allowed by').fill('Maud Ferris');
  expect(await faults(page, '[role=dialog] form')).toEqual([]);
  await form.getByRole('button', { name: 'Accept' }).click();
  await expect(off.getByRole('row').filter({ hasText: 'sysadmin' })).toContainText('accepted by Maud Ferris');
  await expect(page.locator('.balance-words', { hasText: '1 excess, accepted' }).first()).toBeVisible();

  await page.getByLabel('Who looked').fill('Jory Lind');
  await page.getByLabel('Again by').fill(until);
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Recorded as review 1' })).toBeVisible();
  const reviews = page.getByRole('table', { name: 'reviews' });
  await expect(reviews.getByRole('row').nth(1)).toContainText('Jory Lind (entered by');
  expect(await faults(page, 'main')).toEqual([]);

  await page.getByRole('tab', { name: 'History' }).click();
  await expect(page.getByRole('figure', { name: /^How the fit changed/ })).toContainText('review 1');
  expect(await faults(page, 'main')).toEqual([]);

  await page.getByRole('link', { name: 'Calendar' }).click();
  const calendar = page.getByRole('table', { name: 'Calendar' });
  await expect(calendar.getByRole('row').filter({ hasText: 'exception ends' })).toContainText('Maud Ferris');
  await expect(calendar.getByRole('row').filter({ hasText: 'last reviewed' })).toContainText(until);
  expect(await faults(page, 'main')).toEqual([]);

  await calendar
    .getByRole('link', { name: /^Decide again: quernstone-sql01$/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/installs\/quernstone-sql01\?tab=review$/);
  await page.getByRole('button', { name: /^End it now/ }).click();
  await expect(off.getByRole('row').filter({ hasText: 'sysadmin' })).toContainText('open');
  await expect(page.getByRole('table', { name: 'exceptions' })).toContainText('ended by');
});
