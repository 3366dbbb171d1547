import { defineConfig } from 'vitest/config'

// The tests of a room of core, as the mutation run asks for them.
export default defineConfig({
  test: {
    include: (process.env.MUTATE_TESTS ?? 'core/src/**/*.test.ts').split(' '),
    setupFiles: 'core/testing/setup.ts',
    testTimeout: 60_000,
  },
})
