// Everything that has to hold, from lint to the browser. The last line counts it honestly.
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { build, chromium, install, prepare, root, run, runQuietly, together } from './steps.mjs'

const results = `${root}test-results`
const tally = { passed: 0, failed: 0 }
const count = (passed, failed) => {
  tally.passed += passed
  tally.failed += failed
}
const title = (words) => console.log(`\n── ${words}`)

/** A check whose output is shown when it is over, so that those that run together do not mix. */
const check =
  (words, command, ...args) =>
  async () => {
    const { code, printed } = await runQuietly(command, args)
    title(words)
    process.stdout.write(printed)
    console.log(code === 0 ? 'ok' : 'FAILED')
    count(code === 0 ? 1 : 0, code === 0 ? 0 : 1)
  }

/** A runner's own counts; a runner that broke before it could count is one failure. */
function countReport(file, read) {
  try {
    const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')))
    count(passed, failed)
  } catch (error) {
    console.error(`No readable report in ${file}: ${error.message}`)
    count(0, 1)
  }
}

title('Set-up')
await install()
const CHROMIUM = await chromium()
await prepare()
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })

const parts = ['core', 'app', 'server', 'demo', 'tests']
await together(2, [
  check('Lint', 'npx', 'eslint', '.', '--max-warnings', '0'),
  check('Format', 'npx', 'prettier', '--check', '--log-level', 'warn', '.'),
  check('Types', 'npx', 'nuxt', 'typecheck'),
  check('Types of the core, without the DOM', 'npx', 'tsc', '-p', 'core'),
  check('Types of the tests', 'npx', 'vue-tsc', '-p', 'tests'),
  check('Import directions and cycles', 'npx', 'depcruise', ...parts, '--config', '.dependency-cruiser.cjs'),
  check('Unused files, exports and packages', 'npx', 'knip'),
  check('Pages of docs made from the core', 'node', 'scripts/pages.mjs', '--check'),
  check('Schemas of the answers made from their types', 'node', 'scripts/contract.mjs', '--check'),
])

title('Build')
if ((await build()) === 0) {
  title('Unit, reference and HTTP tests')
  const vitest = await run('npx', [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${results}/vitest.json`,
  ])
  countReport(`${results}/vitest.json`, (report) => ({
    passed: report.numPassedTests,
    failed: Math.max(report.numFailedTests, vitest === 0 ? 0 : 1),
  }))

  title('Browser tests')
  const env = { ...process.env, CHROMIUM, PLAYWRIGHT_JSON_OUTPUT_NAME: `${results}/browser.json` }
  const browser = await run('npx', ['playwright', 'test', '--reporter=list,json'], { env })
  countReport(`${results}/browser.json`, ({ stats }) => {
    // The runner names them: a browser that hung is told from a program that fails, but not in silence.
    if (stats.flaky > 0) console.log(`${stats.flaky} of the browser tests passed only when they were tried again`)
    return { passed: stats.expected + stats.flaky, failed: Math.max(stats.unexpected, browser === 0 ? 0 : 1) }
  })
} else {
  console.log('FAILED: nothing could be run against it')
  count(0, 1)
}

console.log(`\n${tally.passed} passed, ${tally.failed} failed`)
process.exit(tally.failed === 0 ? 0 : 1)
