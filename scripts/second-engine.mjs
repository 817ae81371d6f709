// Whether the built program works in a second engine: Debian's Firefox, driven over WebDriver BiDi. Needs a build.
import { setTimeout as delay } from 'node:timers/promises'
import puppeteer from 'puppeteer-core'
import { build, built, firefox, serve } from './steps.mjs'

if (!built() && (await build()) !== 0) process.exit(1)
const executablePath = await firefox()
// So that a session can be opened on another device, though one machine alone is served.
process.env.REMETRA_RELAY = 'on'
const { address, stop } = await serve()
// The window has its size from the command line: setting it by BiDi asks for commands that releases that stay do not know.
const browser = await puppeteer.launch({
  browser: 'firefox',
  executablePath,
  headless: true,
  defaultViewport: null,
  args: ['--width=1280', '--height=900'],
})
const tally = { passed: 0, failed: 0 }
const WAIT = { timeout: 60_000 }

/** One thing that has to work, on a page of its own: nothing may be thrown or logged as an error. */
async function check(words, go) {
  const context = await browser.createBrowserContext()
  const page = await context.newPage()
  const trouble = []
  page.on('pageerror', (error) => trouble.push(`threw: ${error.message}`))
  page.on('console', (message) => message.type() === 'error' && trouble.push(`logged: ${message.text()}`))
  try {
    await page.goto(address)
    await page.waitForSelector('[data-gain-handle]', WAIT)
    await go(page)
  } catch (error) {
    trouble.push(error.message)
  }
  await context.close()
  tally[trouble.length === 0 ? 'passed' : 'failed']++
  console.log([`${trouble.length === 0 ? 'ok    ' : 'FAILED'}  ${words}`, ...trouble].join('\n        '))
}

/** Something that only stands when a place is there. */
const PLACES = [
  ['1', 'Path', '[data-gain-handle]'],
  ['2', 'Mix', '[data-mix-row]'],
  ['3', 'Timing', '[data-cell]'],
  ['4', 'Monitoring', '[data-arrival]'],
  ['5', 'Bench', '[data-page]'],
  ['6', 'Soundcheck', '[data-run-sheet] [data-section]'],
  ['7', 'Log', '[data-takes]'],
  ['8', 'Faults', '[data-symptom]'],
  ['9', 'Trainer', 'main button'],
  ['h', 'Gear shelf', '[data-item]'],
  ['o', 'Sessions', '[data-session]'],
]
for (const [key, name, stands] of PLACES)
  await check(`${name} opens by its key`, async (page) => {
    await page.keyboard.press(key)
    await page.waitForSelector(stands, WAIT)
  })

/** Asked again until it holds. The driver's own way compiles text in the page, which the security policy refuses. */
async function until(page, holds, ...given) {
  const end = Date.now() + WAIT.timeout
  while (!(await page.evaluate(holds, ...given))) {
    if (Date.now() > end) throw new Error(`Did not come within ${WAIT.timeout / 1000} s: ${holds}`)
    await delay(100)
  }
}

const gain = 'input[aria-label="Gain, dB"]'
async function press(page, at) {
  await (await page.waitForSelector(at, { ...WAIT, visible: true })).click()
}
async function set(page, value) {
  await (await page.waitForSelector(gain, WAIT)).click({ count: 3 })
  await page.keyboard.type(value)
  await page.keyboard.press('Enter')
}
const shows = (page, value) => until(page, (at, wanted) => document.querySelector(at)?.value === wanted, gain, value)

await check('a gain is typed, the level behind it follows, and both are there after a reload', async (page) => {
  await page.waitForSelector(gain, WAIT)
  const before = await page.$eval('[data-verdict="headroom"]', (each) => each.textContent)
  await set(page, '41')
  await until(page, (was) => document.querySelector('[data-verdict="headroom"]').textContent !== was, before)
  await until(page, () => /saved \d\d:\d\d/.test(document.querySelector('[data-saved]')?.textContent))
  await page.reload()
  await shows(page, '41')
})

await check('a procedure of the Bench measures the simulated interface', async (page) => {
  await page.keyboard.press('5')
  await press(page, '[data-page="input-full-scale"]')
  await press(page, '::-p-text(Try it on the simulated interface)')
  await page.waitForSelector('[data-row]', WAIT)
})

await check('the live gauge hears a simulated performer', async (page) => {
  await page.keyboard.press('6')
  await page.waitForSelector('[data-section="strips narrator"] h3 button', WAIT)
  await press(page, '[data-section="strips narrator"] h3 button')
  await press(page, '[data-step="narrator.n3.gain"] button')
  await press(page, '[data-simulate]')
  await page.waitForSelector('[data-figure]', WAIT)
})

await check('a session is opened on another device, which changes it', async (page) => {
  await page.keyboard.press('q')
  await press(page, '[data-share]')
  await page.waitForSelector('[data-room-link]', WAIT)
  const link = await page.$eval('[data-room-link]', (each) => each.value)
  await page.keyboard.press('Escape')
  const context = await browser.createBrowserContext()
  const guest = await context.newPage()
  await guest.goto(link)
  await until(guest, () => document.querySelector('[data-saved]')?.textContent === 'shared')
  await set(guest, '44')
  await shows(page, '44')
  await context.close()
})

await browser.close()
stop()
console.log(`\n${tally.passed} passed, ${tally.failed} failed`)
process.exit(tally.failed === 0 ? 0 : 1)
