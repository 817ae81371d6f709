import type { SessionFile } from '../support/sessions'
import { example1, example2 } from '../support/sessions'
import { expect, field, gain, open, openFile, paste, point, test, type, unfoldSheets, verdict, startBlank } from './app'

const near = (actual: number, expected: number) =>
  expect(Math.abs(actual - expected), `${actual} against ${expected}`).toBeLessThanOrEqual(0.05)

test('a first visit lands in the demo, with the three answers', async ({ page }) => {
  await open(page)
  await expect(verdict(page, 'headroom')).toContainText(/Headroom 19\.1 (± 6\.7 )?dB/)
  await expect(verdict(page, 'floor')).toContainText('the room makes 96 % of it')
  await expect(verdict(page, 'latency')).toContainText(/8\.65 (± [\d.]+ )?ms/)
  await expect(page.getByRole('button', { name: 'start your own' })).toBeVisible()
})

test('worked example 1 on the screen, to 0.05 dB', async ({ page }) => {
  await open(page)
  await paste(page, JSON.stringify(example1()))
  await expect(verdict(page, 'headroom')).toContainText(/19\.5 (± [\d.]+ )?dB/)
  const source = await point(page, 'narrator-source')
  near(source.average, 78.46)
  near(source.peak, 89.45)
  near(source.headroom, 44.55)
  near((await point(page, 'narrator-mic')).average, -50.48)
  const end = await point(page, 'narrator-input')
  near(end.average, -30.48)
  near(end.peak, -19.49)
  near(end.noise, -80.75)
  near(end.snr, 50.28)
  await expect(page.locator('[data-noise="room"]')).toContainText('96 %')
  await expect(page.locator('[data-noise="self-noise"]')).toContainText('3.8 %')
})

test('worked example 2 on the screen, to 0.05 dB', async ({ page }) => {
  await open(page)
  await paste(page, JSON.stringify(example2()))
  await expect(verdict(page, 'floor')).toContainText('the preamp makes 65 % of it')
  const end = await point(page, 'narrator-input')
  near(end.average, -22.68)
  near(end.peak, -11.69)
  near(end.noise, -89.37)
  near(end.snr, 66.69)
})

test('one’s own chain by typing: worked example 1 entered field by field into a new session', async ({ page }) => {
  await open(page)
  await startBlank(page)
  await page.keyboard.press('Escape')
  await unfoldSheets(page)
  for (const [name, value] of [
    ['Average, dB SPL', '68'],
    ['Distance, m', '0,3'],
    ['Crest factor, dB', '14'],
    ['Surge, dB', '6'],
    ['Room noise, dBA', '28'],
    ['Sensitivity, mV/Pa', '15'],
    ['Impedance, Ω', '200'],
    ['Self-noise, dBA', '14'],
    ['Maximum SPL, dB SPL', '134'],
    ['Maximum input level, dBu', '15'],
    ['EIN, dBu', '−127'],
    ['Dynamic range, dB', '110'],
    ['Input impedance, Ω', '2400'],
    ['Gain, dB', '35'],
  ] as const)
    await type(page, name, value)
  const end = await point(page, 's3')
  near(end.average, -30.48)
  near(end.noise, -80.75)
  near(end.snr, 50.28)
})

test('the gain by keys, by typing and by dragging moves everything behind it at once', async ({ page }) => {
  await open(page)
  const slider = page.getByRole('slider', { name: 'Gain', exact: true })
  // The cards stand after the section: until then the key goes to the handle there.
  await expect(slider).toBeVisible()
  await page.keyboard.press('g')
  await expect(slider).toBeFocused()
  await page.keyboard.press('ArrowUp')
  await expect(gain(page)).toHaveValue('36')
  await expect(verdict(page, 'headroom')).toContainText(/18\.1 (± [\d.]+ )?dB/)
  await page.keyboard.press('PageDown')
  await expect(gain(page)).toHaveValue('30')
  await page.keyboard.press('End')
  await expect(verdict(page, 'headroom')).toContainText(/5\.9 (± [\d.]+ )?dB too loud/)
  await type(page, 'Gain, dB', '35')
  await expect(verdict(page, 'headroom')).toContainText(/19\.1 (± [\d.]+ )?dB/)

  const handle = page.locator('[data-gain-handle]')
  const box = await handle.boundingBox()
  if (!box) throw new Error('no handle')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 40, { steps: 8 })
  const during = Number(await slider.getAttribute('aria-valuenow'))
  expect(during).toBeLessThan(32)
  await expect(verdict(page, 'headroom')).not.toContainText(/19\.1 (± [\d.]+ )?dB/)
  await page.keyboard.press('Escape')
  await expect(gain(page)).toHaveValue('35')
  await page.mouse.up()
  await expect(gain(page)).toHaveValue('35')

  const from = await handle.boundingBox()
  if (!from) throw new Error('no handle')
  await page.mouse.move(from.x + 20, from.y + 10)
  await page.mouse.down()
  await page.mouse.move(from.x + 20, from.y - 20, { steps: 5 })
  await page.mouse.up()
  const dragged = Number(await gain(page).inputValue())
  expect(dragged).toBeGreaterThan(37)
  await page.keyboard.press('Control+z')
  await expect(gain(page)).toHaveValue('35')
})

