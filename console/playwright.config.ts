import { defineConfig } from '@playwright/test';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

const tests = join(import.meta.dirname, 'tests');

// Debian's own browser; ./test browser starts the service and says where it is.
export default defineConfig({
  expect: { timeout: 15_000 }, // the first survey of a fresh service, on a machine that is busy
  testDir: 'tests',
  workers: 1,
  // A project for each file: so a file has a worker, and with it a service, that no other file has touched.
  projects: readdirSync(tests)
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => ({ name: file.replace('.spec.ts', ''), testMatch: file })),
  timeout: 30_000,
  reporter: [['list'], ['json', { outputFile: 'test-results/results.json' }]],
  use: {
    baseURL: process.env.JUSTRIGHT_ADDRESS,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
