import { defineConfig } from '@playwright/test';
import tests from './playwright.config';

// How long pages take, as figures and ratios of one run; nothing here is asserted.
export default defineConfig({
  ...tests,
  projects: [{ testMatch: 'pages.spec.ts' }],
  testDir: 'measure',
  reporter: 'list',
  workers: 1,
});
