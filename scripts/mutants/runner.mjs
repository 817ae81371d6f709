// Runs bundled test files in a process of its own, which may be stopped when a mutant goes round in circles.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { Script } from 'node:vm'
import { collector } from './shim.mjs'

const require = createRequire(import.meta.url)
const scripts = new Map()

/** Reads a bundle's modules anew, so that what is made as they are read is made by the mutant, and gives its tests. */
function testsOf(bundle, isAtWork) {
  if (!scripts.has(bundle)) {
    const code = `(function (require, module, exports, __mutant) {${readFileSync(bundle, 'utf8')}\n})`
    scripts.set(bundle, new Script(code, { filename: bundle }))
  }
  const { module, tests } = collector()
  const own = { exports: {} }
  const load = (name) => (name === 'vitest' ? module : require(name))
  scripts.get(bundle).runInThisContext()(load, own, own.exports, isAtWork)
  return tests
}

/** All tests of a file as they stand, but for those known to be slow: whether they pass, how long they take, which mutants they come by. */
async function survey(bundle, slow) {
  let met = new Set()
  const meets = (id) => {
    met.add(id)
    return false
  }
  const tests = testsOf(bundle, meets)
  const whileRead = [...met]
  const told = []
  for (const { title, run } of tests) {
    if (slow.includes(title)) continue
    met = new Set()
    const from = performance.now()
    const trouble = await attempt(run)
    told.push({ title, ms: performance.now() - from, trouble, met: [...met] })
  }
  return { whileRead, tests: told }
}

/** @returns the title of the first test that notices, or null */
async function tryMutant(id, files) {
  for (const { bundle, titles } of files) {
    const wanted = new Set(titles)
    let tests
    try {
      tests = testsOf(bundle, (each) => each === id)
    } catch (error) {
      return `as it is read: ${error.message}`
    }
    const byTitle = new Map(tests.map((each) => [each.title, each]))
    for (const title of wanted) {
      const test = byTitle.get(title)
      if (!test || (await attempt(test.run))) return title
    }
  }
  return null
}

async function attempt(run) {
  try {
    await run()
    return null
  } catch (error) {
    return String(error?.message ?? error)
  }
}

process.on('message', async ({ kind, bundle, slow, id, files }) => {
  process.send(kind === 'survey' ? { survey: await surveyed(bundle, slow) } : { killedBy: await tryMutant(id, files) })
})
// A mutant may break what nobody waits for; the test that rests on it tells.
process.on('unhandledRejection', () => undefined)
process.on('uncaughtException', () => undefined)

async function surveyed(bundle, slow) {
  try {
    return await survey(bundle, slow)
  } catch (error) {
    return { whileRead: [], tests: [], trouble: error.message }
  }
}
