import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './browser.ts';

/** Runs against servers that `npm test` has started: LAUTA_URL with the demo, LAUTA_EMPTY_URL as a new installation. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  timeout: 240_000,
  expect: { timeout: 20_000 },
  workers: 2,
  forbidOnly: true,
  reporter: [['line'], ['json']],
  use: {
    baseURL: process.env['LAUTA_URL'] ?? 'http://127.0.0.1:4310',
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: CHROMIUM },
    trace: 'off',
    screenshot: 'only-on-failure',
    actionTimeout: 30_000,
  },
});
