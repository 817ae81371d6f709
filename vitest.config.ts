import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '#core': here('./core'), '#demo': here('./demo'), '~': here('./app') } },
  test: {
    include: ['tests/{unit,reference,http}/**/*.test.ts'],
    testTimeout: 300_000,
    maxWorkers: '100%',
    // Modules are read once for all files of a worker, which takes a quarter less time: no test changes the state of one.
    isolate: false,
  },
})
