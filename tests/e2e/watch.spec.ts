import type { Page } from '@playwright/test'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { expect, open, test, violations } from './app'

const lane = (page: Page, strip: string) => page.locator(`[data-lane="${strip}"]`)
const states = (page: Page) =>
  page.locator('[data-lane]').evaluateAll((all) => all.map((each) => each.getAttribute('data-state')))

async function allInputs(page: Page) {
  await open(page)
  await page.keyboard.press('6')
  await expect(page.locator('[data-gauge]')).toBeVisible()
  await page.keyboard.press('l')
  await expect(page.locator('[data-all-inputs]')).toBeVisible()
}

/** Performers by a seed that is the same every time, in their loudest passage. */
async function simulated(page: Page) {
  await allInputs(page)
  await page.evaluate(() => {
    Math.random = () => 0.0042
  })
  await page.locator('[data-simulate-all]').click()
  await page.getByRole('radio', { name: 'loudest passage' }).click()
  await page
    .locator('#all-inputs-title')
    .focus()
    .catch(() => undefined)
}
/** Until every input was heard long enough for words about it. */
const settled = (page: Page) =>
  expect(async () => {
    expect(await states(page)).not.toContain('waiting')
    await expect(page.locator('[data-lane-says]').first()).not.toBeEmpty()
  }).toPass({ timeout: 60_000 })

test('from strangers to everybody in the window, by keys alone, and back with one undo', async ({ page }) => {
  test.setTimeout(240_000)
  await simulated(page)
  await expect(page.locator('[data-lane]')).toHaveCount(4)
  await settled(page)
  // What is wrong on the floor is found by looking, and told.
  await page.locator('[data-look="swapped"]').click()
  await expect(page.locator('[data-told]')).toContainText(/were swapped\. They are right now/)
  await page.locator('[data-look="pad"]').click()
  await expect(page.locator('[data-told]')).toContainText(/had a pad pressed\. It is out now/)
  await page.locator('[data-look="pad"]').click()
  await expect(page.locator('[data-told]')).toContainText('all of them are right')
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  // Enter turns what is offered, until nothing is.
  await expect(async () => {
    await settled(page)
    await page.keyboard.press('Enter')
    const now = await states(page)
    const atTop = await page.locator('[data-lane-says]', { hasText: 'The gain is at its top' }).count()
    expect(now.filter((each) => each !== 'in-window')).toHaveLength(atTop)
  }).toPass({ timeout: 180_000, intervals: [3000] })
  await page.keyboard.press(' ')
  await expect(page.locator('[data-told]')).toHaveText('4 readings taken.')
  await page.keyboard.press('l')
  await expect(page.locator('[data-readings] li, [data-reading-row]').first()).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-says]')).toHaveCount(0)
})

test('no violation of accessibility while all inputs are heard, also on a phone', async ({ page }) => {
  test.setTimeout(120_000)
  await simulated(page)
  await settled(page)
  expect(await violations(page)).toEqual([])
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(lane(page, 'narrator')).toBeVisible()
  expect(await violations(page)).toEqual([])
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})

test('a take is watched, and its clips and headroom stand in the log with a mark', async ({ page }) => {
  test.setTimeout(120_000)
  await simulated(page)
  await settled(page)
  await page.locator('[data-take-of-inputs]').click()
  await settled(page)
  await page.locator('[data-take-of-inputs]').click()
  await expect(page.locator('[data-take-told]')).toContainText(/Take 1 is in the log\. .+ dB headroom/)
  await page.keyboard.press('7')
  const row = page.locator('[data-take="1"]')
  await expect(row).toContainText('With take 1')
  await expect(row.getByRole('textbox', { name: 'Note' })).toHaveValue(/Cello clipped \d+ times, at 0:0\d/)
})

test('leaving the page of all inputs ends the listening', async ({ page }) => {
  await simulated(page)
  await expect(page.locator('[data-all-inputs]')).toHaveAttribute('data-source', 'simulated')
  await expect(page.locator('[data-watch-verdict]')).toContainText('Listening for')
  await page.keyboard.press('l')
  await expect(page.locator('[data-all-inputs]')).toHaveCount(0)
  await page.keyboard.press('l')
  await expect(page.locator('[data-all-inputs]')).toHaveAttribute('data-source', 'none')
})

