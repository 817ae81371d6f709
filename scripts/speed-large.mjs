// What a large session and a long log ask of the page: the longest task of each gesture, by the browser's own record of long tasks.

/** DESIGN's bound on a task of the page, ms. */
const MOST = 100

const PLACES = [
  ['2', 'Mix'],
  ['3', 'Timing'],
  ['4', 'Monitoring'],
  ['6', 'Soundcheck'],
  ['7', 'Log'],
  ['8', 'Faults'],
]

/** Told by each page: how long its tasks over 50 ms took. */
const record = () => {
  window.longTasks = []
  new PerformanceObserver((list) => window.longTasks.push(...list.getEntries().map((each) => each.duration))).observe({
    entryTypes: ['longtask'],
  })
}
/** The longest task since the last look, once the page has had no new one for a second; 0 where none took 50 ms. */
async function longest(page) {
  for (let before = -1, now = 0; before !== now;) {
    before = now
    await page.waitForTimeout(1000)
    now = await page.evaluate(() => window.longTasks.length)
  }
  return page.evaluate(() => Math.max(0, ...window.longTasks.splice(0)))
}
const paste = (page, text) =>
  page.evaluate((given) => {
    const clipboardData = new DataTransfer()
    clipboardData.setData('text/plain', given)
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }))
  }, text)
const titled = (page, name) =>
  page.waitForFunction((wanted) => document.title.startsWith(wanted), name, { timeout: 60_000 })

/**
 * @param line prints a name, a figure and its bound
 * @param files sessions as files: the large one and the long log, and each one’s small twin, which tells what of a figure is the
 *   place itself and what is the size
 */
export async function benchLarge(browser, address, { largeSession, longLog, smallSession, shortLog }, line) {
  const small = await walk(browser, address, { session: smallSession(), log: shortLog(), takes: 1 })
  const large = await walk(browser, address, { session: largeSession(), log: longLog(), takes: 1000 })
  for (const [what, ms] of large.longest)
    line(`longest task: ${what}`, `${ms.toFixed(0)} ms`, `${MOST} ms; small ${small.longest.get(what).toFixed(0)} ms`)
  line('the second tab follows an edit after', `${large.follows} ms`, `small ${small.follows} ms`)
  line('elements on the page of the log', String(large.elements), `small ${small.elements}`)
}

/** One session through all places. @returns the longest task of each gesture, ms */
async function walk(browser, address, { session, log, takes }) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const told = new Map()
  await page.addInitScript(record)
  await page.goto(address)
  await page.locator('[data-gain-handle]').first().waitFor()
  await longest(page)
  const tell = async (what, on = page) => told.set(what, await longest(on))
  const named = async (name) => {
    const field = page.getByRole('textbox', { name: 'Name of the session' })
    await field.fill(name)
    await field.press('Enter')
  }

  await paste(page, session)
  await titled(page, 'Large desk')
  await page.locator('[data-gain-handle]').first().waitFor()
  await tell('session opened')
  for (const [key, place] of PLACES) {
    await page.keyboard.press(key)
    await tell(`its ${place}`)
  }
  await page.keyboard.press('2')
  await page.locator('[data-set-all]').click()
  await page.locator('[data-told]').waitFor({ timeout: 60_000 })
  await tell('all of it set')
  await named('Large desk, tuned')
  await tell('one edit of it')
  await page.keyboard.press('Escape')
  await page.keyboard.press('1')
  await page.locator('[data-gain-handle]').first().waitFor()

  const other = await context.newPage()
  await other.addInitScript(record)
  await other.goto(page.url())
  await other.locator('[data-gain-handle]').first().waitFor()
  await tell('it opened in a second tab', other)
  const from = Date.now()
  await named('Large desk, again')
  await titled(other, 'Large desk, again')
  const follows = Date.now() - from
  await other.close()

  await paste(page, log)
  await titled(page, 'Long log')
  await tell('session with its log imported')
  await page.keyboard.press('7')
  await page.locator(`[data-take="${takes}"]`).waitFor()
  await tell('its log opened')
  await page.keyboard.press('b')
  await page.locator('[data-mark-form] button[type=submit]').click()
  await page.locator('[data-mark-form]').waitFor({ state: 'detached' })
  await tell('a mark added')
  const elements = await page.evaluate(() => document.querySelectorAll('*').length)
  await context.close()
  return { longest: told, follows, elements }
}
