import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.ts', 'demo/**/*.test.ts', 'tests/**/*.test.ts'],
    setupFiles: ['tests/seed.ts'],
    testTimeout: 60_000,
    hookTimeout: 180_000,
    fileParallelism: false,
    reporters: ['default', ['json', { outputFile: 'tmp/vitest.json' }]],
  },
})
