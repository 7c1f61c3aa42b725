import { readdirSync } from 'node:fs';
import { request as ask } from 'node:http';
import { join } from 'node:path';
import { enter, expect, test } from './service';

/** What the first page may take of script as it is sent, in bytes. */
const most = 200_000;

test('the first page takes at most 200 kB of script', async ({ page, service }) => {
  await enter(page, service);
  const fresh = await page.context().browser()?.newContext();
  await fresh?.addCookies(service.session ?? []);
  const first = await fresh?.newPage();
  if (!first) throw new Error('There is no browser.');
  const sizes: Promise<number>[] = [];
  first.on('requestfinished', (asked) => {
    if (asked.resourceType() === 'script') sizes.push(asked.sizes().then((s) => s.responseBodySize));
  });
  await first.goto(service.address);
  await first.getByRole('heading', { name: 'What needs you' }).waitFor();
  await first.waitForLoadState('networkidle');
  const sum = (await Promise.all(sizes)).reduce((all, size) => all + size, 0);
  expect(sum).toBeGreaterThan(50_000); // else it is not what is sent
  expect(sum).toBeLessThanOrEqual(most);
  await fresh?.close();
});

test('a file is sent packed in the way that whoever asks takes it', async ({ service }) => {
  const name = readdirSync(join(import.meta.dirname, '..', 'dist', 'assets')).find((f) => f.startsWith('InstallPage-'));
  for (const [taken, coding] of [
    ['gzip, deflate, br, zstd', 'br'],
    ['gzip', 'gzip'],
    ['br;q=0, gzip', 'gzip'],
    ['identity', undefined],
  ]) {
    const headers = await new Promise<Record<string, unknown>>((done, fail) =>
      ask(`${service.address}/assets/${name}`, { headers: { 'accept-encoding': taken } }, (answer) => {
        answer.resume();
        done({ status: answer.statusCode, ...answer.headers });
      })
        .on('error', fail)
        .end(),
    );
    expect(headers).toMatchObject({ status: 200, vary: 'Accept-Encoding' });
    expect(headers['content-encoding'], taken).toBe(coding);
    expect(headers['content-type'], taken).toMatch(/^text\/(javascript|css)$/);
    expect(headers['cache-control'], taken).toContain('immutable');
  }
});
