import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { withEffects } from '#core/render/effects'
import { renderStrip } from '#core/render/chain'
import { writeWav } from '#core/signals/write-wav'
import { readSession } from '#core/files'
import { expect, open, openFile, saved, test, type, violations } from './app'

function demoSession() {
  const reading = readSession(JSON.parse(readFileSync('demo/net-loft.session.json', 'utf8')))
  if (!reading.ok) throw new Error('The demo is faulty.')
  return reading.session
}
async function faults(page: Page) {
  await open(page)
  await page.keyboard.press('8')
  await expect(page.locator('[data-symptoms]')).toBeVisible()
}
const cause = (page: Page, id: string) => page.locator(`[data-cause="${id}"]`)
const probability = async (page: Page, id: string) =>
  Number((await cause(page, id).locator('[data-probability]').innerText()).replace('%', ''))

test('by keyboard from a word to the cause in this chain, its fix set, undone and set again', async ({ page }) => {
  await open(page)
  // Both at once: the narrator hears the direct sound and the host’s.
  await page.keyboard.press('4')
  await page.getByRole('radio', { name: 'Both', exact: true }).click()
  await page.keyboard.press('8')
  await expect(page.locator('[data-symptoms]')).toBeVisible()
  await page.keyboard.press('c')
  await page.keyboard.type('myself twice')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-verdict-cause]')).toContainText('direct and host monitoring are both on')
  await expect(cause(page, 'direct-and-host')).toContainText(
    /Both paths are on, \d+\.\d+ ms apart: first notch at \d+ Hz/,
  )
  const fix = cause(page, 'direct-and-host').locator('[data-fix]')
  await expect(fix).toContainText('Tried on this session')
  await fix.getByRole('button', { name: 'Set it' }).click()
  await expect(page.locator('[data-fixed]')).toContainText('Check again: Clap once')
  await expect(cause(page, 'direct-and-host')).not.toContainText('Both paths are on')
  await page.keyboard.press('Control+z')
  await expect(cause(page, 'direct-and-host')).toContainText('Both paths are on')
  await page.keyboard.press('Control+y')
  await expect(cause(page, 'direct-and-host')).not.toContainText('Both paths are on')
})

test('answers rank anew, are taken back, and what is ruled out stays with its reason', async ({ page }) => {
  await faults(page)
  await page.locator('[data-symptom="hum"]').click()
  await expect(page.locator('[data-next-check]')).toContainText(/\d+ s|min/)
  const before = await probability(page, 'earth-loop')
  await page.getByText('Another check').click()
  await page.getByRole('button', { name: /Unplug the power supply/ }).click()
  // The caution stands where the hand is.
  await expect(page.locator('[data-check="on-battery"] [data-caution]')).toContainText('Never lift a protective earth')
  await expect(page.locator('[data-check="on-battery"] [data-caution]')).toContainText('qualified person')
  await page.locator('[data-outcome="stays"]').click()
  await expect(page.locator('[data-answers]')).toContainText('It stays')
  await expect.poll(() => probability(page, 'earth-loop')).toBeLessThan(before / 2)
  await page.keyboard.press('z')
  await expect(page.locator('[data-answers]')).toHaveCount(0)
  await expect.poll(() => probability(page, 'earth-loop')).toBeCloseTo(before, 0)
  await page.locator('[data-symptom="hum"]').click()
  await page.locator('[data-symptom="nothing"]').click()
  await expect(page.locator('[data-check="where-it-dies"]')).toBeVisible()
  await page.locator('[data-outcome="ears"]').click()
  await page.getByText(/Ruled out:/).click()
  await expect(page.locator('[data-out="phantom-missing"]')).toContainText('Checked: all move, but nothing is heard')
  await page.reload()
  await expect(page.locator('[data-symptom="nothing"]')).toHaveAttribute('aria-pressed', 'true')
  expect(await violations(page)).toEqual([])
})