test('bad numbers are refused at the field, in words, and the last good one is kept', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '75')
  await expect(page.getByRole('alert')).toHaveText('75 is out of range. Enter 0 to 60 dB. Kept 35 dB.')
  await expect(gain(page)).toHaveValue('35')
  await page.getByRole('heading', { name: 'Target' }).click()
  await unfoldSheets(page)
  await type(page, 'Sensitivity, mV/Pa', 'loud')
  await expect(page.getByRole('alert').filter({ hasText: '“loud” is not a number' })).toBeVisible()
  await field(page, 'Sensitivity, mV/Pa').fill('99')
  await field(page, 'Sensitivity, mV/Pa').press('Escape')
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveValue('15')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('a target, and "Set for me" that says what it did, and can be undone', async ({ page }) => {
  await open(page)
  await page.getByRole('combobox', { name: 'Target level' }).selectOption({ label: 'Peaks −12 to −6' })
  await expect(page.locator('aside')).toContainText('Music and voice-over')
  // What it covers is said before it does anything: this strip, or all.
  await page.locator('[data-coming]').click()
  await expect(page.locator('[data-plan]')).toContainText('It would set')
  await expect(page.locator('[data-plan]')).toContainText(/Narrator: gain\s*35 → 45 dB/)
  await expect(page.locator('[data-plan]')).not.toContainText('Cello')
  await expect(gain(page)).toHaveValue('35')
  await page.getByRole('button', { name: 'Set for me' }).click()
  await expect(page.locator('[data-plan]')).toContainText(/Narrator: gain\s*35 → 45 dB/)
  await expect(page.locator('[data-plan]')).toContainText('the target aims at −9.0')
  await expect(gain(page)).toHaveValue('45')
  await page.getByRole('button', { name: 'take back' }).click()
  await expect(gain(page)).toHaveValue('35')
  await page.getByRole('button', { name: 'Set all strips' }).click()
  await expect(page.locator('[data-plan]')).toContainText(/Cello: gain/)
  await expect(gain(page)).toHaveValue('45')
  await page.getByRole('button', { name: 'take back' }).click()
  await expect(gain(page)).toHaveValue('35')
})

test('a window of one’s own, refused where it stands upside down', async ({ page }) => {
  await open(page)
  await page.getByRole('combobox', { name: 'Target level' }).selectOption({ label: 'A window of your own' })
  await type(page, 'Lower edge, dBFS', '-24')
  await expect(page.locator('[data-finding="target-missed"]')).toHaveCount(0)
  await type(page, 'Upper edge, dBFS', '-30')
  await expect(page.getByRole('alert')).toContainText('must lie above its lower edge')
  await expect(field(page, 'Upper edge, dBFS')).toHaveValue('−12')
})

test('printed and measured: a measurement wins, shows its difference, and can be taken out', async ({ page }) => {
  await open(page)
  await unfoldSheets(page)
  const row = page.getByRole('button', { name: 'measured: where Maximum input level is from' })
  await row.click()
  await expect(page.getByText('Differs by').locator('..')).toContainText('−0.40')
  await page.getByRole('button', { name: /Go back to the data sheet value/ }).click()
  await expect(verdict(page, 'headroom')).toContainText(/19\.5 (± [\d.]+ )?dB/)
  await page.getByRole('button', { name: 'data sheet: where EIN is from' }).click()
  await type(page, 'EIN measured, dBu', '-125.5')
  await page.keyboard.press('Escape')
  await expect(field(page, 'EIN, dBu')).toHaveValue('−125.5')
})

test('findings say what to do, and doing it fixes them', async ({ page }) => {
  await open(page)
  // One switch feeds the bank: off here is off for the cello too.
  await page.getByRole('switch', { name: '48 V' }).click()
  await page.keyboard.press(']')
  await expect(page.locator('[data-finding="phantom-missing"]')).toBeVisible()
  await page.keyboard.press('[')
  const finding = page.locator('[data-finding="phantom-missing"]')
  await expect(finding).toContainText('Stop:')
  await finding.getByRole('button', { expanded: false }).click()
  await expect(finding.getByText('Mute the outputs')).toBeVisible()
  await finding.getByRole('button', { name: 'Done' }).click()
  await expect(finding).toHaveCount(0)
  await page.locator('[data-finding="target-missed"]').getByRole('button', { name: 'Fix' }).click()
  await expect(gain(page)).toHaveValue('39')
  await expect(page.locator('[data-trade]')).toContainText('10 dB more gain: 0.00 dB less noise, 10.0 dB less headroom')
})

