import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('a secret is set and shown nowhere; a token is made, shown once and ended', async ({ page, service }) => {
  await enter(page, service);
  await page.getByRole('link', { name: 'Secrets' }).click();
  await page.getByRole('button', { name: 'Set a secret …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Its name').fill('reader');
  await dialog.getByLabel('The secret itself').fill('not to be seen');
  expect(await faults(page, '[role=dialog]')).toEqual([]);
  await dialog.getByRole('button', { name: 'Set it' }).click();
  const secret = page.getByRole('region', { name: 'reader' });
  await expect(secret).toContainText('by owner');
  await expect(page.locator('body')).not.toContainText('not to be seen');
  await secret.getByRole('button', { name: 'Remove …' }).click();
  await secret.getByRole('button', { name: 'Remove reader for good' }).click();
  await expect(secret).toHaveCount(0);

  await page.getByRole('link', { name: 'Tokens, sessions' }).click();
  await page.getByLabel('A new token’s name').fill('nightly');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('The token nightly, shown this once')).toBeVisible();
  const tokens = page.getByRole('table', { name: 'Tokens' });
  await tokens.getByRole('button', { name: 'End the token nightly' }).click();
  await tokens.getByRole('button', { name: 'End the token nightly for good' }).click();
  await expect(tokens.getByRole('row', { name: /nightly/ })).toHaveCount(0);

  await page.getByRole('link', { name: 'Notifications' }).click();
  await expect(page.getByText('No survey is scheduled')).toBeVisible();
  await page.getByRole('link', { name: 'This service' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a backup' }).click();
  expect((await saved).suggestedFilename()).toMatch(/^just-right-\d{4}-\d\d-\d\d\.backup$/);
});

test('a survey from the list of hosts', async ({ page, service }) => {
  await enter(page, service);
  await page.getByRole('link', { name: 'Hosts' }).click();
  await page.getByRole('button', { name: 'Survey' }).click();
  const rows = page.getByRole('table', { name: 'Hosts' }).getByRole('row');
  await expect(rows.filter({ hasText: 'unseen' })).toHaveCount(1);
  await page.keyboard.press('f');
  await page.keyboard.type('sql');
  await expect(rows).toHaveCount(5);
});
