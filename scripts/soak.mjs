// Goes through every place with random actions, undo and redo for some minutes: there must be no error, and the heap must stay within
// 30 % of what it was after a quarter of the time. Needs a build. `npm run soak -- 20 7`: minutes, and the seed of what is done.
import { chromium as playwright } from '@playwright/test'
import { chromium, serve } from './steps.mjs'

const MINUTES = Number(process.argv[2] ?? 20)
const SEED = Number(process.argv[3] ?? 1)
const MOST_GROWTH = 1.3

let state = SEED * 7919 + 1
const random = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647
const pick = (list) => list[Math.floor(random() * list.length)]

const PLACES = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'h', 'o']
/** What opens a dialog of the system, leaves the page, or takes minutes. */
const NOT_PRESSED =
  /export|print|import|delete|back up|restore|choose|file|csv|markdown|json|save|reload|record|listen|watch|monitor an input|play|simulated|hear|add the log/i

const errors = []
const server = await serve()
const browser = await playwright.launch({
  executablePath: await chromium(),
  args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
})
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
page.on('pageerror', (error) => errors.push(`threw: ${error.message}`))
page.on('console', (message) => message.type() === 'error' && errors.push(`logged: ${message.text()}`))
page.on('dialog', (dialog) => dialog.accept())
const cdp = await page.context().newCDPSession(page)
async function heap() {
  await cdp.send('HeapProfiler.collectGarbage')
  return (await cdp.send('Runtime.getHeapUsage')).usedSize / 2 ** 20
}

/** One thing that a hand may do; what is not there just now is passed over. */
const actions = [
  () => page.keyboard.press(pick(PLACES)),
  () => page.keyboard.press(pick(['[', ']', 'v', 's', 'u', 'j', 'k', 'Enter', 'Escape'])),
  () => page.keyboard.press(pick(['Control+z', 'Control+z', 'Control+Shift+z'])),
  async () => {
    const fields = page.locator('main input[inputmode="decimal"]:visible')
    const count = await fields.count()
    if (count === 0) return
    const field = fields.nth(Math.floor(random() * count))
    await field.fill(String(Math.round(random() * 60)), { timeout: 1000 })
    await page.keyboard.press('Enter')
  },
  async () => {
    const buttons = page.locator('main button:visible:enabled')
    const count = await buttons.count()
    if (count === 0) return
    const button = buttons.nth(Math.floor(random() * count))
    const name = `${await button.innerText({ timeout: 1000 })} ${(await button.getAttribute('aria-label')) ?? ''}`
    if (!NOT_PRESSED.test(name)) await button.click({ timeout: 1000 })
  },
]

await page.goto(server.address)
await page.locator('[data-gain-handle]').waitFor()
const end = Date.now() + MINUTES * 60_000
const firstLook = Date.now() + MINUTES * 15_000
let done = 0
let before = null
while (Date.now() < end && errors.length < 20) {
  // What is gone before it is reached is nobody's error: a button may vanish with the place it stood in.
  await pick(actions)().catch((error) => {
    if (!/Timeout|detached|not attached|intercepts|not visible|outside of the viewport/i.test(String(error)))
      errors.push(`failed: ${error.message}`)
  })
  if (++done % 10 === 0) await page.keyboard.press('Escape')
  // The gesture that opens the session again, wherever the list or another session led.
  if (done % 200 === 0) await page.goto(server.address)
  if (before === null && Date.now() > firstLook) before = await heap()
}
await page.goto(server.address)
await page.locator('[data-gain-handle]').waitFor()
const after = await heap()
await browser.close()
await server.stop()
const grown = before === null ? 1 : after / before
console.log(
  `${done} actions in ${MINUTES} min, seed ${SEED}; heap ${before?.toFixed(1)} MB, then ${after.toFixed(1)} MB (× ${grown.toFixed(2)})`,
)
for (const error of new Set(errors)) console.log(error)
process.exit(errors.length > 0 || grown > MOST_GROWTH ? 1 : 0)
