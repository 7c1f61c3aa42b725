import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('the sign-in settings, a sign-in test running check by check, and who was found against who was expected', async ({
  page,
  service,
}) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/brinebook-contractors`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Sign-in' }).click();

  const settings = page.getByRole('table', { name: 'settings' });
  await expect(settings.getByRole('row').filter({ hasText: 'door/lock' })).toContainText('sealed');
  const secret = settings.getByRole('row').filter({ hasText: 'door/callerSecret' });
  await expect(secret).toContainText('<secret: brinebook>');
  await expect(secret.getByRole('button')).toHaveCount(0); // nothing worth copying
  await settings.getByRole('button', { name: 'Copy people/match' }).click();
  await expect(page.getByRole('table', { name: 'where the password is used' })).toContainText('fm-brine01');

  await page.getByRole('textbox', { name: /bind account/ }).fill('simulated-brinebook');
  await page.getByRole('button', { name: 'Try it' }).click();
  const checks = page.getByRole('table', { name: 'checks' });
  await expect(checks.getByRole('row').filter({ hasText: 'How many people are found?' })).toContainText('7 people');
  const compared = page.getByRole('table', { name: 'people found and expected' });
  await expect(compared.getByRole('row').filter({ hasText: 'o.sorel' })).toContainText('not in brinebook-users');
  await expect(compared.getByRole('row').filter({ hasText: 't.novik' })).toContainText('yes');
  await expect(page.getByRole('textbox', { name: /bind account/ })).toHaveValue('');
  expect(await faults(page, 'main')).toEqual([]);
});

test('a plain text way is wrong, and a product without sign-in has no such tab', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/millrace-gateway?tab=sign-in`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await expect(page.getByRole('list', { name: 'findings about the settings' })).toContainText('unencrypted');
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await expect(page.getByRole('tab', { name: 'Handover' })).toBeVisible();
  await expect(page.getByRole('tab', { name: 'Sign-in' })).toHaveCount(0);
});

test('a filter is built, said in words, counted as one types, and pointed at where it is none', async ({
  page,
  service,
}) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/brinebook-contractors?tab=sign-in`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('button', { name: 'Show whom the people filter finds' }).click();
  const found = page.getByRole('region', { name: 'found' });
  await expect(found.getByRole('status')).toContainText('7 found of 16');
  await expect(found).toContainText('are directly in cn=brinebook-users');

  await page.getByLabel('Directory').selectOption('staff');
  const filter = page.getByRole('textbox', { name: 'Filter', exact: true });
  await filter.fill('');
  await page.getByLabel('Add a condition').selectOption('are people, and no computers');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByLabel('Add a condition').selectOption('have a name that starts with');
  await page.getByLabel('The beginning').fill('Ada');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(filter).toHaveValue('(&(objectCategory=person)(objectClass=user)(cn=Ada*))');
  await expect(found.getByRole('status')).toContainText('1 found');
  await expect(found.getByRole('row').filter({ hasText: 'a.brandt' })).toBeVisible();
  await page.getByRole('button', { name: 'Ask the directory now' }).click();
  await expect(found.getByRole('status')).toContainText('1 found, as the directory says');

  await filter.fill('(&(cn=a*)');
  await expect(page.getByRole('alert')).toContainText('A parenthesis is not closed');
  await filter.fill('(noSuchThing=1)');
  await expect(found).toContainText('has no attribute noSuchThing');
  expect(await faults(page, 'main')).toEqual([]);
});
