import type { Page } from '@playwright/test'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { example1, withAt } from '../support/sessions'
import { expect, field, open, openFile, test, type, verdict } from './app'

/** Worked example 1 without any measurement: 128 frames at 48 kHz, 88 frames, 0.5 ms, and 0.3 m of air to the microphone. */
const openExample = async (page: Page) => {
  await openFile(page, example1())
  await expect(verdict(page, 'latency')).toContainText(/8\.54 (± [\d.]+ )?ms/)
  await page.keyboard.press('3')
  await expect(page.locator('[data-cell]').first()).toBeVisible()
}
const measure = async (page: Page, kind: string, values: Record<string, string>) => {
  await page.getByRole('combobox', { name: 'What was measured' }).selectOption({ label: kind })
  for (const [name, value] of Object.entries(values)) await field(page, name).fill(value)
  await page.getByRole('button', { name: 'Add', exact: true }).first().click()
}

test('the verdict leads to Timing; a cell sets rate and buffer', async ({ page }) => {
  await openFile(page, example1())
  await verdict(page, 'latency').click()
  await expect(page).toHaveURL(/\/timing\//)
  await page.locator('[data-cell="48000-512"]').click()
  await expect(verdict(page, 'latency')).toContainText(/24\.54 (± [\d.]+ )?ms/) // (1024 + 88)/48 + 0.5 + 0.874
  await expect(page.locator('[data-route-bar="software"]')).toContainText('8.42 m of air') // 24.541 ms · 343.2 m/s
  await page.locator('[data-cell="44100-512"]').click()
  await expect(verdict(page, 'latency')).toContainText(/26\.59 (± [\d.]+ )?ms/)
  await page.keyboard.press('Control+z')
  await expect(verdict(page, 'latency')).toContainText(/24\.54 (± [\d.]+ )?ms/)
})

test('a unit that prints no latency: at least so much, until its round trip is measured', async ({ page }) => {
  await openFile(page, withAt(example1(), ['gear', 2, 'latency'], undefined))
  await expect(verdict(page, 'latency')).toContainText('at least 6.21 ms') // 2 · 128/48 + 0.874
  await page.keyboard.press('3')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('≥ 5.33')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('buffers alone')
  await expect(page.locator('[data-route-bar="direct"]')).toContainText('at least 0.87 ms')
  await expect(page.locator('[data-recommendation]')).toContainText('measure the round trip')
  await measure(page, 'Round trip, by loopback', { 'Round trip, ms': '8.4' })
  await expect(verdict(page, 'latency')).toContainText(/9\.27 (± [\d.]+ )?ms/)
  await expect(page.locator('[data-cell="48000-128"]')).not.toContainText('≥')
  await expect(page.locator('[data-recommendation]')).not.toContainText('measure the round trip')
  // What a loopback cable tells is the way through the host.
  await expect(page.locator('[data-route-bar="direct"]')).toContainText('at least 0.87 ms')
})

test('a measurement in one line: it wins in its cell, the fit fills the others, refused ones stay typed', async ({
  page,
}) => {
  await openExample(page)
  await measure(page, 'Round trip, by loopback', { 'Round trip, ms': '-3' })
  await expect(page.getByRole('alert')).toContainText('−3 is out of range')
  await expect(field(page, 'Round trip, ms')).toHaveValue('-3')
  await measure(page, 'Round trip, by loopback', { 'Round trip, ms': '9,0' })
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('measured')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('9.00')
  await expect(verdict(page, 'latency')).toContainText(/9\.87 (± [\d.]+ )?ms/)
  // One point: two buffers held, so 3.667 ms besides; 256 frames then take 10.667 + 3.667.
  await expect(page.locator('[data-cell="48000-256"]')).toContainText('14.33')
  await measure(page, 'Round trip, by loopback', { 'Buffer, frames': '256', 'Round trip, ms': '15' })
  await expect(page.locator('[data-fit]')).toContainText('2.00 ± 0.25 buffers') // 6 ms over 128/48 ms are 2.25: 2 and 2.5 go with it
  await expect(page.locator('[data-finding="fit"]', { hasText: 'sum is kept' })).toBeVisible()
  await expect(page.locator('[data-finding="fit"]', { hasText: '2 to 2.5 buffers' })).toBeVisible()
  await measure(page, 'Driver reports', {
    'Buffer, frames': '128',
    'Reported in, ms': '3.5',
    'Reported out, ms': '3.5',
  })
  await expect(page.locator('[data-offset]')).toContainText('96 frames')
  await measure(page, 'Round trip, by loopback', { 'Buffer, frames': '128', 'Round trip, ms': '10' })
  await expect(page.locator('[data-finding="measurements-differ"]')).toContainText('differ by 1.00 ms')
  await page.getByRole('button', { name: 'Remove round trip 10.00 ms' }).click()
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('9.00')
})

test('two readings of the load meter: what is sustained, and the remedies with figures', async ({ page }) => {
  await openExample(page)
  await measure(page, 'Load meter reads', { 'Load, %': '83' })
  await measure(page, 'Load meter reads', { 'Buffer, frames': '256', 'Load, %': '61' })
  await expect(page.locator('[data-remedies]')).toContainText('256 would bring the load from 83 % to 61 %')
  await expect(page.getByRole('button', { name: /^48 kHz, 128 frames: .* drops out/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^48 kHz, 256 frames: .* sustained/ })).toBeVisible()
  await expect(page.locator('[data-recommendation]')).toContainText('Direct, 1.71 ms')
  await page.locator('[data-recommendation]').getByRole('button', { name: 'Set it' }).click()
  await expect(verdict(page, 'latency')).toContainText(/Monitoring delay 1\.71 (± [\d.]+ )?ms/)
})

test('a limit of one’s own moves the line and the recommendation', async ({ page }) => {
  await openExample(page)
  await page.getByRole('combobox', { name: 'Listens to' }).selectOption({ label: 'keys' })
  await expect(page.locator('[data-recommendation]')).toContainText('48 kHz, 256 frames, 13.87 ms')
  await type(page, 'Limit, ms', '6')
  await expect(page.locator('[data-recommendation]')).toContainText('48 kHz, 64 frames, 5.87 ms')
})

test('the guided trial finds the buffer in three answers, and logs them', async ({ page }) => {
  await openExample(page)
  const trial = page.locator('[data-trial]')
  await trial.getByRole('button', { name: 'Smallest stable buffer' }).click()
  await expect(trial).toContainText('Set 128 frames')
  await trial.getByRole('button', { name: 'It is fine' }).click()
  await expect(trial).toContainText('Set 64 frames')
  await trial.getByRole('button', { name: 'It crackles' }).click()
  await expect(trial).toContainText('Found in 2 answers: 128 frames')
  await expect(page.locator('[data-measurement]')).toHaveCount(2)
  await expect(page.getByRole('button', { name: /^48 kHz, 64 frames: .* drops out/ })).toBeVisible()
})

test('another device’s rate, and the disk', async ({ page }) => {
  await openExample(page)
  await page.getByText('Other devices and their rates').click()
  await page.getByRole('textbox', { name: 'Device', exact: true }).fill('Camera')
  await page.getByRole('textbox', { name: 'Its sample rate, Hz' }).fill('44100')
  await page.getByRole('form', { name: 'Add a device' }).getByRole('button').click()
  await expect(page.locator('[data-finding="rate-mismatch"]')).toContainText('8.84 % longer and 1.47 semitones flat')
  await type(page, 'To record, min', '60')
  await expect(page.locator('[data-disk]')).toHaveText('0.52') // 48 kHz, 24 bits, one channel
})

test('monitoring: both paths make a comb, whose notch and ripple are told, and which to switch off', async ({
  page,
}) => {
  await openFile(page, example1())
  await page.keyboard.press('4')
  await expect(page.locator('[data-lane="software"]')).toContainText('8.54')
  await page.getByRole('radio', { name: 'Both', exact: true }).click()
  // 8.541 − 1.708 ms apart: 1/(2τ) = 73.2 Hz; −6 dB: 9.57 dB.
  await expect(page.locator('[data-doubling]')).toContainText('First notch at 73.2 Hz, ripple 9.57 dB')
  await expect(page.locator('[data-doubling]')).toContainText('Switch off the direct monitoring')
  await type(page, 'Other path, dB', '-12')
  await expect(page.locator('[data-doubling]')).toContainText('ripple 4.46 dB')
  await page.getByRole('radio', { name: 'Direct monitoring', exact: true }).click()
  await expect(page.locator('[data-doubling]')).toHaveCount(0)
  await expect(verdict(page, 'latency')).toContainText(/1\.71 (± [\d.]+ )?ms/)
  await type(page, 'To the loudspeaker, m', '3')
  await expect(page.locator('[data-lane="direct"]')).toContainText('10.4') // 40/48 + 3.3 m / 343.2 m/s = 10.45
})

test('headphones: level at the ear, hours, a warning, and never a default over 85 dBA', async ({ page }) => {
  await open(page)
  await page.keyboard.press('4')
  const ear = page.locator('[data-ear]')
  await expect(ear).toContainText('75.0 dBA average')
  await type(page, 'Volume, dB', '0')
  // +10 dBu from 10 Ω into 62 Ω, 98 dB/mW: 116.6 dB at full scale, the average lies at −30.1 dBFS.
  await expect(ear).toContainText('86.5 dBA average')
  await expect(ear).toContainText('caution')
  await page.getByRole('button', { name: '80 dBA: −6.5 dB' }).click()
  await expect(ear).toContainText('80.0 dBA average')
  await page.getByRole('combobox', { name: 'Headphones' }).selectOption({ label: 'others, to be entered' })
  await type(page, 'Sensitivity, dB/mW', '125')
  await type(page, 'Volume, dB', '0')
  await expect(ear).toContainText('danger')
})

test('a microphone in the room’s loudspeakers: gain before feedback, and how they are set', async ({ page }) => {
  await open(page)
  await page.keyboard.press('4')
  const room = page.locator('[data-room]')
  await expect(room.locator('[data-feedback]')).toContainText(
    'Visitors’ preview: 22.3 dB gain before feedback, 1 microphone open',
  )
  await type(page, 'Microphone to loudspeaker, m', '0.3')
  // 20 lg(6/0.3) = 26.02 dB less.
  await expect(room.locator('[data-feedback]')).toContainText('3.7 dB past what is safe: it can feed back')
  await type(page, 'Send of Narrator to Visitors’ preview, dB', '-26')
  await expect(room.locator('[data-feedback]')).toContainText('16.3 dB gain before feedback')
  await type(page, 'Wanted at the listener, dB SPL', '70')
  await room.getByRole('button', { name: /^to / }).click()
  await expect(room.locator('[data-loudspeakers]')).toContainText('70.0 dB SPL now')
})

test('monitoring: all performers on one ruler; a way is chosen there, the recommendation is set, one side is seen and fixed', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('4')
  await expect(page.locator('[data-arrival]')).toHaveCount(4)
  const lane = (strip: string, way: string) => page.locator(`[data-arrival="${strip}"] [data-lane="${way}"]`)
  await expect(lane('narrator', 'software')).toHaveAttribute('aria-pressed', 'true')
  await page.locator('[data-recommended]').getByRole('button', { name: 'Set it' }).click()
  await expect(lane('narrator', 'direct')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.locator('[data-recommended]')).toContainText('In use')
  await lane('harmonium', 'direct').click()
  await expect(lane('harmonium', 'direct')).toHaveAttribute('aria-pressed', 'true')
  await expect(lane('narrator', 'direct')).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('combobox', { name: 'Heard on' }).selectOption('left')
  await expect(page.locator('[data-arrival="narrator"]')).toContainText('left ear only')
  await page.getByRole('button', { name: 'Centre it' }).click()
  await expect(page.locator('[data-one-side]')).toHaveCount(0)
  await type(page, 'Own signal against playback, %', '75')
  await expect(page.locator('[data-mix]')).toContainText('Own signal −6.0 dB, playback 0.0 dB')
  await expect(page.locator('[data-heard]')).toContainText('playback')
})

