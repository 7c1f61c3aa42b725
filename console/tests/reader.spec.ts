import { readFileSync } from 'node:fs';
import { everyPage, settled } from './everyPage';
import { enter, expect, test, verifyTwice } from './service';

interface Operation {
  'x-justright-role': string;
}
const description = JSON.parse(readFileSync('../docs/api/openapi.json', 'utf8')) as {
  paths: Record<string, Record<string, Operation>>;
};

/** What calls need more than a reader, by method and path. */
const beyond = Object.entries(description.paths).flatMap(([path, methods]) =>
  Object.entries(methods)
    .filter(([, call]) => call['x-justright-role'] !== 'reader' && call['x-justright-role'] !== 'anybody')
    .map(([method]) => ({
      method: method.toUpperCase(),
      path: new RegExp(`^${path.replace(/\{[^}]+\}/g, '[^/]+')}$`),
      text: path,
    })),
);

test('a reader sees every page, and no button of any of them asks for what a reader may not', async ({
  page,
  browser,
  service,
}) => {
  test.setTimeout(600_000);
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  await verifyTwice(page);
  const made = await page.request.post(`${service.address}/api/tokens`, {
    data: JSON.stringify({ name: 'auditor', role: 'reader', days: 1 }),
    headers: { 'content-type': 'application/json' },
  });
  const { token } = (await made.json()) as { token: string };
  const context = await browser.newContext({ extraHTTPHeaders: { authorization: `Bearer ${token}` } });
  const reader = await context.newPage();
  const asked: string[] = [];
  let at = '';
  reader.on('request', (request) => {
    const path = decodeURIComponent(new URL(request.url()).pathname);
    const call = beyond.find((c) => c.method === request.method() && c.path.test(path));
    if (call) asked.push(`${at}: ${call.method} ${call.text}`);
  });

  let pressed = 0;
  for (const path of everyPage) {
    at = path;
    await reader.goto(service.address + path);
    await settled(reader);
    await expect(reader.getByRole('heading', { level: 1 }).first(), path).not.toHaveText('No such page');
    const buttons = reader.locator('main button:enabled:not([role=tab]):not(.chip):not([aria-label^=Copy])');
    const count = Math.min(await buttons.count(), 25);
    for (let i = 0; i < count; i++) {
      const button = buttons.nth(i);
      at = `${path}, ${(await button.textContent({ timeout: 2000 }).catch(() => null)) ?? 'a button'}`;
      if (!(await button.isVisible())) continue;
      await button.click({ timeout: 2000, noWaitAfter: true }).catch(() => undefined); // below something: not to be pressed
      pressed++;
      await reader.keyboard.press('Escape');
      if (reader.url() !== service.address + path) {
        await reader.goto(service.address + path);
        await settled(reader);
      }
    }
  }
  expect(asked).toEqual([]);
  expect(pressed).toBeGreaterThan(50);
  await context.close();
});
