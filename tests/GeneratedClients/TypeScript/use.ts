// Uses a running service through a client that was generated from the description of its API.
// Arguments: the service's address, the code of a sign-in link, the folder of the demo's documents.
import { readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { createClient } from '../../../.build/generated/typescript/client';
import * as api from '../../../.build/generated/typescript/sdk.gen';
import type { DocumentOrder, JudgementView } from '../../../.build/generated/typescript/types.gen';

const install = { name: 'thermograph-dataroom' };
const [address, code, demo] = process.argv.slice(2) as [string, string, string];

const document = (file: string): DocumentOrder => ({
  file: basename(file),
  text: readFileSync(join(demo, file), 'utf8'),
});

function holds(it: boolean, what: string) {
  if (!it) throw new Error(`It does not hold: ${what}.`);
  console.log(`holds: ${what}`);
}

async function main() {
  const anybody = createClient({ baseUrl: address });
  const refused = await api.whoAmI({ client: anybody });
  holds(refused.error?.type === 'urn:justright:sign-in', 'who is not signed in is refused');

  const claimed = await api.claimToken({ client: anybody, body: { code, name: 'a generated client' }, throwOnError: true });
  const client = createClient({ baseUrl: address, auth: claimed.data.token, throwOnError: true });
  const me = await api.whoAmI({ client, throwOnError: true });
  holds(me.data.role === 'owner' && !!me.data.release, 'who one is');

  await api.addSheet({ client, body: document('sheets/thermograph.yaml'), throwOnError: true });
  await api.addEstate({ client, body: document('estates/fennmoor.yaml'), throwOnError: true });
  await api.addInstall({ client, body: document('installs/thermograph-dataroom.yaml'), throwOnError: true });
  const spoilt = document('sheets/thermograph.yaml');
  spoilt.text = spoilt.text.replace('works-as: job', 'works-as: jog');
  const faulty = await api.checkSheet({ client, body: spoilt, throwOnError: false });
  const fault = faulty.error?.faults?.[0];
  holds(fault?.file === 'thermograph.yaml' && fault.nearest === 'job', 'a fault says where, and what was meant');

  let { data: job } = await api.verify({ client, path: install, throwOnError: true });
  while (job.state === 'queued' || job.state === 'running') {
    await new Promise((wake) => setTimeout(wake, 100));
    ({ data: job } = await api.showJob({ client, path: { id: job.id }, throwOnError: true }));
  }
  holds(job.state === 'done', `the install is verified: ${job.message}`);
  const { data: fit } = await api.showFit({ client, path: install, throwOnError: true });
  const missing: JudgementView['verdict'] = 'missing';
  const listed = fit.accounts.flatMap((a) => a.rights).filter((r) => r.verdict === missing).length;
  holds(listed === fit.counts.missing, 'verdicts are counted as they are listed');

  const { data: handovers } = await api.listHandovers({ client, path: install, throwOnError: true });
  const bundle = await api.showHandover({
    client,
    path: { ...install, folder: handovers[0]!.folder },
    query: { form: 'zip' },
    throwOnError: true,
  });
  const head = new Uint8Array(await (bundle.data as Blob).arrayBuffer()).slice(0, 2);
  holds(String.fromCharCode(...head) === 'PK', 'a bundle is bytes');
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
