import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { chromium } from '@playwright/test'
import { FAKE_DEVICE, expect, open, openFile, test, type, violations } from './app'
import { example1 } from '../support/sessions'

const openPage = async (page: Page) => {
  await openFile(page, example1())
  await page.keyboard.press('5')
  await page.locator('[data-open-cable]').click()
  await expect(page.locator('[data-cable-run]')).toBeVisible()
}
/** Only what a cable tells by itself, and the highest gain. */
const little = async (page: Page) => {
  await type(page, 'Gain marks', '2')
  for (const name of ['A plug with 150 Ω in it', 'A multimeter']) await page.getByLabel(name).uncheck()
  await page.getByLabel(/The buffer can be set/).uncheck()
}
const simulate = async (page: Page, cable: string) => {
  await page.getByLabel('Its cable').selectOption({ label: cable })
  await page.locator('[data-simulate]').click()
}
const move = (page: Page, of: string) => page.locator(`[data-move="${of}"]`)
const make = async (page: Page, of: string) => {
  await expect(move(page, of)).toBeVisible({ timeout: 60_000 })
  await move(page, of).locator('[data-make]').click()
  await expect(move(page, of)).toBeHidden()
}
const sheet = (page: Page) => page.locator('[data-measured-sheet]')
const number = (text: string) => Number(text.replace('−', '-').replace(/[^\d.-]/g, ''))
const figure = async (page: Page, id: string) => {
  const row = page.locator(`[data-figure="${id}"]`)
  return {
    measured: number(await row.locator('[data-measured]').innerText()),
    truth: number(await row.locator('[data-true]').innerText()),
  }
}
const saved = async (page: Page, name: string) => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    sheet(page).getByRole('button', { name, exact: true }).click(),
  ])
  return { name: download.suggestedFilename(), text: await readFile(await download.path(), 'utf8') }
}

// A run is over a minute of signal; the simulated interface makes it faster, and a busy machine does not.
test.setTimeout(180_000)

test('measures a whole interface by one cable, asks for each move, and keeps the sheet', async ({ page }) => {
  await openPage(page)
  await type(page, 'Gain marks', '3')
  await simulate(page, 'one good cable')
  await expect(page.locator('[data-progress]')).toContainText('%')
  await make(page, 'meter')
  await make(page, 'buffer')
  await expect(move(page, 'gain')).toContainText('Turn the gain up', { timeout: 60_000 })
  await make(page, 'gain')
  await make(page, 'gain')
  await make(page, 'plug')
  await expect(sheet(page)).toBeVisible({ timeout: 60_000 })
  for (const [id, most] of [
    ['loop-gain', 0.02],
    ['input-full-scale', 0.12],
    ['highest-gain', 0.03],
    ['dynamic-range', 0.3],
    ['response-high', 0.05],
    ['round-trip-2', 0.01],
  ] as const) {
    const { measured, truth } = await figure(page, id)
    expect(Math.abs(measured - truth), id).toBeLessThanOrEqual(most)
  }
  expect(await violations(page)).toEqual([])

  const markdown = await saved(page, 'Markdown')
  expect(markdown.name).toMatch(/\.md$/)
  expect(markdown.text).toContain('| Level | Loop gain')
  expect((await saved(page, 'CSV')).text).toContain('Equivalent input noise')
  expect((await saved(page, 'Gear file')).text).toContain('"format": "remetra.gear"')
  const json = await saved(page, 'JSON')
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.locator('[data-open-beside]').click()])
  await chooser.setFiles({ name: 'other.json', mimeType: 'application/json', buffer: Buffer.from(json.text) })
  await expect(page.locator('[data-beside]')).toContainText('may be the same')
  const [again] = await Promise.all([page.waitForEvent('filechooser'), page.locator('[data-open-beside]').click()])
  await again.setFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"format": 1}') })
  await expect(page.locator('[data-beside] [role=alert]')).toContainText('Choose a measured sheet.')

  await page.locator('[data-keep]').click()
  await expect(sheet(page).getByRole('status')).toContainText('Kept beside the data sheet')
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('[data-sheet-print]')).toContainText('for practice')
  await page.emulateMedia({ media: null })
  await page.locator('[data-page="input-full-scale"]').click()
  await expect(page.locator('[data-known]')).toContainText('One cable')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-known]')).toHaveCount(0)
})

test('asks for another cable, and ends without one', async ({ page }) => {
  await openPage(page)
  await little(page)
  await simulate(page, 'a loose contact')
  await expect(move(page, 'cable')).toContainText('poor contact', { timeout: 60_000 })
  await make(page, 'cable')
  await make(page, 'gain')
  await expect(sheet(page)).toBeVisible({ timeout: 60_000 })
  await expect(sheet(page)).toContainText('relative to full scale')
  await expect(page.locator('[data-doubt]')).toHaveCount(0)

  await simulate(page, 'no cable')
  await expect(move(page, 'cable')).toContainText('No cable found', { timeout: 60_000 })
  await move(page, 'cable').locator('[data-leave-out]').click()
  await expect(page.locator('[data-cable-run] [role=alert]')).toContainText('Nothing was measured', { timeout: 60_000 })
})

test('asks for the monitors first, plays quietly, takes no other sound for a cable, and lets everything go', async ({
  baseURL,
}) => {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: FAKE_DEVICE,
  })
  try {
    const page = await (await browser.newContext({ baseURL, permissions: ['microphone'] })).newPage()
    await page.addInitScript(() => {
      const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices)
      navigator.mediaDevices.getUserMedia = async (wanted) => {
        const stream = await ask(wanted)
        const [track] = stream.getAudioTracks()
        const settings = track?.getSettings.bind(track)
        // The fake device keeps its processing on, whatever it is asked for.
        if (track && settings)
          track.getSettings = () => ({
            ...settings(),
            echoCancellation: false,
            noiseSuppression: false,
            autoGainControl: false,
          })
        Object.assign(window, { track })
        return stream
      }
    })
    await open(page)
    await page.keyboard.press('5')
    await page.locator('[data-open-cable]').click()
    await page.locator('[data-start]').click()
    await expect(page.locator('[data-cable-run] [role=alert]')).toContainText('Turn the monitors down first')
    await page.getByLabel(/Monitors and headphones are down/).check()
    await page.locator('[data-start]').click()
    await expect(page.locator('[data-progress]')).toContainText('Looking for the cable')
    // The fake device beeps by itself: that is no cable.
    await expect(move(page, 'cable')).toContainText(/No cable found|hears something else/, { timeout: 120_000 })
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(page.locator('[data-start]')).toBeVisible()
    expect(await page.evaluate(() => (window as unknown as { track: MediaStreamTrack }).track.readyState)).toBe('ended')
  } finally {
    await browser.close()
  }
})
