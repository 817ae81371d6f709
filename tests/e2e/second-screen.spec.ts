import type { Browser, Page } from '@playwright/test'
import { RelayServer } from '../support/relay-server'
import { expect, field, gain, goToLog, makeMark, open, test, type, violations } from './app'
import { troubles } from './troubles'

/** How many times slower the pages are made to run. */
const SLOWED = Number(process.env.E2E_SLOWED ?? 1)

test.describe.configure({ mode: 'default' })
let server: RelayServer
test.beforeAll(async () => {
  server = await RelayServer.start()
})
test.afterAll(() => server.stop())

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

/** A browser of its own on the server that serves a network. */
async function device(browser: Browser, viewport = DESK): Promise<Page> {
  const touch = viewport === PHONE ? { hasTouch: true, isMobile: true } : {}
  const context = await browser.newContext({ viewport, ...touch, baseURL: server.address, serviceWorkers: 'block' })
  const page = await context.newPage()
  page.on('pageerror', (error) => expect(error.message).toBe('no error'))
  if (SLOWED > 1) await (await context.newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: SLOWED })
  return page
}
const desk = async (browser: Browser) => {
  const page = await device(browser)
  await open(page)
  return page
}
/** Nothing covered, cut or too small for a finger or a pointer, and nothing that accessibility tools find. */
async function looksRight(page: Page, screen: string) {
  const least = page.viewportSize()?.width === PHONE.width ? 44 : 24
  await expect.poll(() => troubles(page, least), screen).toEqual([])
  expect(await violations(page), screen).toEqual([])
}

