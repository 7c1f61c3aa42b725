import { readFileSync } from 'node:fs';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

test('a list is told page by page, sorted and searched by the service; one search finds everything', async ({
  page,
  service,
}) => {
  await enter(page, service);
  const depot = readFileSync('../demo-data/later/thermograph-depot.yaml', 'utf8');
  for (let number = 10; number < 55; number++) {
    const added = await page.request.post(`${service.address}/api/installs?file=depot.yaml`, {
      headers: { 'content-type': 'application/yaml' },
      data: depot.replace('name: thermograph-depot', `name: depot-${number}`),
    });
    expect(added.ok()).toBe(true);
  }

  await page.reload();
  const rows = page.getByRole('table', { name: 'Installs' }).getByRole('row');
  await expect(page.getByText('1 to 50 of 56')).toBeVisible();
  await expect(rows).toHaveCount(51);
  await expect(page.getByRole('button', { name: 'Earlier page' })).toBeDisabled();
  await page.getByRole('button', { name: 'Next page' }).click();
  await expect(page.getByText('51 to 56 of 56')).toBeVisible();
  await expect(rows).toHaveCount(7);
  await expect(page.getByRole('button', { name: 'Next page' })).toBeDisabled();

  await page.getByRole('button', { name: 'Install', exact: true }).click();
  await expect(page.getByText('1 to 50 of 56')).toBeVisible(); // another order begins at its beginning
  await page.getByRole('button', { name: /^Install/ }).click();
  await expect(rows.nth(1)).toContainText('wheyline-lines');
  await expect(page.getByRole('columnheader', { name: /^Install/ })).toHaveAttribute('aria-sort', 'descending');
  await page.getByRole('textbox', { name: 'Search Installs' }).fill('DEPOT 17');
  await expect(rows).toHaveCount(2);
  await expect(rows.nth(1)).toContainText('depot-17');
  expect(await faults(page)).toEqual([]);

  await page.getByRole('textbox', { name: 'Find' }).fill('nothing-like-this');
  await expect(page.getByText('Nothing contains “nothing-like-this”.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Find' }).fill('fm-temp01');
  const found = page.getByRole('table', { name: 'Found' });
  await expect(found.getByRole('row', { name: /^host fm-temp01/ })).toContainText('thermograph-dataroom');
  expect(await faults(page)).toEqual([]);
  await page.reload(); // what is looked for stands in the address
  await page.getByRole('textbox', { name: 'Find' }).fill('depot');
  await expect(page.getByText(/^Not all of it: 45 of install/)).toBeVisible();
  await found.getByRole('link', { name: 'depot-12' }).click();
  await expect(page).toHaveURL(/\/installs\/depot-12$/);
});
