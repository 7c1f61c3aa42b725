import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('what accounts hold is confirmed item by item and ends in a fit', async ({ page, service }) => {
  await enter(page, service);
  await page.getByRole('link', { name: 'Adopt what is already there' }).click();
  await expect(page.getByText('No adoption yet')).toBeVisible();
  expect(await faults(page, 'main')).toEqual([]);
  await page.getByRole('button', { name: 'Start an adoption' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name', { exact: false }).first().fill('found');
  await form.getByLabel('Product').fill('Not a word');
  await form.getByLabel('Accounts').fill('svc-archive');
  await form.getByRole('button', { name: 'Begin' }).click();
  await expect(form.getByText(/small letters/)).toBeVisible();
  await form.getByRole('textbox', { name: 'Product' }).fill('found');
  await form.getByRole('button', { name: 'Begin' }).click();

  await page.waitForURL('**/adoptions/found');
  await expect(page.getByText('This estate was not surveyed yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Survey the estate' }).click();
  await expect(page.getByText(/items are not answered yet/)).toBeVisible();
  await expect(page.getByText('thermograph-dataroom needs it already').first()).toBeVisible();
  await expect(page.getByText(/through a forbidden group/).first()).toBeVisible();
  const draft = page.getByRole('button', { name: 'What it comes to …' });
  await draft.click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('product: found'); // as far as it is answered
  const write = dialog.getByRole('button', { name: 'Add both to Just Right' });
  await expect(write).toBeDisabled();
  expect(await faults(page, '[role=dialog]')).toEqual([]);
  await page.keyboard.press('Escape');
  expect(await faults(page, 'main')).toEqual([]);

  await page.getByLabel('Because').fill('the archive, chapter 3');
  const groups = await page.getByRole('region').all();
  for (const group of groups) {
    for (const one of await group.getByRole('row').getByRole('combobox').all()) {
      await one.selectOption('not-sure');
      await expect(one).toHaveValue('not-sure');
      await expect(one).toBeEnabled();
    }
  }
  await expect(page.getByText('all items are answered')).toBeVisible();
  await draft.click();
  await write.click();
  await page.waitForURL('**/installs/found');
  await expect(page.getByRole('tab', { name: 'Matrix' })).toBeVisible();
});
