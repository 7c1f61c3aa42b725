import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('a fit that changed is kept, and what made the difference is said', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/tallystick-dataroom`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'History' }).click();
  const fits = page.getByRole('table', { name: 'kept fits' });
  await expect(fits.getByRole('row')).toHaveCount(2); // the head, and one
  await expect(page.getByText('There is no earlier fit')).toBeVisible();

  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await page.getByRole('tab', { name: 'History' }).click();
  const differences = page.getByRole('table', { name: 'differences' });
  await expect(differences.getByRole('row').filter({ hasText: 'better' }).first()).toContainText('made here:');
  expect(await faults(page, 'main')).toEqual([]);
  await fits.getByRole('button', { name: '1', exact: true }).click();
  await expect(page.getByText('There is no earlier fit')).toBeVisible();
});