/** Opens the session on the screen for other devices. @returns the link */
async function share(page: Page, role: 'change the session' | 'look only' = 'change the session'): Promise<string> {
  await page.keyboard.press('q')
  await page.locator('[data-address]').selectOption(server.address)
  await page.getByRole('radio', { name: role }).click()
  await looksRight(page, 'what is opened, and for whom')
  await page.locator('[data-share]').click()
  const link = await page.locator('[data-room-link]').inputValue()
  await expect(page.locator('[data-qr]')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  return link
}
const isShared = (page: Page) => expect(page.locator('[data-saved]')).toHaveText('shared')
async function join(browser: Browser, link: string, viewport = DESK): Promise<Page> {
  const page = await device(browser, viewport)
  await page.goto(link)
  await isShared(page)
  return page
}
/** The figure of the gain as the section’s handle shows it. */
const handle = (page: Page) => page.locator('[data-gain-handle]').first()

test('where one machine alone is served, it says how to serve the network and what that means', async ({ page }) => {
  await open(page)
  await page.keyboard.press('q')
  const dialog = page.locator('[data-second-screen]')
  await expect(dialog).toContainText('This server answers this computer alone.')
  await expect(dialog).toContainText('HOST=0.0.0.0 npm run demo')
  await expect(dialog.locator('[data-caution]')).toContainText('Everybody on that network')
  await expect(dialog.locator('[data-share]')).toHaveCount(0)
  await looksRight(page, 'one machine alone is served')
})

test('an upgrade is granted to the own page for the relay’s path alone, and a message over 256 kB ends it', async ({
  browser,
}) => {
  expect(await server.upgrade('/api/relay')).toBe(101)
  expect(await server.upgrade('/api/relay', { origin: 'http://elsewhere.example' })).toBe(403)
  expect(await server.upgrade('/api/relay', { origin: '' })).toBe(403)
  expect(await server.upgrade('/api/relay', { host: 'rebound.example', origin: 'http://rebound.example' })).toBe(421)
  for (const path of ['/', '/api/relay/two', '/api/plan', '/_nuxt/x']) expect(await server.upgrade(path)).toBe(404)
  const off = await RelayServer.start({ HOST: '127.0.0.1' })
  expect(await off.upgrade('/api/relay')).toBe(403)
  await off.stop()
  const page = await device(browser)
  await page.goto('/sessions')
  const closed = await page.evaluate(
    (bytes) =>
      new Promise<number>((resolve) => {
        const socket = new WebSocket(`ws://${window.location.host}/api/relay`)
        socket.addEventListener('open', () => socket.send(new Uint8Array(bytes)))
        socket.addEventListener('close', ({ code }) => resolve(code))
      }),
    256 * 1024 + 1,
  )
  expect(closed).toBe(1009)
  await page.context().close()
})

test('a phone opens the same place and strip, drags are seen as they move, and each undoes its own', async ({
  browser,
}) => {
  const one = await desk(browser)
  await one.keyboard.press(']')
  const link = await share(one)
  const phone = await join(browser, link, PHONE)
  await expect(phone).toHaveURL(/\/path\/guest\?strip=cello$/)
  await expect(handle(phone)).toHaveText(
    await handle(one)
      .innerText()
      .then((text) => text.replace(' dB', '')),
  )
  // Dragged at the desk: the phone follows before it is let go.
  const box = await handle(one).boundingBox()
  if (!box) throw new Error('No handle.')
  await one.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await one.mouse.down()
  await one.mouse.move(box.x + box.width / 2, box.y - 20, { steps: 4 })
  const before = await one.locator('[data-saved]').innerText()
  await expect(async () => {
    const dragged = (await handle(one).innerText()).replace(' dB', '')
    expect(await handle(phone).innerText()).toBe(dragged)
  }).toPass()
  expect(before).toContain('saved')
  await one.mouse.up()
  const set = (await handle(one).innerText()).replace(' dB', '')
  // The phone turns another strip’s gain; each undoes what it did itself.
  const narrator = await join(browser, link.replace('strip=cello', 'strip=narrator'))
  await type(narrator, 'Gain, dB', '41')
  await one.keyboard.press('[')
  await expect(gain(one)).toHaveValue('41')
  await one.keyboard.press('Control+z')
  await expect(gain(one)).toHaveValue('41')
  await one.keyboard.press(']')
  await expect(handle(one)).not.toHaveText(`${set} dB`)
  await narrator.keyboard.press('Escape')
  await narrator.keyboard.press('Control+z')
  await expect(gain(narrator)).toHaveValue('35')
  await one.keyboard.press('[')
  await expect(gain(one)).toHaveValue('35')
  for (const page of [one, phone, narrator]) await page.context().close()
})

test('eyes look and are told so; the opener lets them change, sees who is there, and ends it with a copy left', async ({
  browser,
}) => {
  const one = await desk(browser)
  const link = await share(one, 'look only')
  const phone = await join(browser, link)
  await type(phone, 'Gain, dB', '50')
  await expect(phone.locator('[data-notice="not-taken"]')).toContainText('This device may look, not change.')
  await expect(gain(one)).toHaveValue('35')
  await phone.keyboard.press('Escape')
  await one.keyboard.press('q')
  await expect(one.locator('[data-members]')).toContainText('Path, Narrator')
  await looksRight(one, 'the room, at its opener')
  await one.locator('[data-role]').click()
  await expect(one.locator('[data-role]')).toHaveText('may change')
  await phone.keyboard.press('q')
  await expect(phone.locator('[data-guest-state]')).toContainText('What you change here changes on the other device.')
  await looksRight(phone, 'the room, at a guest')
  await phone.keyboard.press('Escape')
  await type(phone, 'Gain, dB', '44')
  await expect(handle(one)).toHaveText('44.0 dB')
  await one.locator('[data-end]').click()
  await expect(phone.locator('[data-notice="sharing-ended"]')).toBeVisible()
  await phone.locator('[data-notice="sharing-ended"] [data-keep-copy]').click()
  await expect(field(phone, 'Name of the session')).toHaveValue('Net loft, evening (copy)')
  await expect(gain(phone)).toHaveValue('44')
  await expect(phone).not.toHaveURL(/guest/)
  // The link no longer works, and says so instead of opening for ever.
  const late = await device(browser, PHONE)
  await late.goto(link)
  await expect(late.locator('[data-waiting]')).toContainText('If sharing was ended there, this link no longer works')
  await looksRight(late, 'a link that leads nowhere')
  for (const page of [one, phone, late]) await page.context().close()
})

test('a ninth device is told that the room is full, and comes in when one leaves', async ({ browser }) => {
  test.setTimeout(300_000)
  const one = await desk(browser)
  const link = await share(one)
  const seven: Page[] = []
  for (let i = 0; i < 7; i++) seven.push(await join(browser, link, PHONE))
  const ninth = await device(browser, PHONE)
  await ninth.goto(link)
  await expect(ninth.locator('[data-waiting]')).toContainText('8 devices are connected already.')
  await seven.pop()?.context().close()
  await isShared(ninth)
  for (const page of [one, ninth, ...seven]) await page.context().close()
})

test('ticks, marks and takes go both ways, and with Follow all stay on one step', async ({ browser }) => {
  const one = await desk(browser)
  await one.keyboard.press('6')
  await expect(one.locator('[data-step-card]')).toBeVisible()
  const link = await share(one)
  const [phone, third] = [await join(browser, link, PHONE), await join(browser, link)]
  const done = (page: Page) => page.locator('[data-progress]')
  await phone.locator('[data-tick]').click()
  for (const page of [one, phone, third]) await expect(done(page)).toContainText('1 of ')
  await phone.keyboard.press('q')
  await expect(phone.locator('[data-guest-state]')).toBeVisible()
  await looksRight(phone, 'the room, at a phone')
  await phone.keyboard.press('Escape')
  await one.keyboard.press('f')
  const first = await one.locator('[aria-current="step"]').getAttribute('data-step')
  await one.keyboard.press('j')
  await expect(one.locator('[aria-current="step"]')).not.toHaveAttribute('data-step', first ?? '')
  const step = await one.locator('[aria-current="step"]').getAttribute('data-step')
  for (const page of [phone, third])
    await expect(page.locator('[aria-current="step"]')).toHaveAttribute('data-step', step ?? '')
  await third.keyboard.press('j')
  await expect(third.locator('[aria-current="step"]')).not.toHaveAttribute('data-step', step ?? '')
  const next = await third.locator('[aria-current="step"]').getAttribute('data-step')
  for (const page of [one, phone])
    await expect(page.locator('[aria-current="step"]')).toHaveAttribute('data-step', next ?? '')
  await goToLog(one)
  await makeMark(one, 'By the desk')
  await goToLog(third)
  await expect(third.getByText('By the desk').first()).toBeVisible()
  await makeMark(third, 'By the guest')
  await expect(one.getByText('By the guest').first()).toBeVisible()
  for (const page of [one, phone, third]) await page.context().close()
})

test('the connection is lost and comes back: both say so, both go on, and what met is listed for both', async ({
  browser,
}) => {
  const one = await desk(browser)
  const link = await share(one)
  const phone = await join(browser, link)
  await server.stop()
  for (const page of [one, phone]) await expect(page.locator('[data-notice="not-connected"]')).toBeVisible()
  await type(one, 'Gain, dB', '30')
  await type(phone, 'Gain, dB', '42')
  await type(phone, 'Name of the session', 'Named meanwhile')
  await expect(phone.locator('[data-saved]')).toHaveText('not connected')
  await looksRight(phone, 'not connected')
  await server.start()
  await expect(phone.locator('[data-notice="not-connected"]')).toHaveCount(0)
  await isShared(phone)
  await expect(gain(phone)).toHaveValue('30')
  await expect(field(one, 'Name of the session')).toHaveValue('Named meanwhile')
  const met = phone.locator('[data-notice="met"]')
  await expect(met).toContainText('Narrator')
  await expect(met).toContainText(/30 dB[^]* stands; yours was\s+42 dB/)
  await looksRight(phone, 'what met')
  await expect(one.locator('[data-notice="met"]')).toContainText(/30 dB[^]* stands; theirs was\s+42 dB/)
  await phone.locator('[data-set-mine]').click()
  await expect(gain(one)).toHaveValue('42')
  // A reload of either goes back into the room; a tab that is closed is told.
  await phone.reload()
  await isShared(phone)
  await one.reload()
  await expect(gain(one)).toHaveValue('42')
  await expect(phone.locator('[data-notice="not-connected"]')).toHaveCount(0)
  await type(phone, 'Gain, dB', '43')
  await expect(gain(one)).toHaveValue('43')
  await one.context().close()
  await expect(phone.locator('[data-notice="not-connected"]')).toContainText('The device that keeps this session')
  await type(phone, 'Gain, dB', '44')
  await phone.locator('[data-notice="not-connected"] button').click()
  await expect(phone).not.toHaveURL(/guest/)
  await expect(gain(phone)).toHaveValue('44')
  await phone.context().close()
})

test('the opener’s inputs are seen on the phone, with the gain that is turned large beside its window', async ({
  browser,
}) => {
  const one = await desk(browser)
  await one.keyboard.press('6')
  await expect(one.locator('[data-gauge]')).toBeVisible()
  await one.keyboard.press('l')
  const link = await share(one)
  const phone = await join(browser, link, PHONE)
  // Performers who have something to be turned, and the same ones each time.
  await one.evaluate(() => {
    Math.random = () => 0.0042
  })
  await one.locator('[data-simulate-all]').click()
  await one.getByRole('radio', { name: 'loudest passage' }).click()
  await expect(phone.locator('[data-all-inputs]')).toHaveAttribute('data-source', 'remote')
  const lane = (page: Page) => page.locator('[data-lane="narrator"]')
  await expect(lane(phone).locator('[data-lane-peak]')).toBeVisible()
  await expect(async () => {
    const [there, here] = await Promise.all(
      [one, phone].map((page) => lane(page).locator('[data-lane-peak]').innerText()),
    )
    expect(here).toBe(there)
  }).toPass()
  await lane(phone).getByRole('button').first().click()
  const knob = lane(phone).locator('[data-knob]')
  await expect(knob.locator('[data-to-go]')).toHaveText(/dB to go, (up|down)|Right/)
  await expect(knob.locator('[data-set]')).toContainText('35 dB (knob about')
  await expect(knob.locator('[data-level]')).toBeVisible()
  await looksRight(phone, 'the gain at a knob')
  await expect(one.locator('[data-turn-all]')).toBeVisible()
  await phone.locator('[data-turn-all]').click()
  await expect(phone.locator('[data-turn-all]')).toHaveCount(0)
  await expect(one.locator('[data-lane][data-state="in-window"]').first()).toBeVisible()
  await expect(async () => {
    const [there, here] = await Promise.all(
      [one, phone].map((page) =>
        page.locator('[data-lane]').evaluateAll((all) => all.map((each) => each.getAttribute('data-state'))),
      ),
    )
    expect(here).toEqual(there)
  }).toPass()
  await one.locator('[data-stop]').click()
  await expect(phone.locator('[data-all-inputs]')).toHaveAttribute('data-source', 'none')
  for (const page of [one, phone]) await page.context().close()
})
