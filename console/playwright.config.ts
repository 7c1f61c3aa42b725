import { defineConfig } from '@playwright/test';
import { readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';

const tests = join(import.meta.dirname, 'tests');

// Debian's own browser; ./test browser starts the service and says where it is.
export default defineConfig({
  // Bounds for what hangs: on a machine that is only busy they are not reached.
  expect: { timeout: 120_000 },
  timeout: 300_000,
  testDir: 'tests',
  workers: Math.max(2, availableParallelism()),
  // A project for each file: so a file has a worker, and with it a service, that no other file has touched.
  projects: readdirSync(tests)
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => ({ name: file.replace('.spec.ts', ''), testMatch: file })),
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
