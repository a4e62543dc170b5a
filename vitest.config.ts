import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'tests/cli/*.test.ts', 'tests/docs/*.test.ts'],
          testTimeout: 120_000,
          maxWorkers: 2,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['tests/browser/*.test.ts'],
          // The machine that runs them may be busy with other things.
          testTimeout: 300_000,
          hookTimeout: 120_000,
          expect: { poll: { timeout: 15_000 } },
          fileParallelism: false,
        },
      },
    ],
  },
})
