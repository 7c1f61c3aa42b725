import { type Cookie, expect, type Page, test as base } from '@playwright/test';
import { type ChildProcess, spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, join, resolve } from 'node:path';

const top = resolve(import.meta.dirname, '..', '..');

/** Below those that the system gives to whoever asks for any, and below those of the other tests. */
const firstPort = 12_000;

/** A port that nobody listens on; workers that run side by side begin at different ones. */
async function freePort(): Promise<number> {
  for (let port = firstPort + (process.pid % 2_000); ; port++) {
    const probe = createServer();
    const free = await new Promise<boolean>((done) => {
      probe.once('error', () => done(false));
      probe.listen(port, '127.0.0.1', () => done(true));
    });
    if (!free) continue;
    await new Promise((done) => probe.close(done));
    return port;
  }
}

/** The built service with the Fennmoor demo, on a port of its own. */
export class Service {
  private constructor(
    readonly address: string,
    private readonly process: ChildProcess,
    private readonly data: string,
    private readonly links: string[],
  ) {}

  static async start(...more: string[]): Promise<Service> {
    const data = mkdtempSync(join(tmpdir(), 'justright-browser-'));
    const address = `http://127.0.0.1:${await freePort()}`;
    const settings = ['--urls', address, '--JustRight:Data', data, '--JustRight:Console', join(top, 'console', 'dist')];
    settings.push('--JustRight:Outbound:Allow:0', '127.0.0.0/8');
    const child = spawn('dotnet', [
      join(top, '.build/service/JustRight.Service.dll'),
      ...settings,
      '--JustRight:SignInLinks',
      '5',
      ...more,
    ]);
    const links = await new Promise<string[]>((done, fail) => {
      let text = '';
      child.stdout.on('data', (chunk: Buffer) => {
        text += chunk.toString();
        const found = [...text.matchAll(/^One-time.*: (\S+)$/gm)].map((m) => m[1] ?? '');
        if (found.length === 5) done(found);
      });
      child.on('exit', () => fail(new Error(`The service ended: ${text}`)));
    });
    const service = new Service(address, child, data, links);
    await service.addDemo();
    return service;
  }

  /** The cookies of whoever signed in first. */
  session: Cookie[] | null = null;

  /** A sign-in link that was not used yet. */
  link(): string {
    const link = this.links.shift();
    if (!link) throw new Error('All sign-in links are used up.');
    return link;
  }

  /** Gives a local group of a host of the simulation another name, behind the service's back. */
  renameLocalGroup(host: string, from: string, to: string) {
    const file = join(this.data, 'simulation', 'fennmoor.json');
    const state = JSON.parse(readFileSync(file, 'utf8')) as {
      hosts: { name: string; localGroups: { name: string }[] }[];
    };
    const group = state.hosts.find((h) => h.name === host)?.localGroups.find((g) => g.name === from);
    if (!group) throw new Error(`There is no ${from} on ${host}.`);
    group.name = to;
    writeFileSync(file, JSON.stringify(state));
  }

  async stop() {
    this.process.removeAllListeners('exit');
    const ended = new Promise((done) => this.process.once('exit', done));
    this.process.kill('SIGTERM');
    if (this.process.exitCode === null) await ended; // it writes into its data folder until then
    // The log tells why a call failed, after the test is over.
    cpSync(join(this.data, 'logs'), join(top, '.build/browser-logs', basename(this.data)), { recursive: true });
    rmSync(this.data, { recursive: true, force: true });
  }

  private async addDemo() {
    const send = (path: string, body: string, type: string, token?: string) =>
      fetch(`${this.address}/api/${path}`, {
        method: 'POST',
        body,
        headers: { 'content-type': type, ...(token ? { authorization: `Bearer ${token}` } : {}) },
      });
    const code = this.link().split('#')[1] ?? '';
    const claim = await send('tokens/claim', JSON.stringify({ code, name: 'browser tests' }), 'application/json');
    const { token } = (await claim.json()) as { token: string };
    for (const kind of ['sheets', 'estates', 'installs']) {
      const folder = join(top, 'demo-data', kind);
      for (const file of readdirSync(folder).sort()) {
        const answer = await send(
          `${kind}?file=${file}`,
          readFileSync(join(folder, file), 'utf8'),
          'application/yaml',
          token,
        );
        if (!answer.ok) throw new Error(`${file}: ${await answer.text()}`);
      }
    }
  }
}

/** Signs in with a link, or goes on with the session that began so, and goes to the installs. */
export async function enter(page: Page, service: Service) {
  if (service.session) await page.context().addCookies(service.session);
  else {
    await page.goto(service.link());
    await page.getByRole('heading', { name: 'What needs you' }).waitFor();
    service.session = await page.context().cookies();
  }

  await page.goto(`${service.address}/installs`);
}

/** Verifies the install that is shown until all of it was read: a host that restarts answers later. */
export async function verifyTwice(page: Page) {
  const verify = page.getByRole('button', { name: 'Verify' });
  for (let i = 0; i < 2; i++) {
    await verify.click();
    await page.getByText('surveyed').waitFor();
    await expect(verify).toBeEnabled();
  }
}

/** Tests with a service of their own, shared by the tests of one file. */
export const test = base.extend<object, { service: Service }>({
  service: [
    async ({}, use) => {
      const service = await Service.start();
      await use(service);
      await service.stop();
    },
    { scope: 'worker', timeout: 300_000 },
  ],
});

export { expect };
