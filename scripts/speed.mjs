// Speed, measured; the bounds are those of docs/architecture.md. Needs a build for the last two lines.
import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { Bench } from 'tinybench'
import { build as viteBuild } from 'vite'
import { benchLarge } from './speed-large.mjs'
import { benchRelay } from './relay-load.mjs'
import { benchLevels, makeRecording } from './speed-levels.mjs'
import { built, chromium, root, serve } from './steps.mjs'

// Built as the product is: bundled, so that what is measured is what runs.
const folder = `${root}.cache/bench`
const bundle = (entry, name) =>
  viteBuild({
    root,
    configFile: false,
    logLevel: 'error',
    resolve: { alias: { '#core': `${root}core`, '#demo': `${root}demo` } },
    build: {
      outDir: folder,
      emptyOutDir: false,
      lib: { entry: `${root}tests/speed/${entry}.ts`, formats: ['es'], fileName: () => name },
      rollupOptions: { external: /^node:/ },
    },
  })
await bundle('subjects', 'subjects.js')
await bundle('levels-of-file', 'levels.js')
await bundle('large-files', 'large-files.js')
const { subjects } = await import(`${folder}/subjects.js`)

const bench = new Bench({ time: 2000, warmupTime: 1000 })
for (const { name, run } of subjects) bench.add(name, run)
await bench.run()
const line = (name, value, bound) =>
  console.log(`${name.padEnd(46)} ${value.padStart(12)}   ${bound ? `bound ${bound}` : ''}`)
bench.tasks.forEach((task, i) => {
  const { latency } = task.result
  line(task.name, `${(1000 * latency.p50).toFixed(1)} µs`, subjects[i].bound && `${subjects[i].bound} µs, median`)
})

benchLevels(line)

if (!built()) {
  console.log('No build: run "npx nuxt build" to measure the browser too.')
  process.exit(0)
}
await benchRelay(line)
const { chromium: browserType } = await import('@playwright/test')
const { address, stop } = await serve()
const browser = await browserType.launch({
  executablePath: await chromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
/** Script of a frame while a gain is dragged, mean, ms. */
let scriptPerFrame = 0
const first = []
const again = []
let bytes = 0
for (let i = 0; i < 7; i++) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  let visiting = i === 0
  page.on('response', async (response) => {
    if (visiting && response.url().endsWith('.js'))
      bytes += Number((await response.allHeaders())['content-length'] ?? 0)
  })
  first.push(await usable(page, () => page.goto(address, { waitUntil: 'commit' })))
  visiting = false
  await page.waitForLoadState('networkidle')
  // By now the service worker has everything; a second visit comes out of it.
  await page.evaluate(() => navigator.serviceWorker?.ready)
  again.push(await usable(page, () => page.reload({ waitUntil: 'commit' })))
  await context.close()
}
const frames = await framesWhileDragging()
const longest = await longestTaskWhileMeasuring(makeRecording(60, 96_000, 'one-minute.wav'))
await benchLarge(browser, address, await import(`${folder}/large-files.js`), line)
await browser.close()
stop()
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
const gzip = readdirSync(`${root}.output/public/_nuxt`)
  .filter((name) => name.endsWith('.js'))
  .reduce((sum, name) => sum + gzipSync(readFileSync(`${root}.output/public/_nuxt/${name}`)).length, 0)
line('first visit until the gain can be turned', `${median(first)} ms`, '1200 ms')
line('a second visit until the gain can be turned', `${median(again)} ms`, '500 ms')
line('a frame while a gain is dragged, median', `${median(frames).toFixed(1)} ms`)
line('the longest of them', `${frames.at(-1).toFixed(1)} ms`, '16 ms')
line('script of such a frame, mean', `${scriptPerFrame.toFixed(1)} ms`, '4 ms')
line('longest task of the page while a minute is measured', `${longest.toFixed(0)} ms`, '50 ms')
line('JavaScript until the gain can be turned, as sent', `${(bytes / 1000).toFixed(0)} kB`, '200 kB')
line('all JavaScript of the build, gzip', `${(gzip / 1000).toFixed(0)} kB`)

/**
 * Drags a gain of the longest template and takes the time that each frame's script, layout and paint need, from the
 * pointer's move to the task after the frame.
 */
async function framesWhileDragging() {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.waitForSelector('[data-gain-handle]')
  await page.keyboard.press('a')
  await page.locator('[data-template="two-units"]').click()
  const handle = page.locator('[data-gain-handle]').first()
  await page.waitForTimeout(800)
  const { x, y, width, height } = await handle.boundingBox()
  const [left, top] = [x + width / 2, y + height / 2]
  await page.mouse.move(left, top)
  await page.mouse.down()
  await page.evaluate(() => {
    window.frameTimes = []
    window.addEventListener(
      'pointermove',
      () => {
        const from = performance.now()
        requestAnimationFrame(() => {
          const channel = new MessageChannel()
          channel.port1.onmessage = () => window.frameTimes.push(performance.now() - Math.max(from, frameStart))
          const frameStart = performance.now()
          channel.port2.postMessage(null)
        })
      },
      true,
    )
  })
  const client = await page.context().newCDPSession(page)
  await client.send('Performance.enable')
  const scripted = async () =>
    (await client.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? 0
  for (let i = 0; i < 20; i++) await page.mouse.move(left, top + i)
  const before = await scripted()
  for (let i = 0; i < 120; i++) {
    await page.mouse.move(left, top + 30 * Math.sin(i / 8))
    await page.waitForTimeout(20)
  }
  scriptPerFrame = (1000 * ((await scripted()) - before)) / 120
  await page.mouse.up()
  const times = await page.evaluate(() => window.frameTimes)
  await page.close()
  // The first frames are those of a program that is still being compiled.
  return times.slice(20).sort((a, b) => a - b)
}

/** What keeps the page from answering while a recording is measured and a simulated interface makes another. */
async function longestTaskWhileMeasuring(recording) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.waitForSelector('[data-gain-handle]')
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.waitForSelector('[data-page]')
  await page.evaluate(() => {
    window.longTasks = [0]
    new PerformanceObserver((list) =>
      window.longTasks.push(...list.getEntries().map((entry) => entry.duration)),
    ).observe({ type: 'longtask' })
  })
  await page.getByLabel('Choose a recording', { exact: true }).setInputFiles(recording)
  await page.waitForSelector('[data-thirds]', { state: 'attached', timeout: 120_000 })
  await page.locator('[data-page="round-trip"]').click()
  await page.getByRole('button', { name: 'Try it on the simulated interface' }).click()
  await page.waitForFunction(() => document.querySelectorAll('[data-row]').length === 2, null, { timeout: 120_000 })
  const tasks = await page.evaluate(() => window.longTasks)
  await page.close()
  return Math.max(...tasks)
}

async function usable(page, go) {
  const start = performance.now()
  await go()
  await page.waitForSelector('[data-gain-handle]')
  return Math.round(performance.now() - start)
}
