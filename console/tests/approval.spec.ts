import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { faults } from './accessibility';
import { enter, expect, test } from './service';

const estate = join(resolve(import.meta.dirname, '..', '..'), 'demo-data/estates/fennmoor.yaml');

test('what one proposed waits for another person', async ({ page, browser, service }) => {
  await enter(page, service);
  const post = (path: string, data: string, type: string) =>
    page.request.post(`${service.address}/api/${path}`, { data, headers: { 'content-type': type } });
  expect(
    (
      await post(
        'estates?file=fennmoor.yaml',
        `${readFileSync(estate, 'utf8')}  two-person-approval: yes\n`,
        'application/yaml',
      )
    ).ok(),
  ).toBe(true);
  const made = await post('tokens', JSON.stringify({ name: 'maud', role: 'granter', days: 1 }), 'application/json');
  const { token } = (await made.json()) as { token: string };

  await page.goto(`${service.address}/installs/tallystick-dataroom`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'another granter must approve it' })).toBeVisible();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  const proposal = page.getByRole('region', { name: 'proposal' });
  await expect(proposal.getByRole('button', { name: /^Approve these/ })).toBeDisabled();
  await expect(proposal).toContainText('You proposed it');
  expect(await faults(page, 'main')).toEqual([]);

  // The other person, by a token, as a page cannot be signed in with one.
  const other = await browser.newContext({ extraHTTPHeaders: { authorization: `Bearer ${token}` } });
  const second = await other.newPage();
  await second.goto(`${service.address}/installs/tallystick-dataroom?tab=worklist`);
  await second.getByRole('button', { name: /^Approve these/ }).click();
  await second.getByRole('button', { name: /^Carry these/ }).click();
  await expect(second.getByText('✓ made').first()).toBeVisible();
  await other.close();
});