test('the unit’s dialog: its driver, its clock and its knob', async ({ page }) => {
  await open(page)
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Sample rates' }).fill('44100, 96000')
  await dialog.getByRole('textbox', { name: 'Sample rates' }).press('Enter')
  await dialog.getByRole('textbox', { name: 'Fixed, ms' }).fill('1.5')
  await dialog.getByRole('textbox', { name: 'Fixed, ms' }).press('Enter')
  await dialog.getByRole('button', { name: 'Done' }).click()
  await expect(page.locator('[data-finding="rate-not-offered"]')).toContainText('does not offer 48 kHz')
  await expect(verdict(page, 'latency')).toContainText(/8\.65 (± [\d.]+ )?ms/) // measured, so the printed figure does not matter
  await expect(page.locator('main')).toContainText('Knob about a quarter past one')
})

test('strips by keys, kept in the address', async ({ page }) => {
  await open(page)
  await page.keyboard.press(']')
  await expect(page).toHaveURL(/strip=cello/)
  await expect(field(page, 'Name of the source')).toHaveValue('Cello, seated')
  await page.reload()
  await expect(field(page, 'Name of the source')).toHaveValue('Cello, seated')
})

test('the keys are listed on "?", and Esc closes the list', async ({ page }) => {
  await open(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Set this strip for me')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('on paper: settings, levels, noise and findings, without the screen’s controls', async ({ page }) => {
  await open(page)
  await page.emulateMedia({ media: 'print' })
  const sheet = page.getByRole('article')
  await expect(sheet).toBeVisible()
  await expect(sheet).toContainText('input mic1: gain 35 dB (knob about a quarter past one), 48 V on, pad out')
  await expect(sheet).toContainText('Net loft, evening: Narrator')
  await expect(sheet).toContainText('Recommended direct, 1.71 ms')
  await expect(page.getByRole('button', { name: 'Set for me' })).toBeHidden()
})

test('a card opens with what is set; its data sheet is a line, opened by a press or a key, and remembered', async ({
  page,
}) => {
  await open(page)
  const microphone = page.getByRole('region', { name: /^Microphone/ })
  await expect(microphone).toContainText('Data sheet: 15 mV/Pa, 14 dBA, 134 dB SPL')
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveCount(0)
  await expect(page.getByRole('region', { name: /^Source/ })).toContainText(
    'Assumed: crest factor 14 dB, surge 6 dB; room noise 28 dBA',
  )
  await expect(page.getByRole('region', { name: /^Interface input/ })).toContainText(
    'Measured: maximum input level 14.6 dBu; data sheet: EIN −127 dBu, dynamic range 110 dB',
  )
  await microphone.locator('[data-sheet] button').first().click()
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveValue('15')
  await page.reload()
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveValue('15')
  // Open for one, the key opens it for all; once more folds them.
  await page.keyboard.press('d')
  await expect(field(page, 'EIN, dBu')).toBeVisible()
  await page.keyboard.press('d')
  await expect(field(page, 'EIN, dBu')).toHaveCount(0)
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveCount(0)
})

test('a figure that is missing and matters asks for itself, and stays in its place while it is entered', async ({
  page,
}) => {
  const file = example1()
  const [voice, microphone, unit] = file.gear as Record<string, Record<string, unknown>>[]
  const { selfNoise: _, ...specs } = microphone?.specs ?? {}
  const lacking: SessionFile = { ...file, room: {}, gear: [voice, { ...microphone, specs }, unit] }
  await openFile(page, lacking)
  await expect(page.getByText('Without it the noise floor comes out too low.')).toBeVisible()
  await expect(page.getByText('Without it the floor is that of the electronics alone.')).toBeVisible()
  await type(page, 'Self-noise, dBA', '14')
  await expect(page.getByText('Without it the noise floor comes out too low.')).toHaveCount(0)
  await expect(field(page, 'Self-noise, dBA')).toHaveValue('14')
})

test('what helps against the noise leaves out what changes nothing; a bar is a share', async ({ page }) => {
  await open(page)
  await page.getByRole('radio', { name: 'Noise budget' }).click()
  await expect(page.getByRole('region', { name: 'What would improve it' })).toContainText('half the distance')
  await expect(page.getByRole('region', { name: 'What would improve it' })).not.toContainText(/[+−]?0\.0 dB/)
  const parts = await page
    .locator('[data-budget] td:nth-child(2) span')
    .evaluateAll((bars) =>
      bars.map((bar) => bar.getBoundingClientRect().width / (bar.parentElement?.getBoundingClientRect().width ?? 1)),
    )
  expect(parts[0]).toBeGreaterThan(0.9)
  expect(parts[1]).toBeLessThan(0.1)
})
