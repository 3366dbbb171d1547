import { defineConfig } from '@playwright/test'
import { launchOptions } from './harness.ts'

const report = process.env.DOGLEG_BROWSER_REPORT

/** The real page in Debian's Chromium, against the real built server that each test starts for itself. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  timeout: 120_000,
  // One that fails is tried once more with a trace kept; scripts/test.mjs names it.
  retries: 1,
  expect: { timeout: 15_000 },
  workers: 2,
  fullyParallel: true,
  outputDir: '../test-results',
  reporter: report ? [['list'], ['json', { outputFile: report }]] : 'list',
  use: {
    trace: 'on-first-retry',
    launchOptions,
  },
})
