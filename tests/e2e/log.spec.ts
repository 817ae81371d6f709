import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { expect, goToLog, makeMark, open, paste, saved, test, type, violations } from './app'

async function log(page: Page) {
  await open(page)
  await goToLog(page)
}
async function mark(page: Page, name: string) {
  await makeMark(page, name, { 'Made by': 'the second chair', 'Firmware and driver': '2.1' })
  await expect(page.locator(`[data-mark="${name}"]`)).toContainText('the second chair, 2.1, current settings')
}
async function savedAs(page: Page, press: () => Promise<void>) {
  const download = page.waitForEvent('download')
  await press()
  return readFile(await (await download).path(), 'utf8')
}

test('begins with the next sensible step', async ({ page }) => {
  await log(page)
  await expect(page.locator('[data-begin]')).toContainText('The soundcheck has 6')
  await page.locator('[data-begin] a').click()
  await expect(page.locator('[data-run-sheet]')).toBeVisible()
})

test('takes by key: numbered on, judged, with the mark whose settings they were made with', async ({ page }) => {
  await log(page)
  await mark(page, 'Good')
  await page.getByRole('textbox', { name: 'Name of the take' }).fill('Tide mill, part one')
  await page.getByRole('textbox', { name: 'Name of the take' }).blur()
  await page.keyboard.press('l')
  await expect(page.locator('[data-clock]')).toBeVisible()
  await page.keyboard.press('l')
  const first = page.locator('[data-take="1"]')
  await expect(first).toContainText('Good')
  await page.keyboard.press('y')
  await expect(first.getByRole('radio', { name: 'keep' })).toBeChecked()
  // Something is set otherwise: the next take makes a mark of its own.
  await page.keyboard.press('1')
  await type(page, 'Gain, dB', '36')
  await page.keyboard.press('Escape')
  await page.keyboard.press('7')
  await expect(page.locator('[data-next-take]')).toHaveText('2')
  await page.keyboard.press('l')
  await page.keyboard.press('l')
  await expect(page.locator('[data-take="2"]')).toContainText('With take 2')
  await page.keyboard.press('x')
  await expect(page.locator('[data-take="2"]').getByRole('radio', { name: 'no' })).toBeChecked()
  await page.locator('[data-take="2"]').getByRole('button', { name: 'Delete' }).click()
  await expect(page.locator('[data-take="2"]')).toHaveCount(0)
  // It is kept apart from undo, and is there again after a reload.
  await page.keyboard.press('Control+z')
  await saved(page)
  await page.reload()
  await expect(page.locator('[data-take="1"]')).toContainText('all strips')
  await expect(page.locator('[data-next-take]')).toHaveText('3')
  expect(await violations(page)).toEqual([])
})

test('a dialog with something typed in it: the browser asks before the page goes away', async ({ page }) => {
  await log(page)
  await page.keyboard.press('b')
  const name = page.locator('[data-mark-form]').getByRole('textbox').first()
  await name.fill('Before the harmonium moved')
  const asked = page.waitForEvent('dialog')
  const leaving = page.close({ runBeforeUnload: true })
  const dialog = await asked
  expect(dialog.type()).toBe('beforeunload')
  await dialog.dismiss()
  await leaving
  await expect(name).toHaveValue('Before the harmonium moved')
})

test('two marks compared: the setting, and what it did', async ({ page }) => {
  await log(page)
  await mark(page, 'Before')
  await page.keyboard.press('1')
  await type(page, 'Gain, dB', '38')
  await page.keyboard.press('Escape')
  await page.keyboard.press('7')
  await page.locator('[data-mark="Before"]').getByRole('button', { name: 'Compare' }).click()
  await expect(page.locator('[data-compare-table="settings"]')).toContainText('Narrator: mic1 of Saltmarsh Four, gain')
  await expect(page.locator('[data-compare-figures] tr', { hasText: 'Narrator, headroom' })).toContainText('−3.0')
  await expect(page.locator('[data-compare-figures] tr', { hasText: 'Narrator, floor' })).toContainText('+3.0')
})