test('a device of eight channels: every lane reads its own, within 0.1 dB', async ({ page }) => {
  test.setTimeout(120_000)
  // A browser’s own fake device has two channels at most.
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext({ sampleRate: 48_000 })
      const merger = context.createChannelMerger(8)
      for (let c = 0; c < 8; c++) {
        const tone = new OscillatorNode(context, { frequency: 997 })
        const size = new GainNode(context, { gain: 10 ** (-(6 + 3 * c) / 20) })
        tone.connect(size).connect(merger, 0, c)
        tone.start()
      }
      const end = new MediaStreamAudioDestinationNode(context, {
        channelCount: 8,
        channelCountMode: 'explicit',
        channelInterpretation: 'discrete',
      })
      merger.connect(end)
      await context.resume()
      const [track] = end.stream.getAudioTracks()
      const own = track?.getSettings.bind(track)
      if (track && own) track.getSettings = () => ({ ...own(), channelCount: 8, sampleRate: 48_000 })
      return end.stream
    }
  })
  await allInputs(page)
  await page.locator('[data-listen]').click()
  await expect(page.locator('[data-all-inputs]')).toHaveAttribute('data-source', 'device')
  const peakOf = async (strip: string) =>
    Number((await lane(page, strip).locator('[data-lane-peak]').innerText()).replace('−', '-'))
  await expect(async () => {
    await page.locator('[data-restart]').click()
    await page.waitForTimeout(1500)
    for (const [strip, channel] of [
      ['narrator', 0],
      ['cello', 1],
      ['harmonium', 3],
      ['tide', 4],
    ] as const)
      expect(Math.abs((await peakOf(strip)) + 6 + 3 * channel), strip).toBeLessThanOrEqual(0.1)
  }).toPass({ timeout: 60_000 })
  // A cable that is in another input is followed by hand.
  await lane(page, 'tide').getByRole('combobox').selectOption('7')
  await expect(async () => expect(Math.abs((await peakOf('tide')) + 27)).toBeLessThanOrEqual(0.1)).toPass()
})

test('a recording of sixteen channels is played as a device would be: every lane reads its own', async ({ page }) => {
  test.setTimeout(120_000)
  await allInputs(page)
  const tones = Array.from({ length: 16 }, (_, c) => sine(48_000, 8, 997, -6 - 2 * c))
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.locator('[data-play-file]').click()])
  await chooser.setFiles({
    name: 'sixteen.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from(writeWav(tones, 48_000, 24)),
  })
  await expect(page.locator('[data-file]')).toContainText('“sixteen.wav”, 16 channels')
  for (const [strip, channel] of [
    ['narrator', 0],
    ['cello', 1],
    ['harmonium', 3],
    ['tide', 4],
  ] as const)
    await expect(async () => {
      const peak = Number((await lane(page, strip).locator('[data-lane-peak]').innerText()).replace('−', '-'))
      expect(Math.abs(peak + 6 + 2 * channel), strip).toBeLessThanOrEqual(0.1)
    }).toPass({ timeout: 30_000 })
  await lane(page, 'tide').getByRole('combobox').selectOption('15')
  await expect(async () => {
    const peak = Number((await lane(page, 'tide').locator('[data-lane-peak]').innerText()).replace('−', '-'))
    expect(Math.abs(peak + 36)).toBeLessThanOrEqual(0.1)
  }).toPass({ timeout: 30_000 })
  await expect(page.locator('[data-file]')).toContainText('The file has ended.', { timeout: 30_000 })
  await page.locator('[data-take-all]').click()
  await expect(page.locator('[data-told]')).toContainText('taken')
  await page.locator('[data-stop]').click()

  const [again] = await Promise.all([page.waitForEvent('filechooser'), page.locator('[data-play-file]').click()])
  await again.setFiles({ name: 'none.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound at all, only words') })
  await expect(page.locator('[data-file]')).toContainText('does not start like a WAV file')
})

test('what was heard opens Faults with its answers, once', async ({ page }) => {
  await open(page)
  const key = new URL(page.url()).pathname.split('/').at(-1)
  await page.goto(`/faults/${key}?strip=cello&symptom=hum&answers=hum-lines:even,nonsense:yes`)
  await expect(page.locator('[data-causes]')).toContainText(/suppl/i)
  await expect(page).not.toHaveURL(/symptom/)
})