test('all strips: the cause names the one in which it is; when it happens tells more', async ({ page }) => {
  await faults(page)
  await page.keyboard.press('1')
  await page
    .getByRole('navigation', { name: 'Strips' })
    .getByRole('button', { name: /^Cello/ })
    .click()
  await type(page, 'Gain, dB', '55')
  await page.keyboard.press('Escape')
  await page
    .getByRole('navigation', { name: 'Strips' })
    .getByRole('button', { name: /^Narrator/ })
    .click()
  await page.keyboard.press('8')
  await page.locator('[data-symptom="distortion"]').click()
  await page.getByRole('combobox', { name: 'Where it is heard' }).selectOption('all strips')
  await page.getByRole('combobox', { name: 'When it happens' }).selectOption('in loud passages')
  await expect(cause(page, 'converter-over')).toContainText('The converter is driven over 0 dBFS, Cello')
  await expect(cause(page, 'converter-over')).toContainText('over 0 dBFS')
  await cause(page, 'converter-over').getByRole('button', { name: 'Set it' }).click()
  await saved(page)
  await expect(cause(page, 'converter-over')).not.toContainText('the converter clips now')
})

test('a recording answers by itself: hum with its lines, and the floor against the plan; a broken one is told', async ({
  page,
}) => {
  await faults(page)
  await page.locator('[data-symptom="hum"]').click()
  await expect(cause(page, 'supply-ripple')).toBeVisible()
  const rate = 48_000
  const sound = renderStrip(demoSession(), 'narrator', {
    sampleRate: rate,
    programmeSeconds: 4,
    pauseSeconds: 3,
    seed: 3,
  })
  const channels = withEffects(sound, rate, { hum: { mains: 50, level: -46, lines: 'even' } }, 1)
  const pick = page.getByLabel('Choose a recording of the fault', { exact: true })
  await pick.setInputFiles({ name: 'torn.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound at all') })
  await expect(page.locator('[data-heard-panel]').getByRole('alert')).toContainText('was not measured')
  await pick.setInputFiles({
    name: 'hum.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from(writeWav([...channels], rate, 24)),
  })
  await expect(page.locator('[data-heard-says]')).toContainText('Hum of 50 Hz')
  await expect(page.locator('[data-heard-says]')).toContainText('planned are')
  await expect(page.locator('[data-verdict-cause]')).toContainText('ripple of a power supply')
  await expect(page.locator('[data-answers]')).toContainText('100 or 120 Hz and its multiples')
})

test('a session without an interface, and a word that nobody uses: said, nothing breaks', async ({ page }) => {
  const { gear, strips, ...rest } = demoSession()
  const [narrator] = strips
  await openFile(page, {
    ...rest,
    name: 'Only a voice',
    gear: gear.filter(({ id }) => id === 'narrator-voice' || id === 'sandpiper'),
    strips: [{ id: 'narrator', name: 'Narrator', stages: narrator?.stages.slice(0, 2) }],
    pairs: undefined,
    soundcheck: undefined,
  } as never)
  await page.keyboard.press('8')
  for (const id of ['hiss', 'crackle', 'late', 'nothing', 'howl', 'pitch']) {
    await page.locator(`[data-symptom="${id}"]`).click()
    await expect(page.locator('[data-verdict-cause]')).toContainText('%')
  }
  await expect(page.locator('main')).not.toContainText('NaN')
  await page.getByRole('searchbox', { name: 'Find a symptom' }).fill('xyzzy')
  await expect(page.locator('[data-symptoms]')).toContainText('No symptom matches')
})

test('before anything is complained of: what this chain is prone to, with its figures, a press from its search', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('8')
  const room = page.locator('[data-prone-cause="room-noise"]')
  await expect(room).toContainText('The room makes 96 % of the noise.')
  await room.getByRole('button', { name: 'It hisses?' }).click()
  await expect(page.locator('[data-symptom="hiss"]')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.locator('[data-verdict-cause]')).toBeVisible()
})

test('a finding on Path leads to its cause, and the cause back to the finding', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '60')
  const finding = page.locator('[data-finding]').first()
  await finding.getByRole('button', { expanded: false }).click()
  await finding.locator('[data-to-cause]').click()
  await expect(page.locator('[data-meant]')).toContainText('belongs to')
  await expect(page.locator('[data-verdict-cause]')).toBeVisible()
  const back = page.locator('[data-on-path]').first()
  await expect(back).toBeVisible()
  await back.click()
  await expect(page).toHaveURL(/\/path\/.*finding=/)
  await expect(page.locator('[data-finding]').getByRole('button', { expanded: true })).toHaveCount(1)
})
