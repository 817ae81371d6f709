import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  resolve: { alias: { '#core': here('./core'), '#demo': here('./demo'), '~': here('./app') } },
  test: { include: ['tests/{unit,reference,http}/**/*.test.ts'], testTimeout: 60_000, maxWorkers: '100%' },
})
