import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { maximumLengthSequence, sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { example1 } from '../support/sessions'
import { expect, field, openFile, point, test } from './app'

const bring = async (page: Page, label: string, name: string, bytes: Uint8Array) =>
  page.getByLabel(label, { exact: true }).setInputFiles({ name, mimeType: 'audio/wav', buffer: Buffer.from(bytes) })
const openBench = async (page: Page) => {
  await openFile(page, example1())
  await page.keyboard.press('4')
  await expect(page.getByRole('heading', { name: 'Test signals' })).toBeVisible()
}

test('a test signal is saved as a WAV file of the level that was asked for', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: '997 Hz, −20', exact: true }).click()
  await page.getByLabel('Length of the signal, min').fill('0,05')
  await page.getByLabel('Frequency of the signal, Hz').fill('30000')
  await page.getByRole('button', { name: 'Save as WAV' }).click()
  await expect(page.getByRole('alert')).toContainText('not under half the sample rate')
  await page.getByLabel('Frequency of the signal, Hz').fill('997')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as WAV' }).click()
  const meter = new LevelsMeter()
  meter.push(readFileSync(await (await download).path()))
  const result = meter.end()
  expect(result.ok && result.report.format.seconds).toBe(3)
  expect(result.ok && Math.abs((result.report.channels[0]?.peak ?? 0) + 20)).toBeLessThan(0.01)
})

test('a recording’s levels; as a rehearsal they become the source’s measured level and crest', async ({ page }) => {
  await openBench(page)
  // A sine 4 dB over what example 1 has at the recorder, −30.48 dBFS: so the source is 4 dB louder, and has a sine's crest.
  await bring(page, 'Choose a recording', 'rehearsal.wav', writeWav([sine(48_000, 4, 997, -26.48), sine(48_000, 4, 997, -6).map((x) => Math.max(-0.3, Math.min(0.3, x)))], 48_000, 24, { dither: false }))
  await expect(page.locator('[data-level="1.peak"]')).toHaveText('−26.48')
  await expect(page.locator('[data-level="1.integrated"]')).toHaveText(/−29\.4[89]/) // one channel alone: 3.01 LU under its level
  await expect(page.locator('[data-levels]')).toContainText('first at')
  await expect(page.locator('[data-take]')).toContainText('72.0 dB SPL with a crest of 3.0 dB')
  await page.getByRole('button', { name: 'Keep as measured' }).click()
  await expect(page.locator('[data-take]')).toContainText('Kept as measured')
  await page.keyboard.press('1')
  await expect(field(page, 'Average, dB SPL')).toHaveValue('72')
  const end = await point(page, 'narrator-input')
  expect(Math.abs(end.average + 26.48)).toBeLessThan(0.06)
  expect(Math.abs(end.peak + 26.48)).toBeLessThan(0.06)
})

test('a loopback recording gives the round trip, and keeps it for Timing', async ({ page }) => {
  await openBench(page)
  const sent = maximumLengthSequence(14, -6)
  const [played, back] = [new Float64Array(24_000), new Float64Array(24_000)]
  played.set(sent, 200)
  back.set(sent.map((x) => 0.5 * x), 200 + 432)
  await bring(page, 'Choose a loopback recording', 'loop.wav', writeWav([played, back], 48_000, 24))
  await expect(page.locator('[data-lag]')).toContainText('432.00 frames, 9.000 ms')
  await expect(page.locator('[data-lag]')).toContainText('same polarity, return at −6.0 dB. Beyond doubt')
  await page.getByRole('button', { name: 'Keep as a round trip' }).click()
  await page.keyboard.press('2')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('9.00')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('measured')
})

test('a file that is no recording is answered in words', async ({ page }) => {
  await openBench(page)
  await bring(page, 'Choose a recording', 'letter.wav', new TextEncoder().encode('Dear Sir, please find enclosed no recording at all.'))
  await expect(page.getByRole('alert')).toContainText('does not begin like a WAV file')
  await bring(page, 'Choose a loopback recording', 'mono.wav', writeWav([sine(48_000, 0.2, 500, -20)], 48_000, 16))
  await expect(page.getByRole('alert').filter({ hasText: 'The file has 1 channel' })).toBeVisible()
})
