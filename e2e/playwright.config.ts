import { defineConfig } from '@playwright/test'
import { launchOptions } from './harness.ts'

const report = process.env.DOGLEG_BROWSER_REPORT

/** How long a press or something to be seen is waited for, ms. */
const PATIENCE_MS = 60_000

/** The real page in Debian's Chromium, against the real built server that each test starts for itself. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  // A test holds what comes, not how soon: a machine that stalls for half a minute is no fault of the page. bench/ holds how soon.
  timeout: 480_000,
  // One that fails is tried once more with a trace kept; scripts/test.mjs names it.
  retries: 1,
  expect: { timeout: PATIENCE_MS, toPass: { timeout: PATIENCE_MS } },
  workers: 2,
  fullyParallel: true,
  outputDir: '../test-results',
  reporter: report ? [['list'], ['json', { outputFile: report }]] : 'list',
  use: {
    actionTimeout: PATIENCE_MS,
    trace: 'on-first-retry',
    launchOptions,
  },
})
