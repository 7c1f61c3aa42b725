import { faults } from './accessibility';
import { large, largeDocuments } from './large';
import { enter, expect, test } from './service';

const install = 'manyvats-works-rehearsal';
/** Of each account that it is there, and two rights on each host. */
const rights = large.accounts * (1 + 2 * large.hosts);

test.describe.configure({ mode: 'serial' });

test('a hundred accounts on two hundred hosts: a line for alike rights, and no more rows than are in sight', async ({
  page,
  service,
}) => {
  test.setTimeout(300_000);
  await enter(page, service);
  for (const [kind, text] of Object.entries(largeDocuments)) {
    const added = await page.request.post(`${service.address}/api/${kind}?file=large.yaml`, {
      data: text,
      headers: { 'content-type': 'application/yaml' },
    });
    expect(await added.text()).not.toContain('"faults":[{');
    expect(added.ok()).toBe(true);
  }
  const laid = await page.request.post(`${service.address}/api/estates/works/rehearsal`, {
    data: JSON.stringify({ fresh: true, asSurveyed: false, mistakes: [] }),
    headers: { 'content-type': 'application/json' },
  });
  expect(laid.ok(), await laid.text()).toBe(true);
  await page.goto(`${service.address}/installs/${install}`);
  await page.getByRole('button', { name: 'Verify' }).click();
  await expect(page.getByText(`${rights} rights`)).toBeVisible({ timeout: 200_000 });

  const matrix = page.getByRole('table', { name: 'Accounts and places' });
  await expect(matrix).toHaveAttribute('aria-rowcount', `${large.accounts + 1}`);
  expect(await matrix.locator('tbody th').count()).toBeLessThan(30);
  await expect(
    matrix.getByRole('button', { name: /^missing log on as a service · missing 200 times/ }).first(),
  ).toBeVisible();
  expect(await faults(page)).toEqual([]);
});

test('it scrolls to its end without gaps, and the head stays', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}?tab=matrix`);
  const matrix = page.getByRole('table', { name: 'Accounts and places' });
  await expect(matrix).toBeVisible();
  const frame = page.locator('.matrix-frame');
  const seen = new Set<string>();
  for (let i = 0; i < 400; i++) {
    const { names, end, gap, at } = await frame.evaluate((element) => {
      const box = element.getBoundingClientRect();
      const head = element.querySelector('thead th')?.getBoundingClientRect().bottom ?? 0;
      const rows = [...element.querySelectorAll('tbody tr[data-index]')].map((r) => r.getBoundingClientRect());
      const inSight = rows.filter((r) => r.bottom > head && r.top < box.bottom);
      const atEnd = element.scrollTop + element.clientHeight >= element.scrollHeight - 1;
      return {
        names: [...element.querySelectorAll('tbody th a')].map((a) => a.textContent ?? ''),
        end: atEnd,
        at: `${element.scrollTop} of ${element.scrollHeight}, head to ${head}, rows ${inSight[0]?.top} to ${inSight.at(-1)?.bottom}, frame to ${box.bottom}`,
        // what is in sight is filled from the head to the bottom
        gap: (inSight[0]?.top ?? 9999) > head + 1 || (!atEnd && (inSight.at(-1)?.bottom ?? 0) < box.bottom - 1),
      };
    });
    names.forEach((name) => seen.add(name));
    expect(gap, at).toBe(false);
    if (end) break;
    await frame.evaluate((element) => element.scrollBy(0, element.clientHeight * 0.8));
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  }
  expect(seen.size).toBe(large.accounts);
});

test('what is off is found by words, and opened place by place', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/${install}?tab=matrix`);
  await page.getByRole('textbox', { name: 'Filter the matrix' }).fill('fw-node007');
  await expect(page.getByText(`${2 * large.accounts} of ${rights} rights`)).toBeVisible();
  await page.getByRole('textbox', { name: 'Filter the matrix' }).fill('vat042');
  await expect(page.getByRole('table', { name: 'Accounts and places' }).locator('tbody th')).toHaveCount(1);
  await page.getByRole('button', { name: /^missing log on as a service · missing 200 times/ }).click();
  await expect(page.getByRole('button', { name: /^missing log on as a service on fw-node/ })).toHaveCount(large.hosts);
});
