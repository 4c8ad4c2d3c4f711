import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

/** Two runs at once, as `npm test` starts them, keep apart what they write. */
const part = process.env.JIVET_TEST_PART ?? 'all'
const shared = { setupFiles: ['tests/seed.ts'], testTimeout: 60_000, hookTimeout: 180_000 }

/** Tests of no server and no clock. */
const CALM = [
  'takes',
  'hearing',
  'told',
  'cli',
  'hostile',
  'engine',
  'timebase',
  'cut',
  'gatherOnce',
  'looks',
  'exports',
  'docs',
  'sound',
  'verify',
  'render',
  'purposes',
  'colours',
  'database',
  'parts',
  'bucket',
  'dressing',
  'migration',
  'reel',
  'safekeeping',
  'folder',
  'partly',
  'anyText',
  'keptStore',
  'e2e/companion',
].map((name) => `tests/${name}.test.ts`)

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    reporters: ['default', ['json', { outputFile: `tmp/vitest-${part}.json` }]],
    globalSetup: 'tests/freshCache.ts',
    projects: [
      {
        // Pure code, beside its source: files share a worker, and two run at once.
        extends: true,
        test: {
          ...shared,
          name: 'unit',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
          isolate: false,
          maxWorkers: 2,
          sequence: { groupOrder: 0 },
        },
      },
      {
        // Films, sounds, commands and records, each of which keeps one core busy.
        extends: true,
        test: {
          ...shared,
          name: 'calm',
          include: CALM,
          // Beside servers and browsers these have to wait for their turn.
          testTimeout: 600_000,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        // Servers, databases and browsers, which use both cores themselves: one file at a time has the machine.
        extends: true,
        test: {
          ...shared,
          name: 'whole',
          globalSetup: 'tests/sharedServer.ts',
          include: ['tests/**/*.test.ts'],
          exclude: CALM,
          testTimeout: 120_000,
          fileParallelism: false,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
})
