import exceljs from 'exceljs';
import ICAL from 'ical.js';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { calculateJwkThumbprint, flattenedVerify, importSPKI } from 'jose';
import { enter, expect, test } from './service';

/** What must be there. */
function there<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Error('It is not there.');
  return value;
}

/** Files that leave the organization, read by programs that know nothing of us. */
test('workbook, calendar and evidence are read by others', async ({ page, service }) => {
  await enter(page, service);
  await page.goto(`${service.address}/installs/thermograph-dataroom`);
  // The first stream of the job is refused, as by a service that is out of breath: the page asks for another.
  await page.route('**/api/jobs/*/events', (route) => route.fulfill({ status: 500 }), { times: 1 });
  await page.getByRole('button', { name: 'Verify' }).click();
  await page.getByRole('tab', { name: 'Review' }).click();
  const save = async (name: string) => {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name }).click()]);
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
  };

  const workbook = new exceljs.Workbook();
  const saved = await save('Workbook');
  expect(saved.name).toBe('thermograph-dataroom.xlsx');
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  await workbook.xlsx.load(saved.bytes as any); // its types are of an older Node.js
  expect(workbook.worksheets.map((s) => s.name)).toEqual(['Matrix', 'Rights', 'Exceptions', 'Reviews', 'About']);
  const rights = there(workbook.getWorksheet('Rights'));
  expect(rights.autoFilter).toBe(`A1:K${rights.rowCount}`);
  expect(rights.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
  const rows = rights.getRows(2, rights.rowCount - 1) ?? [];
  const verdicts = new Map(rows.map((r) => [r.getCell(5).text, r.getCell(5).fill]));
  expect([...verdicts.keys()].sort()).toEqual(['excess', 'forbidden', 'met', 'missing', 'pending', 'unseen']);
  expect(new Set([...verdicts.values()].map((f) => JSON.stringify(f))).size).toBe(verdicts.size); // each verdict has a style of its own
  expect(rows.some((r) => r.getCell(3).text === 'Domain Admins' && r.getCell(5).text === 'forbidden')).toBe(true);
  const matrix = there(workbook.getWorksheet('Matrix'));
  expect(matrix.views[0]).toMatchObject({ state: 'frozen', xSplit: 1, ySplit: 1 });

  const evidence = await save('Signed evidence');
  const answer = await page.request.get(`${service.address}/api/evidence-key`);
  const told = (await answer.json()) as { thumbprint: string; pem: string };
  const jws = JSON.parse(evidence.bytes.toString()) as { payload: string; protected: string; signature: string };
  const checked = await flattenedVerify(jws, await importSPKI(told.pem, 'RS256'));
  expect(checked.protectedHeader).toMatchObject({ alg: 'RS256', kid: told.thumbprint });
  expect(await calculateJwkThumbprint(there(checked.protectedHeader?.jwk))).toBe(told.thumbprint);
  const body = JSON.parse(Buffer.from(checked.payload).toString()) as {
    simulated: boolean;
    fit: { counts: { words: string } };
    documents: { kind: string; text: string; sha256: string }[];
    survey: object;
  };
  expect(body.simulated).toBe(true);
  expect(body.documents.map((d) => d.kind)).toEqual(['sheet', 'estate', 'install']);
  for (const d of body.documents) expect(createHash('sha256').update(d.text).digest('hex')).toBe(d.sha256);
  await expect(page.getByText(body.fit.counts.words).first()).toBeVisible();
  const forged = Buffer.from(Buffer.from(jws.payload, 'base64url').toString().replace('forbidden', 'met')).toString(
    'base64url',
  );
  await expect(flattenedVerify({ ...jws, payload: forged }, await importSPKI(told.pem, 'RS256'))).rejects.toThrow();

  await page.getByRole('link', { name: 'Calendar' }).click();
  const calendar = ICAL.Component.fromString((await save('Save for my calendar')).bytes.toString());
  const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  const reader = there(events.find((e) => e.summary === 'svc-curd-cards: password due'));
  expect(reader.uid).toBe('password/svc-curd-cards@fennmoor.justright');
  expect(reader.startDate.toJSDate().toISOString()).toBe('2027-01-05T09:20:00.000Z');
  expect(reader.description).toContain('justright password renew fennmoor svc-curd-cards');
  const trigger = there(reader.component.getFirstSubcomponent('valarm')).getFirstPropertyValue(
    'trigger',
  ) as ICAL.Duration;
  expect(trigger.toSeconds()).toBe(-45 * 86_400);
});
