import { faults } from './accessibility';
import { enter, expect, test, verifyTwice } from './service';

const readers = 'Event Log Readers';

test('a run that fails in the middle is found again, decided about and undone', async ({ page, browser, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await verifyTwice(page);

  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these \d+…$/ }).click();
  service.renameLocalGroup('fm-temp02', readers, 'Event Log Reader'); // while somebody reads the list
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Make these \d+ changes$/ })
    .click();
  await expect(page.getByRole('main').getByRole('status').filter({ hasText: 'failed' })).toBeVisible();
  await page.getByRole('tab', { name: 'Matrix' }).click();
  await page
    .getByRole('button', { name: new RegExp(`${readers} on fm-temp02 for svc-archive`) })
    .first()
    .click();
  const panel = page.getByRole('dialog', { name: `${readers} on fm-temp02` });
  await expect(panel.getByRole('region', { name: /^What to do about step/ })).toContainText(
    'failed: add FENNMOOR\\app-thermo-log-readers to fm-temp02', // where the right is, it can be decided about
  );
  expect(await faults(page, 'main')).toEqual([]);
  await panel.getByRole('link', { name: 'The grant that failed, whole' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('grant of thermograph-dataroom');
  const decision = page.getByRole('region', { name: /^What to do about step/ });
  await expect(decision).toContainText('failed: add FENNMOOR\\app-thermo-log-readers to fm-temp02');
  expect(await faults(page, 'main')).toEqual([]);

  await decision.getByRole('button', { name: 'Hand it to a person' }).click();
  await expect(decision).toContainText('is for a person');
  await page.reload(); // it is found again, by another person as well
  await expect(decision).toContainText('is for a person');
  service.renameLocalGroup('fm-temp02', 'Event Log Reader', readers);
  await decision.getByRole('button', { name: 'It is done' }).click();
  await expect(decision).toContainText('and it is not seen'); // a word alone does not count
  await expect(decision.getByRole('button', { name: /^Skip it/ })).toBeDisabled(); // not without a reason
  await decision.getByRole('textbox', { name: /^A note on step/ }).fill('the host is retired on Friday');
  await decision.getByRole('button', { name: /^Skip it/ }).click();
  await expect(page.locator('main .tag').first()).toHaveText('done');

  const other = await browser.newPage();
  await enter(other, service);
  await other.getByRole('link', { name: 'Runs' }).click();
  const runs = other.getByRole('table', { name: 'Runs' });
  await expect(runs.getByRole('row')).toHaveCount(2);
  expect(await faults(other, 'main')).toEqual([]);
  await runs.getByRole('link', { name: 'grant' }).click();
  await other.getByRole('button', { name: 'Undo…' }).click();
  const dialog = other.getByRole('dialog');
  await expect(dialog.getByRole('listitem').first()).toBeVisible();
  await dialog.getByRole('button', { name: /^Undo these changes$/ }).click();
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('undo of thermograph-dataroom');
  await expect(other.locator('main .tag').first()).toHaveText('done');
  await other.getByRole('link', { name: 'another run' }).click();
  await expect(other.locator('table.steps')).toContainText('↩ undone');
  await other.close();
});
