import type { Browser, Page } from '@playwright/test';
import { large, largeDocuments } from '../tests/large';
import { enter, type Service, test, verifyTwice } from '../tests/service';

/** A slow line: 1.6 Mbit/s, and 150 ms to and fro. */
const slow = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 200_000 };

/** Pages, and what on each says that it can be used. */
const pages: [string, string][] = [
  ['/', 'main table'],
  ['/installs', 'table[aria-label=Installs] tbody tr'],
  ['/installs/thermograph-dataroom?tab=plan', 'table[aria-label^="What"] tbody tr'],
  ['/installs/thermograph-dataroom?tab=matrix', 'table.matrix tbody tr'],
  ['/installs/thermograph-dataroom?tab=worklist', 'table.steps tbody tr'],
  ['/hosts', 'table[aria-label=Hosts] tbody tr'],
  ['/sheets/thermograph@4.2', '.cm-line'],
  ['/log', 'table[aria-label=Log] tbody tr'],
];

/** How long a page takes in a browser that has seen none of it, in milliseconds. */
async function take(
  browser: Browser,
  service: Service,
  path: string,
  sign: string,
  line?: typeof slow,
): Promise<number> {
  const context = await browser.newContext();
  await context.addCookies(service.session ?? []);
  const page = await context.newPage();
  if (line) await (await context.newCDPSession(page)).send('Network.emulateNetworkConditions', line);
  const from = Date.now();
  await page.goto(service.address + path, { waitUntil: 'commit' });
  await page.locator(sign).first().waitFor();
  const took = Date.now() - from;
  await context.close();
  return took;
}

/** How long a page takes from a click on its line in the list of installs, in milliseconds. */
async function takeFromList(browser: Browser, service: Service, install: string, sign: string): Promise<number> {
  const context = await browser.newContext();
  await context.addCookies(service.session ?? []);
  const page = await context.newPage();
  await page.goto(`${service.address}/installs`);
  const link = page.getByRole('link', { name: install, exact: true });
  await link.waitFor();
  await page.waitForLoadState('networkidle');
  const from = Date.now();
  await link.click();
  await page.locator(sign).first().waitFor();
  const took = Date.now() - from;
  await context.close();
  return took;
}

/** The middle of three. */
async function middle(measure: () => Promise<number>): Promise<number> {
  const all = [await measure(), await measure(), await measure()].sort((a, b) => a - b);
  return all[1] ?? 0;
}

async function addLarge(page: Page, service: Service) {
  for (const [kind, data] of Object.entries(largeDocuments))
    await page.request.post(`${service.address}/api/${kind}?file=large.yaml`, {
      data,
      headers: { 'content-type': 'application/yaml' },
    });
  await page.request.post(`${service.address}/api/estates/works/rehearsal`, {
    data: JSON.stringify({ fresh: true, asSurveyed: false, mistakes: [] }),
    headers: { 'content-type': 'application/json' },
  });
}

test('how long pages take on a fast line and on a slow one', async ({ page, browser, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await verifyTwice(page);
  for (const [path, sign] of pages) {
    const fast = await middle(() => take(browser, service, path, sign));
    const far = await middle(() => take(browser, service, path, sign, slow));
    console.log(`${path}: ${fast} ms, on a slow line ${far} ms (${(far / fast).toFixed(1)} times)`);
  }
});

test('how long a matrix of a hundred accounts on two hundred hosts takes, against a small one', async ({
  page,
  browser,
  service,
}) => {
  await enter(page, service);
  await addLarge(page, service);
  await page.goto(`${service.address}/installs/manyvats-works-rehearsal`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.locator('table.matrix tbody tr').first().waitFor();
  const sign = 'table.matrix tbody tr';
  const small = await middle(() => take(browser, service, '/installs/thermograph-dataroom?tab=matrix', sign));
  const wide = await middle(() => take(browser, service, '/installs/manyvats-works-rehearsal?tab=matrix', sign));
  console.log(`${large.accounts} × ${large.hosts}: ${wide} ms, small ${small} ms (${(wide / small).toFixed(1)} times)`);
  const near = await middle(() => takeFromList(browser, service, 'thermograph-dataroom', sign));
  const far = await middle(() => takeFromList(browser, service, 'manyvats-works-rehearsal', sign));
  console.log(`from the list: ${far} ms, small ${near} ms (${(far / near).toFixed(1)} times)`);
});
