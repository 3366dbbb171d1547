import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const thorough = process.env.DOGLEG_THOROUGH === '1'
/** Long for a machine that is busy; a thorough run tries a property ten times as often and more. */
const testTimeout = thorough ? 1_200_000 : 30_000
/** What a file needs before its first test is made beside everything else, too: a server with its demo, say. */
const hookTimeout = testTimeout
/** How many cases a property is tried with. */
const setupFiles = 'core/testing/setup.ts'

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        // Pure computation: its modules hold no state, so the files of a worker share them.
        test: {
          name: 'core',
          include: ['core/src/**/*.test.ts'],
          isolate: false,
          setupFiles,
          testTimeout,
          hookTimeout,
        },
      },
      {
        test: {
          name: 'server',
          isolate: false,
          include: ['server/src/**/*.test.ts', 'scripts/*.test.mjs'],
          exclude: ['scripts/budgets.test.mjs'],
          globalSetup: 'server/src/testing/built-server.mjs',
          testTimeout,
          hookTimeout,
        },
      },
      {
        test: {
          name: 'budgets',
          include: ['scripts/budgets.test.mjs'],
          globalSetup: 'scripts/built-page.mjs',
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/src/**/*.test.ts'],
          isolate: false,
          setupFiles,
          testTimeout,
          hookTimeout,
        },
      },
      {
        // Hooks and components, in a made-up browser; what needs a real one is in e2e/.
        test: {
          name: 'page',
          include: ['web/src/**/*.test.tsx'],
          environment: 'happy-dom',
          // Files of a worker share their modules: one store in all of them, whichever file is first.
          alias: {
            'idb-keyval': fileURLToPath(new URL('./web/src/testing/tablet-store.ts', import.meta.url)),
          },
          isolate: false,
          setupFiles: [setupFiles, 'web/src/testing/setup.ts'],
          testTimeout,
          hookTimeout,
        },
      },
    ],
  },
})
