import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { maximumLengthSequence, sine, whiteNoise } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { joined } from '#core/numeric/joined'
import { example1 } from '../support/sessions'
import { expect, field, open, openFile, point, test, type, unfoldSheets } from './app'

const bring = async (page: Page, label: string, name: string, bytes: Uint8Array) =>
  page.getByLabel(label, { exact: true }).setInputFiles({ name, mimeType: 'audio/wav', buffer: Buffer.from(bytes) })
const turnTo = (page: Page, id: string) => page.locator(`[data-page="${id}"]`).click()
const openBench = async (page: Page, id: string, file: SessionLike | null = example1()) => {
  if (file) await openFile(page, file)
  else await open(page)
  await page.keyboard.press('5')
  await turnTo(page, id)
}
type SessionLike = Parameters<typeof openFile>[1]
/** Does a procedure on the simulated interface, to its end. */
const trySimulated = async (page: Page, rows: number) => {
  await page.getByRole('button', { name: 'Try it on the simulated interface' }).click()
  await expect(page.locator('[data-row]')).toHaveCount(rows, { timeout: 60_000 })
  await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0, { timeout: 60_000 })
}
const number = (text: string) => Number(text.replace('−', '-').replace(/[^\d.-]/g, ''))
/** Measured and true value of a figure of the result. */
async function figure(page: Page, name: string) {
  const body = page.locator(`[data-figure="${name}"]`)
  return {
    measured: number(await body.locator('[data-measured]').innerText()),
    truth: number(await body.locator('[data-true]').innerText()),
  }
}
const near = async (page: Page, name: string, tolerance: number) => {
  const { measured, truth } = await figure(page, name)
  expect(Math.abs(measured - truth), `${name}: ${measured} against ${truth}`).toBeLessThanOrEqual(tolerance)
}
const keep = async (page: Page) => {
  await page.getByRole('button', { name: 'Keep as measured' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Kept' })).toBeVisible()
}

test('begins with what is worth measuring here, each with its gain and minutes, and what is measured already', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('5')
  const start = page.locator('[data-bench-start]')
  await expect(start.locator('[data-next]').first()).toContainText(/± [\d.]+ → ± [\d.]+ dB .*, \d+ min/)
  const known = start.locator('[data-known="output-full-scale"]')
  await expect(known).toContainText('not measured')
  await known.getByRole('button').click()
  await trySimulated(page, 3)
  await keep(page)
  await turnTo(page, 'start')
  await expect(known).toContainText('dBu')
})

test('a test signal is saved as a WAV file of the level that was asked for', async ({ page }) => {
  await openBench(page, 'signals')
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
  await openBench(page, 'recording')
  // A sine 4 dB over what example 1 has at the recorder, −30.48 dBFS: so the source is 4 dB louder, and has a sine's crest.
  await bring(
    page,
    'Choose a recording',
    'rehearsal.wav',
    writeWav(
      [sine(48_000, 4, 997, -26.48), sine(48_000, 4, 997, -6).map((x) => Math.max(-0.3, Math.min(0.3, x)))],
      48_000,
      24,
      { dither: false },
    ),
  )
  await expect(page.locator('[data-level="1.peak"]')).toHaveText('−26.48')
  await expect(page.locator('[data-level="1.integrated"]')).toHaveText(/−29\.4[89]/) // one channel alone: 3.01 LU under its level
  await expect(page.locator('[data-take]')).toContainText('72.0 dB SPL with a crest of 3.0 dB')
  await expect(page.locator('[data-no-chance]')).toContainText('Rehearse for half a minute')
  await page.getByRole('button', { name: 'Channel 2' }).click()
  await expect(page.locator('[data-levels]')).toContainText('a full-scale sine reads 0, as peak and as RMS')
  const csv = async (part: string) => {
    const download = page.waitForEvent('download')
    await page.locator(`[data-save="${part}"]`).click()
    return readFileSync(await (await download).path(), 'utf8')
  }
  expect(await csv('levels')).toMatch(/^Channel,"Peak, dBFS",.*\r\n1,-26\.48,/)
  expect(await csv('clips')).toMatch(/^Channel,"At, s",Samples\r\n2,\d/)
  await expect(page.locator('[data-levels]')).toContainText('Channel 2 clips, first at')
  await expect(page.locator('[data-no-chance]')).toContainText('The rehearsal clips itself')
  await page.getByRole('button', { name: 'Channel 1' }).click()
  await keep(page)
  await page.keyboard.press('1')
  await expect(field(page, 'Average, dB SPL')).toHaveValue('72')
  const end = await point(page, 'narrator-input')
  expect(Math.abs(end.average + 26.48)).toBeLessThan(0.06)
  expect(Math.abs(end.peak + 26.48)).toBeLessThan(0.06)
})

test('a rehearsal’s chance of clipping in a take, its surge, and the spectrum of a stretch', async ({ page }) => {
  await openBench(page, 'recording')
  const phrases = joined(Array.from({ length: 40 }, (_, i) => whiteNoise(16_000, 1, -26 + ((i * 7) % 6), i + 1)))
  await bring(page, 'Choose a recording', 'rehearsal.wav', writeWav([phrases], 16_000, 24))
  await type(page, 'Length of the take, min', '30')
  await expect(page.locator('[data-chance]')).toContainText('%')
  await expect(page.locator('[data-take]')).toContainText('40 blocks of 1.0 s')
  await page.locator('summary', { hasText: 'Third octaves' }).click()
  await expect(page.locator('[data-thirds] td').first()).toHaveText('20.0')
  // The stretch is chosen by dragging over the drawing, and by typing.
  const box = await page.locator('[data-overview]').boundingBox()
  if (!box) throw new Error('no drawing')
  await page.mouse.move(box.x + 46 + 0.25 * (box.width - 46), box.y + 40)
  await page.mouse.down()
  await page.mouse.move(box.x + 46 + 0.5 * (box.width - 46), box.y + 40, { steps: 4 })
  await page.mouse.up()
  expect(Math.abs(Number(await field(page, 'Stretch from, s').inputValue()) - 10)).toBeLessThan(0.3)
  expect(Math.abs(Number(await field(page, 'Stretch to, s').inputValue()) - 20)).toBeLessThan(0.3)
  await type(page, 'Stretch from, s', '25')
  await expect(page.getByRole('alert')).toContainText('its end is after its start')
  await keep(page)
  await page.keyboard.press('1')
  await unfoldSheets(page)
  await expect(
    page.getByRole('button', { name: /measured: where .*Surge/i }).or(field(page, 'Surge, dB')),
  ).not.toHaveCount(0)
  expect(Number(await field(page, 'Surge, dB').inputValue())).toBeGreaterThan(0)
})

test('a rehearsal on the simulated interface: the source’s true level beside the measured one', async ({ page }) => {
  await openBench(page, 'recording', null)
  await page.getByRole('button', { name: 'Try it on the simulated interface' }).click()
  await expect(page.locator('[data-chance]')).toContainText('%', { timeout: 60_000 })
  const take = await page.locator('[data-take]').innerText()
  const measured = number(/its source is at\s+([\d.−]+)/.exec(take)?.[1] ?? '')
  const truth = number(await page.locator('[data-true]').innerText())
  // The input's full scale in force is not the simulated interface's, which may be 0.9 dB off.
  expect(Math.abs(measured - truth)).toBeLessThan(1.5)
  await expect(page.locator('[data-thirds]')).toBeAttached({ timeout: 60_000 })
})

test('the unit is measured step by step on the simulated interface, each result resting on the one before', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await openBench(page, 'output-full-scale', null)
  await expect(page.getByText('never an amplifier’s loudspeaker output').first()).toBeVisible()
  await trySimulated(page, 3)
  await near(page, 'Full scale gives', 0.05)
  await keep(page)
  await turnTo(page, 'input-full-scale')
  await trySimulated(page, 2)
  await near(page, '0 dBFS at', 0.05)
  await expect(page.locator('[data-outcome]')).toContainText('true values are shown beside it')
  await keep(page)
  await turnTo(page, 'gain-marks')
  await trySimulated(page, 6)
  await near(page, 'Highest gain', 0.05)
  await expect(page.locator('[data-outcome]')).toContainText('twelve o’clock')
  await keep(page)
  await turnTo(page, 'equivalent-input-noise')
  await trySimulated(page, 4)
  await near(page, 'EIN, 150 Ω', 0.3)
  await near(page, 'Noise crossover', 1)
  await keep(page)
  await turnTo(page, 'dynamic-range')
  await trySimulated(page, 3)
  await near(page, 'Dynamic range', 0.3)
  await keep(page)
  // The plans follow: the figures in force are the measured ones, and Undo takes back one after the other.
  await turnTo(page, 'compare')
  await expect(page.locator('[data-compared^="Dynamic range"] td').nth(1)).not.toHaveText('–')
  await expect(page.locator('[data-compared^="Highest gain"] td').nth(1)).not.toHaveText('–')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-compared^="Dynamic range"] td').nth(1)).toHaveText('–')
})

