// Changes the core at a sample of places, one at a time, and looks whether a test notices: `npm run mutants [room …]`.
import { fork } from 'node:child_process'
import { mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { cpus } from 'node:os'
import { dirname } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { build } from 'esbuild'
import { root, together } from '../steps.mjs'
import { mutantsOf, withMutants } from './mutate.mjs'
import { writeTable } from './table.mjs'

/** Mutants of a room that are tried; all, where it has fewer. */
const SAMPLE = 150
/** A test that takes longer alone says nothing about a single change that shorter ones do not, ms. */
const LONGEST_TEST = 1500
/** Tests of one mutant, ms: the quickest come first. */
const MOST_TIME = 10_000
/** A mutant that takes that much longer than its tests goes round in circles. */
const PATIENCE = { factor: 8, plus: 5000 }

const results = `${root}test-results/mutants/`
const filesIn = (folder) =>
  readdirSync(`${root}${folder}`, { recursive: true })
    .filter((each) => each.endsWith('.ts'))
    .map((each) => `${folder}/${each}`)
const rooms = readdirSync(`${root}core`, { withFileTypes: true })
  .filter((each) => each.isDirectory())
  .map(({ name }) => name)
/** Those that need a browser’s document or the runner’s spies stay with the runner. */
const tests = [...filesIn('tests/unit'), ...filesIn('tests/reference')].filter(
  (file) => file.endsWith('.test.ts') && !/\bvi\b.*from 'vitest'|happy-dom/.test(readFileSync(root + file, 'utf8')),
)

/** A number from 0 to 1 for each call, the same ones for the same room (mulberry32). */
function seeded(text) {
  let state = [...text].reduce((sum, each) => (sum * 31 + each.charCodeAt(0)) | 0, 7)
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

/** By test file, what the first room found to take longer than that: the next rooms need not wait for it. */
const slowTests = new Map()

function sampleOf(room) {
  const random = seeded(room)
  return filesIn(`core/${room}`)
    .flatMap((file) => mutantsOf(readFileSync(root + file, 'utf8'), file).map((each) => ({ ...each, file })))
    .map((each) => ({ each, order: random() }))
    .sort((a, b) => a.order - b.order)
    .slice(0, SAMPLE)
    .map(({ each }, id) => ({ ...each, id }))
}

/** Test files that bring a file of the room along, with its mutants in it. */
async function bundled(room, mutants) {
  const files = new Map()
  for (const each of mutants) files.set(each.file, [...(files.get(each.file) ?? []), each])
  const mutating = {
    name: 'mutants',
    setup({ onLoad }) {
      onLoad({ filter: /\.ts$/ }, ({ path }) => {
        if (path.includes('node_modules')) return null
        const own = files.get(path.slice(root.length)) ?? []
        const contents = withMutants(readFileSync(path, 'utf8'), own)
          .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href))
          .replaceAll('import.meta.dirname', JSON.stringify(dirname(path)))
        return { contents, loader: 'ts' }
      })
    },
  }
  const bundles = []
  await together(
    2,
    tests.map((test) => async () => {
      const bundle = `${results}${room}-${test.replaceAll('/', '-')}.cjs`
      const made = await build({
        entryPoints: [root + test],
        outfile: bundle,
        bundle: true,
        format: 'cjs',
        platform: 'node',
        packages: 'external',
        alias: { '#core': `${root}core`, '#demo': `${root}demo`, '~': `${root}app` },
        plugins: [mutating],
        metafile: true,
        logLevel: 'silent',
      }).catch((error) => error)
      if (made instanceof Error) console.log(`   ${test} stays out: ${made.message.split('\n')[1]}`)
      else if (Object.keys(made.metafile.inputs).some((input) => files.has(input))) bundles.push({ test, bundle })
    }),
  )
  return bundles
}

/** A process that runs tests, and is replaced when it does not come back. */
class Runner {
  child = null