test('sheets: drawn positions on screen and paper, and as Markdown, CSV and JSON', async ({ page }) => {
  await log(page)
  await mark(page, 'Good')
  await page.getByRole('button', { name: 'Sheets' }).click()
  await expect(page.locator('main [data-sheet="recall"] svg').first()).toHaveAttribute(
    'aria-label',
    '35.0 dB of 0 to 60',
  )
  const markdown = await savedAs(page, () => page.locator('[data-save="md"]').click())
  expect(markdown).toContain('| Narrator | 1 | mic1 of Saltmarsh Four | Gain | 35 dB (knob about a quarter past one) |')
  expect(markdown).toContain('| Narrator | 1 | Sandpiper small condenser | Needs | 48 V |')
  const download = page.waitForEvent('download')
  await page.locator('[data-save="json"]').click()
  expect((await download).suggestedFilename()).toMatch(/^net-loft-evening-recall-\d{4}-\d\d-\d\d\.json$/)
  await page.getByRole('radio', { name: 'Run sheet' }).click()
  const steps = JSON.parse(await savedAs(page, () => page.locator('[data-save="json"]').click())) as { Step: string }[]
  expect(steps.length).toBeGreaterThan(50)
  expect(steps.at(0)).toMatchObject({ 'No.': 1, 'Section': 'System' })
  await page.getByRole('radio', { name: 'Stage box list' }).click()
  expect(await savedAs(page, () => page.locator('[data-save="csv"]').click())).toContain(
    '1,Saltmarsh Four,mic1,Narrator,',
  )
  expect(JSON.parse(await savedAs(page, () => page.locator('[data-save="json"]').click()))).toHaveLength(4)
  await page.getByRole('radio', { name: 'Recall sheet' }).click()
  await page.getByRole('combobox', { name: 'Of which state' }).selectOption({ index: 1 })
  await expect(page.locator('main [data-sheet="recall"]')).toContainText('firmware 2.1')
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('article [data-sheet="recall"]')).toBeVisible()
  await expect(page.locator('article h1')).toContainText('Recall sheet: Net loft, evening, “Good”')
})

test('the log goes with the file, and another copy’s log is added without doubling', async ({ page }) => {
  await log(page)
  await mark(page, 'Good')
  const text = await savedAs(page, () => page.keyboard.press('e'))
  expect((JSON.parse(text) as { log: { marks: unknown[] } }).log.marks).toHaveLength(1)
  await paste(page, text)
  await expect(page.locator('[data-gain-handle]')).toBeVisible()
  await page.keyboard.press('7')
  await expect(page.locator('[data-mark="Good"]')).toHaveCount(1)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add the log of another copy' }).click()
  await (await chooser).setFiles({ name: 'copy.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await expect(page.locator('[data-marks]')).toContainText('This log already has every entry of that file.')
  await expect(page.locator('[data-mark="Good"]')).toHaveCount(1)
})

test('of a thousand takes and two hundred marks only those in sight are on the page; the first is found by scrolling', async ({
  page,
}) => {
  await log(page)
  await mark(page, 'Good')
  const file = JSON.parse(await savedAs(page, () => page.keyboard.press('e'))) as {
    log: { version?: number; marks: object[]; takes: object[] }
  }
  const [first] = file.log.marks as { id: string; at: string }[]
  const at = first?.at
  file.log.version = 2
  file.log.marks.push(
    ...Array.from({ length: 199 }, (_, i) => ({ id: `m${i}`, name: `Mark ${i}`, at, from: first?.id, changes: [] })),
  )
  file.log.takes = Array.from({ length: 1000 }, (_, i) => ({ id: `t${i}`, number: i + 1, strips: ['narrator'], at }))
  await paste(page, JSON.stringify(file))
  await expect(page.locator('[data-gain-handle]')).toBeVisible()
  await goToLog(page)
  await expect(page.locator('[data-take="1000"]')).toBeVisible()
  expect(await page.locator('[data-take]').count()).toBeLessThan(60)
  expect(await page.locator('[data-mark]').count()).toBeLessThan(60)
  await page
    .getByLabel('Takes', { exact: true })
    .last()
    .evaluate((table) => table.scrollTo(0, table.scrollHeight))
  await expect(page.locator('[data-take="1"]')).toBeVisible()
  await expect(page.locator('[data-take="1000"]')).toHaveCount(0)
})

test('an empty log says what a mark would keep, and leads to the next sensible step', async ({ page }) => {
  await open(page)
  await goToLog(page)
  await expect(page.locator('[data-as-it-stands]')).toContainText('Sandpiper small condenser')
  await expect(page.locator('[data-as-it-stands]')).toContainText('35 dB')
  await page.getByRole('link', { name: 'Go on with the soundcheck' }).click()
  await expect(page).toHaveURL(/\/soundcheck\//)
})
