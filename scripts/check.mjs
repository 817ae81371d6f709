// The loop at the desk: types, lint and the tests that a change concerns. What has not changed is remembered from the last time.
import { root, runQuietly, together } from './steps.mjs'

const kept = `${root}node_modules/.cache/check`
const types = (name, project) =>
  step(`Types: ${name}`, 'vue-tsc', '-p', project, '--noEmit', '--incremental', '--tsBuildInfoFile', `${kept}/${name}`)
let failed = 0

function step(words, ...command) {
  return async () => {
    const { code, printed } = await runQuietly('npx', command)
    console.log(`${code === 0 ? 'ok' : 'FAILED'}  ${words}`)
    if (code === 0) return
    failed++
    process.stdout.write(printed)
  }
}

await together(2, [
  types('tests', 'tests'),
  step('Tests of what changed', 'vitest', 'run', '--changed', '--exclude', 'tests/http/**'),
  types('app', '.nuxt/tsconfig.app.json'),
  types('core', 'core'),
  step('Lint', 'eslint', '.', '--max-warnings', '0', '--cache', '--cache-location', `${kept}/eslint`),
  step('Format', 'prettier', '--check', '.', '--cache', '--cache-location', `${kept}/prettier`),
])
process.exit(failed === 0 ? 0 : 1)
