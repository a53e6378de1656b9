import { defineConfig } from '@playwright/test';
import tests from './playwright.config.ts';

/** Takes the pictures of docs/screenshots; `npm run screenshots` starts the server for it. */
export default defineConfig({
  ...tests,
  testMatch: 'screenshots.shots.ts',
  workers: 1,
  reporter: 'line',
});
