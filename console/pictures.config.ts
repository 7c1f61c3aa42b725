import { defineConfig } from '@playwright/test';
import tests from './playwright.config';

// One file of its own, not one of the tests' projects.
export default defineConfig({
  ...tests,
  projects: [{ testMatch: 'pictures.spec.ts' }],
  testDir: 'pictures',
  reporter: 'list',
});
