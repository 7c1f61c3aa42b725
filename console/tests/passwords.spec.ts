import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('a password that is typed in several places is renewed until a person is needed, and then to its end', async ({
  page,
  service,
}) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/curdhouse-books`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('table', { name: 'Accounts and places' }).waitFor();

  await page.getByRole('link', { name: 'Passwords' }).click();
  const list = page.getByRole('table', { name: 'Passwords' });
  await expect(list.getByRole('row').filter({ hasText: 'svc-curd-lookup$' })).toContainText('managed');
  await expect(list.getByRole('row').filter({ hasText: 'svc-curd-book' })).toContainText('Maud Ferris');
  await page.getByRole('textbox', { name: 'Filter Passwords' }).fill('curd-cards');
  expect(await faults(page, 'main')).toEqual([]);
  await list.getByRole('link', { name: 'svc-curd-cards' }).click();

  await expect(page.getByRole('table', { name: 'where the password is used' })).toContainText(
    'Account for the scanner',
  );
  await expect(page.getByText('cannot be undone')).toBeVisible();
  await page.getByRole('textbox', { name: 'The password' }).fill('not this one');
  await page.getByRole('button', { name: 'Try it', exact: true }).click();
  await expect(page.getByText('✗ does not work')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'The password' })).toHaveValue('');

  await page.getByRole('button', { name: /^Begin these \d steps$/ }).click();
  const renewal = page.getByRole('region', { name: 'renewal', exact: true });
  await expect(renewal).toContainText('waits for a person');
  await expect(renewal.getByRole('note')).toContainText('it has the old one, the directory the new one');
  await expect(page.getByRole('button', { name: 'Skip it' })).toBeDisabled(); // not without a reason
  await page.getByRole('button', { name: 'Show the new password, once' }).click();
  await expect(page.getByText('It is no longer stored')).toBeVisible();
  expect(await faults(page, 'main')).toEqual([]);
  await renewal.getByRole('textbox', { name: /^A note on step/ }).fill('typed by J. Lind');
  await renewal.getByRole('button', { name: 'It is typed' }).click();
  await expect(renewal.getByRole('heading', { name: 'The last renewal' })).toBeVisible();
  await expect(renewal).toContainText('typed by J. Lind');
  await expect(renewal.getByRole('status')).toHaveText('renewed');
});

test('a password that the product changes is not renewed from here', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/passwords/fennmoor/svc-curd-labeller`);
  await expect(page.getByText(/It is not renewed from here: .* changes it, in/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Begin/ })).toHaveCount(0);
});
