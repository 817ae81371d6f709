import type { Page } from '@playwright/test'
import { expect, field, open, saved, test, type, unfoldSheets, verdict, violations } from './app'

const nextMeasurements = (page: Page) => page.locator('[data-measure-next]')
const explained = (page: Page) => page.locator('[data-explained]')

test('a figure tells what it is made of: one step at a time, two presses to the source, the least known changed there', async ({
  page,
}) => {
  await open(page)
  await expect(verdict(page, 'headroom')).toContainText('Headroom 19.1 ± 6.7 dB')
  await expect(verdict(page, 'headroom')).toContainText('0.03 % risk of clipping')
  await page.keyboard.press('w')
  await expect(explained(page).locator('[data-result]')).toHaveText('19.1 ± 6.7 dB')
  await expect(explained(page).locator('[data-numbers]')).toHaveText('0.0 − (−19.1) = 19.1 dB')
  expect(await violations(page)).toEqual([])
  await page.getByRole('button', { name: 'Formula and source' }).click()
  await expect(page.locator('[data-formula] math')).toBeVisible()
  await expect(page.locator('[data-formula]')).toContainText('Source: definition')
  // Down to what is given, and back.
  await explained(page).getByRole('button', { name: 'Peak', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Peak at Saltmarsh Four' })).toBeVisible()
  await explained(page)
    .getByRole('button', { name: /^Peak behind Sandpiper/ })
    .click()
  await expect(explained(page).locator('[data-part="Sensitivity"]')).toContainText('± 2.3 dB, data sheet')
  await page.getByRole('button', { name: 'One step back' }).click()
  await page.getByRole('button', { name: 'One step back' }).click()
  // What is known least is marked, and changed where it stands.
  const least = explained(page).locator('li', { hasText: 'known least' })
  await expect(least).toContainText('Average of Narrator, reading')
  await type(page, 'Average of Narrator, reading, dB SPL', '70')
  await expect(explained(page).locator('[data-result]')).toContainText('17.1 ± 6.7 dB')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(explained(page)).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(verdict(page, 'headroom')).toContainText('19.1 ± 6.7')
})

test('the same from the section, the table by the keyboard, the floor and the times', async ({ page }) => {
  await open(page)
  await page.locator('[data-section] text', { hasText: '134.0 dB SPL' }).click()
  await expect(page.getByRole('heading', { name: 'Ceiling of Narrator, reading' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('radio', { name: 'Table' }).click()
  await page.getByRole('button', { name: 'SNR, dB at Saltmarsh Four: what it is made of' }).focus()
  await page.keyboard.press('Enter')
  await expect(explained(page).locator('[data-numbers]')).toHaveText('−30.1 − (−80.4) = 50.3 dB')
  await page.keyboard.press('Escape')
  await page.locator('[data-noise="preamp"] button').click()
  await expect(page.getByRole('heading', { name: 'Noise made at Saltmarsh Four' })).toBeVisible()
  await expect(explained(page).locator('[data-part="EIN"]')).toContainText('data sheet')
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Timing' }).click()
  await page.locator('[data-route-bar="software"] [data-explain]').click()
  await expect(explained(page).locator('[data-result]')).toHaveText('8.65 ± 0.11 ms')
  await expect(explained(page)).toContainText('Round trip of Saltmarsh Four')
})

test('the edges of the section have a penumbra, which a key and a button put away', async ({ page }) => {
  await open(page)
  await expect(page.locator('[data-penumbra]')).toBeAttached()
  await page.keyboard.press('u')
  await expect(page.locator('[data-penumbra]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Show the ± of the edges' }).click()
  await expect(page.locator('[data-penumbra]')).toBeAttached()
})

test('what to measure next: one reading typed, what it gained, kept over a reload, and taken back', async ({
  page,
}) => {
  await open(page)
  const first = nextMeasurements(page).locator('li').first()
  await expect(first).toContainText('Take a peak reading at the recorder')
  await expect(first).toContainText('± 6.7 → ± 1.0 dB headroom, 1 min')
  await first.getByRole('button').click()
  await type(page, 'Highest peak read, dBFS', '-15.1')
  await expect(page.locator('[data-gained]')).toContainText('± 6.7 → ± 1.0')
  await expect(verdict(page, 'headroom')).toContainText('Headroom 15.1 ± 1.0 dB')
  await expect(page.getByRole('button', { name: 'measured: where Average is from' })).toBeVisible()
  expect(await violations(page)).toEqual([])
  await saved(page)
  await page.reload()
  await expect(verdict(page, 'headroom')).toContainText('Headroom 15.1 ± 1.0 dB')
  await page.keyboard.press('Control+z')
  await expect(verdict(page, 'headroom')).toContainText('Headroom 19.1 ± 6.7 dB')
  // Over full scale there is nothing to read.
  await nextMeasurements(page).locator('li').first().getByRole('button').click()
  await type(page, 'Highest peak read, dBFS', '3')
  await expect(page.getByRole('alert')).toContainText('range')
})

test('at the head of the bench for all strips, each a press away; the room and a distance are measured on their cards', async ({
  page,
}) => {
  await open(page)
  await page.getByRole('link', { name: 'Bench' }).click()
  await expect(nextMeasurements(page).locator('li')).toHaveCount(12)
  // Beside other work only the first of them.
  await page.locator('[data-page="recording"]').click()
  await expect(nextMeasurements(page).locator('li')).toHaveCount(4)
  await page.getByRole('link', { name: 'Path' }).click()
  await nextMeasurements(page)
    .getByRole('button', { name: /^Record a rehearsal of Narrator/ })
    .click()
  await expect(page).toHaveURL(/\/bench\//)
  await expect(page.locator('[data-page="recording"]')).toHaveAttribute('aria-current', 'page')
  await page.getByRole('link', { name: 'Path' }).click()
  await page.getByRole('button', { name: /^estimated ± 10 %/ }).click()
  await expect(page.getByRole('button', { name: /^measured ± 1 cm/ })).toBeVisible()
  await unfoldSheets(page)
  await page.getByRole('button', { name: 'assumed: where Room noise is from' }).click()
  await type(page, 'Room noise measured, dBA', '31')
  await expect(page.getByRole('button', { name: 'measured: where Room noise is from' })).toBeVisible()
  await expect(verdict(page, 'floor')).toContainText('± 5.8')
})

test('a target by risk says what it draws on, and a maker’s tolerance counts', async ({ page }) => {
  await open(page)
  await page.getByLabel('Target level').selectOption('by-risk')
  await expect(page.locator('[data-risk-give]')).toHaveText('± 7.6')
  await unfoldSheets(page)
  await page.getByRole('button', { name: 'data sheet: where Sensitivity is from' }).click()
  await page.getByLabel('Unit of the tolerance of Sensitivity').selectOption('mV/Pa')
  await type(page, 'Tolerance of Sensitivity, mV/Pa', '0.1')
  await expect(page.locator('[data-risk-give]')).toHaveText('± 7.2')
  // As makers print it; 2 dB is the usual one.
  await page.getByLabel('Unit of the tolerance of Sensitivity').selectOption('dB')
  await type(page, 'Tolerance of Sensitivity, dB', '2')
  await expect(page.locator('[data-risk-give]')).toHaveText('± 7.6')
  // What comes back with an undo has the unit that it had.
  await page.keyboard.press('Escape')
  for (let steps = 0; steps < 2; steps++) await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'data sheet: where Sensitivity is from' }).click()
  await expect(field(page, 'Tolerance of Sensitivity, mV/Pa')).toHaveValue('0.1')
})

test('units side by side: which differences are larger than both may be off', async ({ page }) => {
  await open(page)
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.locator('[data-page="compare"]').click()
  const difference = page.locator('[data-compared="0 dBFS in at"] [data-difference]')
  await expect(difference).toContainText('±')
  await expect(difference).toContainText(/differs|may be the same/)
})
