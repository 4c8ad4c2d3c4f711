import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const shared = { setupFiles: ['tests/seed.ts'], testTimeout: 60_000, hookTimeout: 180_000 }

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    reporters: ['default', ['json', { outputFile: 'tmp/vitest.json' }]],
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
        // Films, sounds, databases, the command: each file has its own, and two run at once.
        extends: true,
        test: {
          ...shared,
          name: 'files',
          include: ['tests/*.test.ts'],
          testTimeout: 180_000,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        // Whole servers with a browser before them: one at a time has the machine.
        extends: true,
        test: {
          ...shared,
          name: 'browser',
          include: ['tests/e2e/**/*.test.ts'],
          fileParallelism: false,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
})