  /** @returns what it says, or null when it was not done in time */
  ask(message, patience) {
    this.child ??= fork(fileURLToPath(new URL('runner.mjs', import.meta.url)), { silent: true, cwd: root })
    const { child } = this
    return new Promise((resolve) => {
      const end = (answer) => {
        clearTimeout(timer)
        child.removeAllListeners()
        if (answer === null) this.stop()
        resolve(answer)
      }
      const timer = setTimeout(() => end(null), patience)
      child.once('message', end)
      child.once('exit', () => {
        this.child = null
        end(null)
      })
      child.send(message)
    })
  }

  stop() {
    this.child?.kill('SIGKILL')
    this.child = null
  }
}

async function tryRoom(room) {
  rmSync(results, { recursive: true, force: true })
  mkdirSync(results, { recursive: true })
  const mutants = sampleOf(room)
  const bundles = await bundled(room, mutants)
  const runners = Array.from({ length: Math.min(2, cpus().length) }, () => new Runner())
  const free = [...runners]
  const withRunner = async (work) => {
    const runner = free.pop()
    const done = await work(runner)
    free.push(runner)
    return done
  }

  const surveys = []
  await together(
    runners.length,
    bundles.map(({ test, bundle }) => async () => {
      const slow = slowTests.get(test) ?? []
      const told = (await withRunner((runner) => runner.ask({ kind: 'survey', bundle, slow }, 600_000)))?.survey
      if (!told || told.trouble) return console.log(`   ${test} stays out: ${told?.trouble ?? 'it did not end'}`)
      for (const { title, trouble } of told.tests) if (trouble) console.log(`   ${test}: ${title}: ${trouble}`)
      const nowSlow = told.tests.filter(({ ms }) => ms > LONGEST_TEST).map(({ title }) => title)
      slowTests.set(test, [...slow, ...nowSlow])
      surveys.push({ bundle, ...told, tests: told.tests.filter(({ trouble }) => !trouble) })
    }),
  )

  const survivors = []
  await together(
    runners.length,
    mutants.map((mutant) => async () => {
      const { files, ms } = coveringTests(mutant.id, surveys)
      const answer = await withRunner((runner) =>
        runner.ask({ kind: 'mutant', id: mutant.id, files }, PATIENCE.factor * ms + PATIENCE.plus),
      )
      if (answer && answer.killedBy === null) survivors.push({ ...mutant, isMet: files.length > 0 })
    }),
  )
  for (const runner of runners) runner.stop()
  return { room, tried: mutants.length, survivors: survivors.sort((a, b) => place(a).localeCompare(place(b))) }
}

const place = ({ file, line }) => `${file}:${String(line).padStart(4)}`

/** The tests that come by a mutant, quickest first, as far as time allows. */
function coveringTests(id, surveys) {
  const covering = surveys
    .flatMap(({ bundle, whileRead, tests: all }) =>
      all
        .filter(({ met, ms }) => ms <= LONGEST_TEST && (whileRead.includes(id) || met.includes(id)))
        .map(({ title, ms }) => ({ bundle, title, ms })),
    )
    .sort((a, b) => a.ms - b.ms)
  const files = new Map()
  let ms = 0
  for (const each of covering) {
    if (ms > MOST_TIME) break
    ms += each.ms
    files.set(each.bundle, [...(files.get(each.bundle) ?? []), each.title])
  }
  return { files: [...files].map(([bundle, titles]) => ({ bundle, titles })), ms }
}

const wanted = process.argv.slice(2)
const scores = []
for (const room of wanted.length > 0 ? wanted : rooms) {
  const from = Date.now()
  const told = await tryRoom(room)
  scores.push(told)
  const killed = told.tried - told.survivors.length
  console.log(
    `\ncore/${room}: ${killed} of ${told.tried} noticed, ${percent(told)} %, ${Math.round((Date.now() - from) / 1000)} s`,
  )
  for (const each of told.survivors)
    console.log(`  ${place(each)}  ${each.what}${each.isMet ? '' : '  (no test comes by)'}`)
}
writeTable(scores)

function percent({ tried, survivors }) {
  return ((100 * (tried - survivors.length)) / tried).toFixed(0)
}