test('noise, balance, round trip and sound level on the simulated interface', async ({ page }) => {
  test.setTimeout(240_000)
  await openBench(page, 'idle-noise', null)
  await trySimulated(page, 1)
  await expect(page.locator('[data-outcome]')).toContainText('Hum of 50 Hz')
  await keep(page)
  await turnTo(page, 'channel-balance')
  await trySimulated(page, 1)
  await near(page, 'mic2 over mic1', 0.05)
  await expect(page.locator('[data-outcome]')).toContainText('The two have opposite polarity')
  await turnTo(page, 'round-trip')
  await trySimulated(page, 2)
  await near(page, '128 frames at 48 kHz', 0.001)
  await keep(page)
  await turnTo(page, 'microphone-level')
  await trySimulated(page, 1)
  await expect(page.locator('[data-figure="Average at the capsule"]')).toBeVisible()
  await page.keyboard.press('1')
  await page.locator('summary', { hasText: 'Notes' }).click()
  await expect(page.getByRole('textbox', { name: 'Notes on the session' })).toHaveValue(
    /idle noise of Saltmarsh Four, mic1, at 35\.0 dB: .*hum of 50 Hz/,
  )
})

test('a shorted plug is not taken for a quiet preamp', async ({ page }) => {
  await openBench(page, 'equivalent-input-noise')
  await type(page, 'Resistor in the plug, Ω', '0')
  await trySimulated(page, 4)
  await expect(page.locator('[data-outcome]')).toContainText('A shorted plug makes no noise')
  await expect(page.getByRole('button', { name: 'Keep as measured' })).toHaveCount(0)
})

