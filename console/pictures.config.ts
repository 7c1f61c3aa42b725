import { defineConfig } from '@playwright/test';
import tests from './playwright.config';

export default defineConfig({ ...tests, testDir: 'pictures', reporter: 'list' });
