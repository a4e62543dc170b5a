import { defineConfig } from 'vitest/config'

const browser = {
  // One server and one Chromium for all files.
  globalSetup: 'tests/browser/oneBrowser.ts',
  isolate: false,
  // The machine that runs them may be busy with other things.
  testTimeout: 300_000,
  hookTimeout: 120_000,
  // What a busy machine was too late for is tried once more, and named at the end of the run.
  retry: 1,
  expect: { poll: { timeout: 15_000 } },
}

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'tests/cli/*.test.ts', 'tests/docs/*.test.ts'],
          testTimeout: 120_000,
          // Before anything asks for a database.
          setupFiles: ['fake-indexeddb/auto'],
          // What is imported is imported once: it was half of the time.
          isolate: false,
          maxWorkers: 2,
        },
      },
      {
        test: { ...browser, name: 'browser', include: ['tests/browser/*.test.ts'], maxWorkers: 2 },
      },
      {
        // By the real audio clock, so nothing else runs beside them.
        test: {
          ...browser,
          name: 'sound',
          include: ['tests/browser/*.sound.ts'],
          fileParallelism: false,
        },
      },
    ],
  },
})
