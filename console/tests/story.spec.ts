import { press, reach, take, type } from './keyboard';
import { enter, expect, test } from './service';

const readers = 'Event Log Readers';

test('the whole story by keyboard alone: table, sheet, install, plan, verify, choose, grant some, a failure, go on, undo, retire', async ({
  page,
  service,
}) => {
  test.setTimeout(300_000);
  await enter(page, service);
  await page.getByRole('heading', { name: 'Installs' }).waitFor();
  const button = (name: string | RegExp) => page.getByRole('button', { name });
  const inDialog = (name: string | RegExp) => page.getByRole('dialog').getByRole('button', { name });
  const goTo = async (pageName: string) => {
    await page.keyboard.press('Escape');
    await page.keyboard.press('/');
    await page.keyboard.type(pageName);
    await expect(page.getByRole('textbox', { name: 'Find' })).toHaveValue(pageName);
    await page.keyboard.press('Enter');
  };

  // a vendor's table becomes a sheet
  await goTo('New sheet');
  await type(page, page.getByRole('textbox', { name: 'Product, one word' }), 'vatwatch');
  await type(page, page.getByRole('textbox', { name: 'Release' }), '1.0');
  const chooser = page.waitForEvent('filechooser');
  await press(page, button('Choose the table'));
  await (await chooser).setFiles('../tests/vendor-tables/thermograph.csv');
  await expect(page.getByText(/rows were understood whole. Columns/)).toBeVisible();
  await press(page, button('Add …'));
  await press(page, inDialog('Add'));
  await expect(page.getByRole('heading', { name: 'vatwatch@1.0', level: 1 })).toBeVisible();

  // the sheet becomes an install, its plan beside the questions
  await goTo('New install');
  await take(page, page.getByRole('combobox', { name: 'The product' }), 'thermograph@4.2');
  await take(page, page.getByRole('combobox', { name: 'The estate' }), 'fennmoor');
  await type(page, page.getByRole('textbox', { name: 'A name for the install' }), 'thermograph-creamery');
  await type(page, page.getByLabel(/^Which host is/).first(), 'fm-temp01');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await take(page, page.getByRole('combobox', { name: 'Which database is' }), 'fm-sql02/ThermoReports');
  const beside = page.getByRole('complementary', { name: 'What it comes to' });
  await expect(beside).toContainText('svc-thermo-poller');
  await type(page, page.getByLabel('portal', { exact: true }), 'svc-creamery-pages');
  await page.keyboard.press('Escape');
  await expect(beside).toContainText('svc-creamery-pages');
  await press(page, button('Show the install'));
  await press(page, button('Add …'));
  await press(page, inDialog('Add'));
  await expect(page).toHaveURL(/\/installs\/thermograph-creamery\?tab=plan$/);
  await expect(page.getByRole('table', { name: 'What poller needs' })).toBeVisible();

  // another alternative is taken, with a reason
  await press(page, button('Take everything …'));
  await type(page, page.getByRole('dialog').getByRole('textbox', { name: 'Why' }), 'the jobs are too many');
  await press(page, inDialog('See what it changes'));
  await expect(page.getByRole('dialog').getByRole('listitem')).toContainText('take everything');
  await press(page, inDialog('Take everything'));
  await expect(page.getByText(/chosen by owner.*: the jobs are too many/)).toBeVisible();

  // the estate is read
  await press(page, button('Verify'));
  await expect(page.getByText('surveyed')).toBeVisible();
  await expect(button('Verify')).toBeEnabled();
  await press(page, button('Verify')); // a host that restarts answers later
  await expect(button('Verify')).toBeEnabled();
  await press(page, page.getByRole('tab', { name: 'Plan' }), 'ArrowRight');
  await expect(page.getByRole('tab', { name: 'Matrix' })).toBeFocused();
  await press(page, page.getByRole('tab', { name: 'Matrix' }), 'ArrowRight');
  await expect(page.getByRole('table', { name: 'Steps to give' })).toBeVisible();

  // some of it is given; what hangs on a step that is left out is left out with it
  const all = await page.getByRole('checkbox', { name: /^Step / }).count();
  await press(
    page,
    page.getByRole('checkbox', { name: /^Step .*create the account FENNMOOR\\svc-creamery-pages/ }),
    'Space',
  );
  const grant = button(/^Grant these \d+…$/);
  const chosen = Number(/\d+/.exec((await grant.textContent()) ?? '')?.[0]);
  expect(chosen).toBeGreaterThan(0);
  expect(chosen).toBeLessThan(all - 1);
  await press(page, grant);
  service.renameLocalGroup('fm-temp01', readers, 'Event Log Reader'); // while somebody reads the list
  await press(page, inDialog(`Make these ${chosen} changes`));
  await expect(page.getByRole('main').getByRole('status').filter({ hasText: 'failed' })).toBeVisible();

  // a step failed: it is mended, and tried again
  await press(page, page.getByRole('link', { name: 'This run, and what can be done about it' }));
  const decision = page.getByRole('region', { name: /^What to do about step/ });
  await expect(decision).toContainText('app-thermo-log-readers');
  service.renameLocalGroup('fm-temp01', 'Event Log Reader', readers);
  await press(page, button('Try again what failed'));
  await expect(page.locator('main .tag').first()).toHaveText('done');

  // all of it is undone
  await press(page, button('Undo…'));
  await expect(page.getByRole('dialog').getByRole('listitem').first()).toBeVisible();
  await press(page, inDialog(/^Undo these changes$/));
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('undo of thermograph-creamery');
  await expect(page.locator('main .tag').first()).toHaveText('done');

  // and the install goes
  await goTo('thermograph-creamery');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Thermograph temperature monitoring');
  await reach(page, page.getByRole('combobox', { name: 'Stage' }));
  await page.keyboard.type('retiring');
  await press(page, inDialog('It is retiring'));
  await expect(page.getByText('This install is being retired')).toBeVisible();
});