test('a page that lacks something says what', async ({ page }) => {
  await openBench(page, 'output-full-scale')
  await expect(page.locator('[data-procedure]')).toContainText('Unit has no output. Add one in the unit’s dialog')
  await page.keyboard.press('1')
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  await page.getByRole('button', { name: 'Add an output' }).click()
  await type(page, 'Maximum output level, dBu', '18')
  await page.keyboard.press('Escape')
  await page.keyboard.press('5')
  await field(page, 'It reads, V').fill('0.6153')
  await page.getByRole('button', { name: 'Add the reading' }).click()
  await expect(page.locator('[data-judgement]')).toContainText('As in the data sheet')
  await keep(page)
  // What was kept stands in the dialog, as measured.
  await page.keyboard.press('1')
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  await expect(page.locator('[data-output="out1"]')).toContainText('measured')
  // And on the page when the program is opened again.
  await page.reload()
  await page.waitForSelector('[data-gain-handle]')
  await page.keyboard.press('5')
  await turnTo(page, 'output-full-scale')
  await expect(page.locator('[data-known]')).toContainText('18.00 dBu ± 0.13')
  await expect(page.locator('[data-page="output-full-scale"]')).toContainText('measured')
})

test('readings are typed, and wrong ones refused in words', async ({ page }) => {
  await openBench(page, 'output-full-scale', null)
  await field(page, 'It reads, V').fill('loud')
  await page.getByRole('button', { name: 'Add the reading' }).click()
  await expect(page.getByRole('alert')).toContainText('is not a number')
  await field(page, 'It reads, V').fill('0,6153')
  await page.getByRole('button', { name: 'Add the reading' }).click()
  // 0.6153 V is −2 dBu, so −20 dBFS and 20 dB more give +18 dBu.
  await expect(page.locator('[data-measured]')).toHaveText('18.00 dBu')
  await expect(page.locator('[data-judgement]')).toContainText('As in the data sheet')
  // What was read at one output says nothing of another.
  await page.getByRole('combobox', { name: 'Output' }).selectOption('phones')
  await expect(page.locator('[data-row]')).toHaveCount(0)
  await page.getByRole('combobox', { name: 'Output' }).selectOption('main')
  await expect(page.locator('[data-row]')).toHaveCount(1)
})

