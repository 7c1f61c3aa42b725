import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

const depot = join(resolve(import.meta.dirname, '..', '..'), 'demo-data/later/thermograph-depot.yaml');

test('an install is retired, what others need stays, and undo brings it back', async ({ page, service }) => {
  await enter(page, service);
  const added = await page.request.post(`${service.address}/api/installs?file=thermograph-depot.yaml`, {
    data: readFileSync(depot, 'utf8'),
    headers: { 'content-type': 'application/yaml' },
  });
  expect(added.ok()).toBe(true);
  await page.goto(`${service.address}/installs/tallystick-dataroom?tab=worklist`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('button', { name: 'Show what is left' }).click();

  await page.getByRole('combobox', { name: 'Stage' }).selectOption('retiring');
  await page.getByRole('dialog').getByRole('button', { name: 'It is retiring' }).click();
  await expect(page.getByText('This install is being retired')).toBeVisible();
  await expect(page.getByRole('row', { name: /disable the account FENNMOOR\\svc-tally-installer/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /delete the account/ })).toContainText('disabled for 30 days');
  await expect(page.getByText('kept: thermograph-depot uses it')).toBeVisible();
  expect(await faults(page, 'main')).toEqual([]);
  await page.getByRole('button', { name: /^Remove these/ }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Remove these/ })
    .click();
  await expect(page.getByRole('main').getByRole('status').filter({ hasText: 'now nothing left' })).toBeVisible();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await expect(page.getByRole('row', { name: /delete the account/ })).toContainText('not before');
  await expect(page.getByRole('button', { name: /^Remove these/ })).toBeDisabled();
});
