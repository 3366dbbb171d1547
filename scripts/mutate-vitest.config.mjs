import { defineConfig } from 'vitest/config'

// The tests of a room of core, as the mutation run asks for them.
export default defineConfig({
  test: {
    include: (process.env.MUTATE_TESTS ?? 'core/src/**/*.test.ts').split(' '),
    // One start of the room's modules for all its test files: starting them costs more than the tests do.
    isolate: false,
    setupFiles: 'core/testing/setup.ts',
    testTimeout: 60_000,
  },
})
