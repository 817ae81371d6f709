import { writeFile } from 'node:fs/promises'
import type { Browser, Page } from '@playwright/test'
import { chromium } from '@playwright/test'
import { writeWav } from '#core/signals/write-wav'
import { sine } from '#core/signals/generate'
import { FAKE_DEVICE, expect, open, test } from './app'

const RATE = 44_100

// Sound runs in real time: a machine too busy for it breaks recordings off, and they are made again until one is whole.
test.setTimeout(240_000)

/** A browser whose microphone is a file, played over and over. */
async function listening(file: string, run: (page: Page) => Promise<void>, baseURL: string | undefined) {
  const browser: Browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [...FAKE_DEVICE, `--use-file-for-fake-audio-capture=${file}`],
  })
  try {
    const page = await (await browser.newContext({ baseURL, permissions: ['microphone'] })).newPage()
    await page.addInitScript(() => {
      const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices)
      navigator.mediaDevices.getUserMedia = async (wanted) => {
        const stream = await ask(wanted)
        Object.assign(window, { track: stream.getAudioTracks()[0] })
        return stream
      }
    })
    await open(page)
    await page.keyboard.press('6')
    await page.locator('[data-open]').click()
    await expect(page.locator('[data-gauge]')).toHaveAttribute('data-source', 'device')
    await run(page)
  } finally {
    await browser.close()
  }
}
const figure = async (page: Page, key: string) =>
  Number((await page.locator(`[data-figure="${key}"]`).innerText()).replace('−', '-'))
async function toneFile(level: number, path: string) {
  const tone = sine(RATE, 10, 997, level)
  await writeFile(path, writeWav([tone, tone], RATE, 16, { dither: false }))
}

/** A passage of the tone, some seconds long. The device's beginning clicks, and so do frames that a busy machine drops: see `toPass`. */
async function cleanPassage(page: Page, level: number) {
  await page.waitForTimeout(1500)
  await page.locator('[data-passage]').click()
  await page.waitForTimeout(4000)
  expect(Math.abs((await figure(page, 'peak')) - level)).toBeLessThan(0.1001)
  expect(Math.abs((await figure(page, 'loudest')) - level)).toBeLessThan(0.1001)
}

for (const level of [-1, -20, -40, -60])
  test(`the gauge on a sine of 997 Hz at ${level} dBFS: peak within 0.1 dB, loudness within 0.2 LU`, async ({
    baseURL,
  }, info) => {
    const path = info.outputPath('tone.wav')
    await toneFile(level, path)
    await listening(
      path,
      async (page) => {
        await expect(page.locator('[data-gauge-source]')).toContainText('44.1 kHz, processing off')
        await expect(async () => {
          await cleanPassage(page, level)
          // BS.1770-4: one channel of a sine at 997 Hz reads 3.01 LU under its level.
          if (level > -60) expect(Math.abs((await figure(page, 'integrated')) - (level - 3.01))).toBeLessThan(0.2001)
        }).toPass({ timeout: 60_000 })
      },
      baseURL,
    )
  })

test('a reading is taken from it by one key, an unplugged device is said and waited for, and nothing is lost', async ({
  baseURL,
}, info) => {
  const path = info.outputPath('tone.wav')
  await toneFile(-20, path)
  await listening(
    path,
    async (page) => {
      await page.locator('[data-section="strips narrator"] h3 button').click()
      await page.locator('[data-step="narrator.n3.gain"]').getByRole('button').last().click()
      await expect(() => cleanPassage(page, -20)).toPass({ timeout: 60_000 })
      await page.evaluate(() => (document.activeElement as HTMLElement).blur())
      await page.keyboard.press('Space')
      await expect(page.locator('[data-readings]')).toContainText('gauge')
      await expect(page.locator('[data-readings]')).toContainText(/−(19\.9|20\.0)/)
      // The browser ends a track whose device went; here the test does, and then plugs it in again.
      await page.evaluate(() =>
        (window as unknown as { track: MediaStreamTrack }).track.dispatchEvent(new Event('ended')),
      )
      await expect(page.locator('[data-trouble]')).toContainText('The input is gone')
      await expect(page.locator('[data-gauge]')).toHaveAttribute('data-source', 'none')
      await expect(page.locator('[data-readings]')).toContainText('gauge')
      await page.evaluate(() => navigator.mediaDevices.dispatchEvent(new Event('devicechange')))
      await expect(page.locator('[data-gauge]')).toHaveAttribute('data-source', 'device')
      await expect.poll(() => figure(page, 'peak')).toBeGreaterThan(-21)
    },
    baseURL,
  )
})

test('the bench plays and records in one go; the recording goes the same way as a file', async ({ baseURL }, info) => {
  const path = info.outputPath('tone.wav')
  await toneFile(-20, path)
  await listening(
    path,
    async (page) => {
      await page.getByRole('link', { name: 'Bench' }).click()
      await page
        .getByRole('button', { name: /^Input full scale/ })
        .first()
        .click()
      await page.locator('[data-play-record] summary').click()
      await expect(page.locator('[data-play-record]')).toContainText('Headphones off your ears')
      const table = page.locator('main table').first()
      await expect(async () => {
        await page.locator('[data-play-record] [data-run]').click()
        await expect(page.locator('[data-play-record]')).toContainText('It rises slowly…')
        await expect(page.locator('[data-play-record]')).toContainText('Recording…')
        await expect(page.locator('[data-play-record] [data-run]')).toBeVisible({ timeout: 60_000 })
        await expect(table).toContainText('through the browser')
      }).toPass({ timeout: 200_000 })
      await expect(table).toContainText('−20.0')
    },
    baseURL,
  )
})

test('where processing cannot be switched off, nothing is taken as a reading', async ({ baseURL }, info) => {
  const path = info.outputPath('tone.wav')
  await toneFile(-20, path)
  await listening(
    path,
    async (page) => {
      await page.locator('[data-close]').click()
      await page.evaluate(() => {
        const settings = MediaStreamTrack.prototype.getSettings
        MediaStreamTrack.prototype.getSettings = function getSettings() {
          return { ...settings.call(this), autoGainControl: true }
        }
      })
      await page.locator('[data-open]').click()
      await expect(page.locator('[data-gauge]')).toContainText('could not switch off automatic gain')
      await page.waitForTimeout(800)
      await page.locator('[data-take]').click()
      await expect(page.locator('[data-told]')).toContainText('Not used')
      await expect(page.locator('[data-readings]')).toContainText('None yet')
    },
    baseURL,
  )
})