test('a loopback recording gives the round trip, and keeps it for Timing', async ({ page }) => {
  const file = example1() as SessionLike & { gear: { id: string; outputs?: unknown[] }[] }
  for (const gear of file.gear)
    if (gear.id === 'unit') gear.outputs = [{ id: 'main', type: 'line', specs: { fullScale: 18 } }]
  await openBench(page, 'round-trip', file)
  const sent = maximumLengthSequence(14, -6)
  const [played, back] = [new Float64Array(24_000), new Float64Array(24_000)]
  played.set(sent, 200)
  back.set(
    sent.map((x) => 0.5 * x),
    200 + 432,
  )
  await bring(page, 'Choose recordings', 'loop.wav', writeWav([played, back], 48_000, 24))
  await expect(page.locator('[data-outcome]')).toContainText('432.00 frames, same polarity, return at −6.0 dB')
  await expect(page.locator('[data-measured]')).toHaveText('9.000 ms')
  await page.getByRole('button', { name: 'Start over' }).click()
  // The same from two files: what was played, and what came back.
  await bring(page, 'Played file', 'played.wav', writeWav([played], 48_000, 24))
  await expect(field(page, 'Came back: channel')).toHaveValue('1')
  await bring(page, 'Choose recordings', 'back.wav', writeWav([back], 48_000, 24))
  await expect(page.locator('[data-measured]')).toHaveText('9.000 ms')
  await keep(page)
  await page.keyboard.press('3')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('9.00')
  await expect(page.locator('[data-cell="48000-128"]')).toContainText('measured')
})

test('units side by side, in words for the strip, and as a table', async ({ page }) => {
  await openBench(page, 'compare', null)
  await expect(page.locator('[data-compared="Noise crossover"] td').first()).toHaveText('33.3')
  await expect(page.locator('[data-place]').first()).toContainText(/quieter|noisier/)
  await page.getByRole('checkbox', { name: 'Shingle Two' }).check()
  await expect(page.locator('[data-place="shingle"]')).toContainText(/ms (sooner|later)/)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export as CSV' }).click()
  const table = readFileSync(await (await download).path(), 'utf8')
  expect(table.split('\r\n')[0]).toContain('"Saltmarsh Four, mic1, data sheet"')
  expect(table).toContain('Noise crossover,dB,33.3')
})

test('a file that is no recording is answered in words', async ({ page }) => {
  await openBench(page, 'recording')
  await bring(
    page,
    'Choose a recording',
    'letter.wav',
    new TextEncoder().encode('Dear Sir, please find enclosed no recording at all.'),
  )
  await expect(page.getByRole('alert')).toContainText('does not start like a WAV file')
  await turnTo(page, 'equivalent-input-noise')
  await type(page, 'Channel of the file', '2')
  await bring(page, 'Choose recordings', 'mono.wav', writeWav([sine(48_000, 0.2, 500, -20)], 48_000, 16))
  await expect(page.getByRole('alert').filter({ hasText: 'The file has 1 channel' })).toBeVisible()
})
