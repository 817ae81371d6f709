// Makes the pictures in docs/screenshots from the demo data, each at 1280×800, the phone's at 390×844. Needs a build. `npm run shots timing` makes one of them.
import { mkdirSync } from 'node:fs'
import { build, built, chromium, root, serve } from './steps.mjs'

const folder = `${root}docs/screenshots`

/** A simulated interface measured by one cable, its moves made as they are asked for. */
async function measuredSheet(page) {
  await page.keyboard.press('5')
  await page.locator('[data-page="cable"]').click()
  await page.locator('[data-simulate]').click()
  const [next, sheet] = [page.locator('[data-make]'), page.locator('[data-measured-sheet]')]
  for (;;) {
    await next.or(sheet).waitFor({ timeout: 120_000 })
    if (await sheet.isVisible()) return
    await next.click()
    await next.waitFor({ state: 'hidden' })
  }
}
/** The phone that shows what this page hears, with a gain large. @returns the phone’s page */
async function secondDevice(page) {
  await allInputs(page)
  await page.keyboard.press('q')
  await page.locator('[data-share]').click()
  const link = await page.locator('[data-room-link]').inputValue()
  const context = await page
    .context()
    .browser()
    .newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  const phone = await context.newPage()
  await phone.goto(link)
  const lane = phone.locator('[data-lane="narrator"]')
  await lane.locator('[data-lane-peak]').waitFor()
  await lane.getByRole('button').first().click()
  await phone.waitForTimeout(6000)
  return phone
}
/** All inputs, with the same simulated performers every time. */
async function allInputs(page) {
  await page.keyboard.press('6')
  await page.waitForSelector('[data-gauge]')
  await page.keyboard.press('l')
  await page.evaluate(() => {
    Math.random = () => 0.0042
  })
  await page.locator('[data-simulate-all]').click()
  await page.getByRole('radio', { name: 'loudest passage' }).click()
}
/** Forty seconds of phrases, each as loud as it happens to be, 16 bits, one channel. */
function rehearsal() {
  const [rate, frames] = [48_000, 1_920_000]
  let state = 7
  const loudness = Array.from({ length: 41 }, () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647)
  const wav = Buffer.alloc(44 + 2 * frames)
  wav.write('RIFF', 0)
  wav.writeUInt32LE(36 + 2 * frames, 4)
  wav.write('WAVEfmt ', 8)
  for (const [at, value] of [
    [16, 16],
    [24, rate],
    [28, 2 * rate],
  ])
    wav.writeUInt32LE(value, at)
  for (const [at, value] of [
    [20, 1],
    [22, 1],
    [32, 2],
    [34, 16],
  ])
    wav.writeUInt16LE(value, at)
  wav.write('data', 36)
  wav.writeUInt32LE(2 * frames, 40)
  for (let i = 0; i < frames; i++) {
    const swell = Math.sin((Math.PI * i) / 24_000) ** 4 * (0.4 + 0.9 * loudness[Math.floor(i / 48_000)] ** 2)
    wav.writeInt16LE(
      Math.round(32_767 * 0.09 * swell * (Math.sin(i / 42) + 0.5 * Math.sin(i / 11) + 0.3 * Math.sin(i / 3.1))),
      44 + 2 * i,
    )
  }
  return wav
}

/** The narrator's gain in hand, a simulated performer playing the loudest passage, and what its reading says. */
async function soundcheck(page) {
  await page.keyboard.press('6')
  await page.locator('[data-section="strips narrator"] h3 button').click()
  await page.locator('[data-step="narrator.n3.gain"] button').last().click()
  await page.locator('[data-simulate]').click()
  await page.getByRole('radio', { name: 'loudest passage' }).click()
  await page.waitForTimeout(16_000)
  await page.locator('[data-take]').click()
  await page.waitForSelector('[data-sentence]')
}

/** Lines of an invented data sheet: of one figure two, of another one that cannot be. */
const dataSheet = `Mic inputs
Gain range 0–62 dB
EIN −128 dBu, A-weighted, 150 Ω
Maximum input level +14 dBu at minimum gain
Maximum input level +16 dBu
Line inputs
Maximum input level +24 dBu
Dynamic range 900 dB`

