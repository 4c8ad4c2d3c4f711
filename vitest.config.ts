import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const shared = { setupFiles: ['tests/seed.ts'], testTimeout: 60_000, hookTimeout: 180_000 }

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    reporters: ['default', ['json', { outputFile: 'tmp/vitest.json' }]],
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
        // Servers, databases, browsers and films, which use both cores themselves: one file at a time has the machine.
        extends: true,
        test: {
          ...shared,
          name: 'whole',
          include: ['tests/**/*.test.ts'],
          testTimeout: 120_000,
          fileParallelism: false,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
})