test('monitoring by ear: both ways, then one, from a synthetic voice and from a recording of one’s own', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('4')
  await page.getByRole('button', { name: 'Hear both, then one' }).click()
  await expect(page.locator('[data-playing]')).toHaveText('Both ways…')
  await expect(page.locator('[data-playing]')).toHaveText('One way…')
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.locator('[data-playing]')).toHaveText('')
  await page.getByText('With a recording of your own').click()
  const pick = page.getByLabel('Choose a recording to hear', { exact: true })
  await pick.setInputFiles({ name: 'torn.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound at all') })
  await page.getByRole('button', { name: 'Hear both, then one' }).click()
  await expect(page.getByText('This cannot be played here')).toBeVisible()
  const tone = Buffer.from(writeWav([sine(48_000, 1, 500, -3)], 48_000, 16))
  await pick.setInputFiles({ name: 'tone.wav', mimeType: 'audio/wav', buffer: tone })
  await page.getByRole('button', { name: 'Hear both, then one' }).click()
  await expect(page.locator('[data-playing]')).toHaveText('One way…')
  await expect(page.getByText('This cannot be played here')).toHaveCount(0)
})

test('headphones from the shelf are taken into the session', async ({ page }) => {
  await open(page)
  await page.keyboard.press('4')
  const headphones = page.getByRole('combobox', { name: 'Headphones', exact: true })
  await expect(headphones.locator('option', { hasText: 'from the shelf' }).first()).toBeAttached()
  const option = headphones.locator('option', { hasText: 'from the shelf' }).first()
  const name = ((await option.textContent()) ?? '').replace(', from the shelf', '')
  await headphones.selectOption({ label: `${name}, from the shelf` })
  await expect(page.getByRole('textbox', { name: 'Name of the headphones' })).toHaveValue(name)
  await expect(headphones.locator('option:checked')).toHaveText(name)
})
