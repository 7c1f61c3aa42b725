import { expect, test } from '@playwright/test';
import { enter, Service } from '../tests/service';

const folder = new URL('../../docs/screenshots/', import.meta.url).pathname;
const install = 'thermograph-dataroom';

/** Takes the pictures of docs/screenshots anew: npm run pictures, after ./test browser has built everything. */
test('pictures of the console', async ({ page }) => {
  test.setTimeout(600_000);
  const service = await Service.start();
  const take = async (name: string) => {
    await page.mouse.move(1270, 790); // where nothing answers to it
    await page.waitForTimeout(700);
    await page.screenshot({ path: `${folder}${name}.png` });
  };
  await enter(page, service);
  for (const name of ['tallystick-dataroom', install]) {
    await page.goto(`${service.address}/installs/${name}`);
    await page.getByRole('button', { name: 'Verify' }).click();
    await page.getByRole('table', { name: 'Accounts and places' }).waitFor();
  }
  await page.goto(`${service.address}/installs`);
  await page.getByRole('table', { name: 'Installs' }).getByText('thermograph-dataroom').waitFor();
  await take('installs');
  await page.goto(`${service.address}/installs/${install}`);
  await take('matrix');
  await page.goto(`${service.address}/installs/${install}/accounts/archivist`);
  await take('account-paths');
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: 'Verify' }).click(); // the host that restarted answers now
  await page.getByText('does not answer').waitFor({ state: 'detached' });
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).waitFor();
  service.renameLocalGroup('fm-temp02', 'Event Log Readers', 'Event Log Reader'); // so that a step fails
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('link', { name: /^This run/ }).click();
  await page.getByRole('button', { name: 'Retry it' }).waitFor();
  await take('run');
  await page.goto(service.address);
  await page.getByText('A run failed').waitFor();
  await take('start');
  await service.stop();
  const second = await Service.start();
  await enter(page, second);
  await page.goto(`${second.address}/installs/roundsman-dataroom`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await page.getByRole('tab', { name: 'Matrix' }).click();
  await page.getByRole('button', { name: /^missing write roomNumber/ }).click();
  await page.getByRole('link', { name: 'Trace it' }).click();
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await page.getByRole('region', { name: 'Remedy 1-inherit' }).waitFor();
  await take('trace');
  await page.goto(`${second.address}/installs/brinebook-contractors?tab=sign-in`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('table', { name: 'settings' }).waitFor();
  await page.getByRole('progressbar').waitFor({ state: 'detached' });
  await take('sign-in-settings');
  await page.getByRole('textbox', { name: /bind account/ }).fill('simulated-brinebook');
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByRole('table', { name: 'people found and expected' }).waitFor();
  await page.getByRole('region', { name: 'test' }).evaluate((e) => e.scrollIntoView({ block: 'start' }));
  await page.mouse.wheel(0, -60); // the head stays over the page
  await take('sign-in-test');
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.getByRole('button', { name: 'Show whom the people filter finds' }).click();
  await page.getByRole('region', { name: 'found' }).getByText('k.osei').first().waitFor();
  await take('filter');
  await page.emulateMedia({ colorScheme: 'light' });
  for (const name of ['wheyline-lines', 'nightchurn-dataroom']) {
    await page.goto(`${second.address}/installs/${name}`);
    await page.getByRole('button', { name: 'Verify' }).click();
    await page.getByRole('table', { name: 'Accounts and places' }).waitFor();
  }
  await page.goto(`${second.address}/estates/fennmoor/instances/fm-sql03`);
  await page.getByRole('table', { name: 'rights at the instance' }).waitFor();
  await take('instance');
  await page.goto(`${second.address}/estates/fennmoor/hosts/fm-rec01`);
  await page.getByRole('tab', { name: 'Services' }).click();
  await take('host-services');
  await page.goto(`${second.address}/installs/nightchurn-dataroom?tab=handover`);
  await page.getByRole('region', { name: 'host team, fm-night01' }).waitFor();
  await take('handover');
  await page.goto(`${second.address}/installs/curdhouse-books`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('table', { name: 'Accounts and places' }).waitFor();
  await page.goto(`${second.address}/passwords/fennmoor/svc-curd-cards`);
  await page.getByRole('button', { name: /^Begin these/ }).click();
  await page.getByRole('button', { name: 'It is typed' }).waitFor();
  await page.getByRole('main').getByText('waits for a person').waitFor();
  await take('renewal');
  // A right that an exception covers, a review, and then the fit that follows the grant.
  const watched = `${second.address}/installs/quernstone-sql01`;
  await page.goto(`${watched}?tab=review`);
  await page.getByRole('button', { name: /^Accept… svc-quern: sysadmin/ }).click();
  await page.getByLabel('Because').fill('until the next release');
  await page.getByLabel('Until').fill(new Date(Date.now() + 90 * 86_400_000).toISOString().slice(0, 10));
  await page.getByLabel('Allowed by').fill('Maud Ferris');
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await page.getByLabel('Who looked').fill('Jory Lind');
  await page.getByRole('button', { name: 'Record it' }).click();
  await page.getByText('Recorded as review 1').waitFor();
  const sheet = await page.request.get(`${second.address}/api/installs/quernstone-sql01/report?form=html`);
  const paper = await page.context().newPage();
  await paper.setContent(await sheet.text());
  await paper.screenshot({ path: `${folder}review-sheet.png` });
  await paper.close();
  await page.goto(`${second.address}/calendar`);
  await page.getByRole('table', { name: 'Calendar' }).getByText('exception ends').waitFor();
  await take('calendar');
  await page.goto(`${second.address}/installs/tallystick-dataroom?tab=review`);
  await page.getByLabel('Who looked').fill('Jory Lind');
  await page.getByRole('button', { name: 'Record it' }).click();
  await page.getByText('Recorded as review 1').waitFor();
  await page.getByRole('tab', { name: 'Worklist' }).click();
  await page.getByRole('button', { name: /^Grant these/ }).click();
  await page.getByRole('button', { name: /^Make these/ }).click();
  await page.getByRole('button', { name: 'Show what is left' }).click();
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'History' }).click();
  await page.getByRole('figure').getByText('review 1').waitFor();
  await take('history');
  // What is already there, as it is being adopted.
  const begun = await page.request.post(`${second.address}/api/adoptions`, {
    data: {
      name: 'archive-found',
      product: 'archive',
      estate: 'fennmoor',
      release: '1',
      title: 'The archive, as found',
      accounts: ['svc-reports', 'svc-archive'].map((name) => ({ name, worksAs: 'service' })),
    },
  });
  expect(begun.ok()).toBe(true);
  await page.goto(`${second.address}/adoptions/archive-found`);
  await page.getByRole('button', { name: 'Survey the estate' }).click();
  await page.getByLabel('Because').fill("the archive's guide, chapter 3");
  await page.getByRole('combobox', { name: 'Answer all: svc-reports, directly' }).selectOption('needed');
  await page.getByText(/all items are answered|are not answered yet/).waitFor();
  await page.getByRole('progressbar').waitFor({ state: 'detached' });
  await take('adoption');
  await second.stop();
});