/** One picture a main view: how to get there from the demo, and in which theme. */
const views = [
  { name: 'path-light', theme: 'light' },
  { name: 'path-dark', theme: 'dark' },
  {
    name: 'bus',
    theme: 'light',
    go: (page) =>
      page
        .getByRole('navigation', { name: 'Strips' })
        .getByRole('button', { name: /^To the stream/ })
        .click(),
  },
  { name: 'mix', theme: 'light', go: (page) => page.keyboard.press('2') },
  {
    name: 'why',
    theme: 'light',
    go: async (page) => {
      await page.waitForSelector('[data-measure-next] li')
      await page.keyboard.press('w')
      await page.getByRole('button', { name: 'Formula and source' }).click()
    },
  },
  {
    name: 'bench',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('5')
      await page.waitForSelector('[data-next]')
    },
  },
  {
    name: 'data-sheet',
    theme: 'light',
    go: async (page) => {
      await page.getByRole('button', { name: 'What to do with' }).nth(2).click()
      await page.getByRole('button', { name: 'Read a data sheet…' }).click()
      await page.getByRole('textbox', { name: 'Lines of the data sheet' }).fill(dataSheet)
    },
  },
  { name: 'second-device', theme: 'light', go: secondDevice },
  { name: 'timing', theme: 'light', go: (page) => page.keyboard.press('3') },
  {
    name: 'monitoring',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('4')
      await page.getByRole('radio', { name: 'Both', exact: true }).click()
    },
  },
  { name: 'measured-sheet', theme: 'light', go: measuredSheet },
  {
    name: 'take-check',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('5')
      await page.locator('[data-page="recording"]').click()
      await page
        .getByLabel('Choose a recording', { exact: true })
        .setInputFiles({ name: 'narrator-rehearsal.wav', mimeType: 'audio/wav', buffer: rehearsal() })
      await page.waitForSelector('[data-thirds]', { state: 'attached', timeout: 60_000 })
    },
  },
  {
    name: 'gear-shelf',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('h')
      await page.locator('[data-item="grebe"]').click()
    },
  },
  { name: 'path-phone', theme: 'light', phone: true },
  { name: 'soundcheck', theme: 'light', go: soundcheck },
  {
    name: 'all-inputs',
    theme: 'light',
    go: async (page) => {
      await allInputs(page)
      await page.waitForTimeout(16_000)
    },
  },
  {
    name: 'log',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('7')
      await page.getByRole('button', { name: 'Add a mark' }).click()
      await page.getByRole('textbox', { name: 'Name', exact: true }).fill('After the soundcheck')
      await page.keyboard.press('Enter')
      await page.waitForSelector('[data-mark]')
      await page.getByRole('button', { name: 'Sheets' }).click()
    },
  },
  {
    name: 'faults',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('4')
      await page.getByRole('radio', { name: 'Both', exact: true }).click()
      await page.keyboard.press('8')
      await page.locator('[data-symptom="echo"]').click()
      await page.locator('[data-symptom="thin"]').click()
      await page.waitForSelector('[data-fix]')
    },
  },
  {
    name: 'trainer',
    theme: 'light',
    go: async (page) => {
      await page.keyboard.press('9')
      await page.getByRole('combobox', { name: 'Grade' }).selectOption({ index: 2 })
      await page.keyboard.press('Escape')
      await page.getByRole('button', { name: 'Start', exact: true }).click()
      await page.locator('[data-make]').first().click()
    },
  },
]

if (!built() && (await build()) !== 0) process.exit(1)
mkdirSync(folder, { recursive: true })
const { chromium: browserType } = await import('@playwright/test')
// The second device needs the relay.
process.env.REMETRA_RELAY = 'on'
const { address, stop } = await serve()
const browser = await browserType.launch({
  executablePath: await chromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const [only] = process.argv.slice(2)
for (const { name, theme, go, phone = false } of views) {
  if (only && name !== only) continue
  const context = await browser.newContext({
    viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    hasTouch: phone,
    isMobile: phone,
    serviceWorkers: 'block',
    colorScheme: theme,
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  await page.goto(address)
  await page.waitForSelector('[data-gain-handle]')
  await page.evaluate(() => document.fonts.ready)
  const shown = (await go?.(page)) ?? page
  await page.waitForTimeout(1800)
  await (typeof shown.screenshot === 'function' ? shown : page).screenshot({ path: `${folder}/${name}.png` })
  await context.close()
  console.log(`docs/screenshots/${name}.png`)
}
await browser.close()
stop()
