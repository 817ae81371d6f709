// Whether the built program works in a second engine: Debian's Firefox, driven over WebDriver BiDi. Needs a build.
import puppeteer from 'puppeteer-core'
import { build, built, firefox, serve } from './steps.mjs'

if (!built() && (await build()) !== 0) process.exit(1)
const executablePath = await firefox()
const { address, stop } = await serve()
const browser = await puppeteer.launch({ browser: 'firefox', executablePath, headless: true })
const tally = { passed: 0, failed: 0 }
const WAIT = { timeout: 60_000 }

/** One thing that has to work, on a page of its own: nothing may be thrown or logged as an error. */
async function check(words, go) {
  const context = await browser.createBrowserContext()
  const page = await context.newPage()
  await page.setViewport({ width: 1280, height: 800 })
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

const gain = 'input[aria-label="Gain, dB"]'
const shows = (page, value) =>
  page.waitForFunction((at, wanted) => document.querySelector(at)?.value === wanted, WAIT, gain, value)

await check('a gain is typed, the level behind it follows, and both are there after a reload', async (page) => {
  await page.waitForSelector(gain, WAIT)
  const before = await page.$eval('[data-verdict="headroom"]', (each) => each.textContent)
  await page.locator(gain).fill('41')
  await page.keyboard.press('Enter')
  await page.waitForFunction(
    (was) => document.querySelector('[data-verdict="headroom"]').textContent !== was,
    WAIT,
    before,
  )
  await page.waitForFunction(() => /saved \d\d:\d\d/.test(document.querySelector('[data-saved]')?.textContent), WAIT)
  await page.reload()
  await shows(page, '41')
})

await check('a procedure of the Bench measures the simulated interface', async (page) => {
  await page.keyboard.press('5')
  await page.locator('[data-page="input-full-scale"]').click()
  await page.locator('::-p-text(Try it on the simulated interface)').click()
  await page.waitForSelector('[data-row]', WAIT)
})

await check('the live gauge hears a simulated performer', async (page) => {
  await page.keyboard.press('6')
  await page.waitForSelector('[data-section="strips narrator"] h3 button', WAIT)
  await page.locator('[data-section="strips narrator"] h3 button').click()
  await page.locator('[data-step="narrator.n3.gain"] button').click()
  await page.locator('[data-simulate]').click()
  await page.waitForSelector('[data-figure]', WAIT)
})

await browser.close()
stop()
console.log(`\n${tally.passed} passed, ${tally.failed} failed`)
process.exit(tally.failed === 0 ? 0 : 1)
