import { defineConfig } from '@playwright/test';

// Debian's own browser; ./test browser starts the service and says where it is.
export default defineConfig({
  testDir: 'tests',
  workers: 1,
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
