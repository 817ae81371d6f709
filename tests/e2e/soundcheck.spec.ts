import type { Page } from '@playwright/test'
import { expect, open, saved, test, type, verdict, violations } from './app'

async function soundcheck(page: Page) {
  await open(page)
  await page.keyboard.press('6')
  await expect(page.locator('[data-run-sheet]')).toBeVisible()
}
const card = (page: Page) => page.locator('[data-step-card]')
const step = (page: Page, id: string) => page.locator(`[data-step="${id}"]`)
const sentence = (page: Page) => page.locator('[data-sentence]')
async function goTo(page: Page, section: string, id: string) {
  if (!(await step(page, id).isVisible())) await page.locator(`[data-section="${section}"] h3 button`).click()
  await step(page, id).getByRole('button').last().click()
  await expect(card(page)).toBeVisible()
}
async function read(page: Page, value: string) {
  const field = card(page).getByRole('textbox', { name: /^Read, / })
  await field.fill(value)
  await field.press('Enter')
}

test('the whole soundcheck by keyboard alone, with a simulated performer, ending in a mark; another browser recalls it', async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(120_000)
  await soundcheck(page)
  const total = await page.locator('[data-progress]').innerText()
  expect(total).toMatch(/^0 of 6\d$/)
  await page.locator('body').press('Enter')
  await expect(page.locator('[data-progress]')).toHaveText(total.replace('0', '1'))
  // The gauge is opened by the keyboard too, at the first gain.
  for (let i = 0; i < 70 && !(await card(page).innerText()).includes('Gain: 35 dB on mic1'); i++) {
    const before = await page.locator('[data-progress]').innerText()
    await page.keyboard.press('Enter')
    await expect(page.locator('[data-progress]')).not.toHaveText(before)
  }
  await page.locator('[data-simulate]').focus()
  await page.keyboard.press('Enter')
  await page.getByRole('radio', { name: 'loudest passage' }).focus()
  await page.keyboard.press('Space')
  await expect(page.locator('[data-figure="peak"]')).not.toHaveText('–')
  await page.waitForTimeout(5000)
  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('Space')
  await expect(sentence(page)).toContainText(/dB (louder|quieter) than planned\. Most likely the source/)
  // The rest, to the mark.
  for (let i = 0; i < 70 && !(await card(page).innerText()).includes('Add a mark'); i++) {
    const before = await page.locator('[data-progress]').innerText()
    await page.keyboard.press('Enter')
    await expect(page.locator('[data-progress]')).not.toHaveText(before)
  }
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-mark-form]')).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused()
  await page.keyboard.type('Friday')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-progress]')).toHaveText(total.replace(/^0/, total.split(' ').at(-1) ?? ''))
  await saved(page)

  const download = page.waitForEvent('download')
  await page.keyboard.press('e')
  const path = await (await download).path()
  const other = await browser.newContext({ baseURL })
  const there = await other.newPage()
  await there.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))
  await open(there)
  await expect(there).toHaveURL(/strip=narrator/)
  const address = () => there.url().split('?')[0]
  const before = address()
  const chooser = there.waitForEvent('filechooser')
  await there.getByRole('button', { name: 'Import' }).click()
  await there.getByRole('button', { name: 'Choose a file' }).click()
  await (await chooser).setFiles(path)
  await expect.poll(address).not.toBe(before)
  await there.getByRole('textbox', { name: 'Gain, dB', exact: true }).fill('30')
  await there.getByRole('textbox', { name: 'Gain, dB', exact: true }).press('Enter')
  await there.keyboard.press('Escape')
  await there.keyboard.press('7')
  await there.locator('[data-mark="Friday"]').getByRole('button', { name: 'Recall' }).click()
  await expect(there.locator('[data-recall-count]')).toHaveText('1 thing differs')
  await expect(there.locator('[data-recall-step="narrator.n3.gain"]')).toContainText(
    'Gain: 35 dB on mic1 of Saltmarsh Four',
  )
  await there.locator('[data-set-back]').click()
  await expect(there.locator('[data-recall-count]')).toHaveText('nothing differs from this mark')
  await other.close()
})

test('a reading is typed, says what it is, is set and kept, and opens what comes after it again', async ({ page }) => {
  await soundcheck(page)
  await goTo(page, 'strips narrator', 'narrator.arm')
  await card(page).locator('[data-tick]').click()
  await goTo(page, 'strips narrator', 'narrator.n3.gain')
  await expect(card(page)).toContainText('it must read −18.0 … −12.0 dBFS, sample peak')
  await expect(card(page)).toContainText('Knob about a quarter past one.')
  await read(page, '−11.5')
  await expect(sentence(page)).toHaveText('7.6 dB louder than planned. Most likely the source (86 %).')
  await expect(page.locator('[data-turn]')).toContainText(
    /Turn mic1 of Saltmarsh Four from 35 to 31 dB .*: the meter then shows −15\.\d\. Steps? \d+/,
  )
  await expect(page.locator('[data-readings]')).toContainText('−11.5')
  await page.locator('[data-set-and-keep]').click()
  await expect(verdict(page, 'headroom')).toContainText('Headroom 15.5 ± 1.0 dB')
  await expect(step(page, 'narrator.arm')).toHaveAttribute('data-state', 'again')
  await expect(sentence(page)).toContainText('kept as measured')
  // One step of undo takes both back; the reading itself was a step of its own.
  await page.keyboard.press('Control+z')
  await expect(step(page, 'narrator.arm')).toHaveAttribute('data-state', 'done')
  await expect(verdict(page, 'headroom')).toContainText('11.7 ± 1.0') // what was read is believed before it is kept

  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-readings]')).toContainText('None yet')
})

test('two readings that cannot both be right are said to contradict; nothing is then to be turned or kept', async ({
  page,
}) => {
  await soundcheck(page)
  await goTo(page, 'strips narrator', 'narrator.n3.gain')
  await read(page, '−19')
  await expect(sentence(page)).toHaveText('As planned.')
  await card(page).getByRole('combobox', { name: 'By which meter' }).selectOption('average (RMS)')
  await read(page, '−20')
  await expect(sentence(page)).toContainText('contradicts −19.0 dBFS')
  await expect(page.locator('[data-keep], [data-set-and-keep]')).toHaveCount(0)
  await expect(page.locator('[data-readings]')).toContainText('contradicts')
  await page.locator('[data-remove]').click()
  await expect(sentence(page)).toHaveText('As planned.')
})

test('a word is refused where it is typed, and nothing is lost', async ({ page }) => {
  await soundcheck(page)
  await goTo(page, 'strips narrator', 'narrator.n3.gain')
  await read(page, 'loud')
  await expect(card(page).getByRole('alert')).toContainText('number')
  await expect(page.locator('[data-readings]')).toContainText('None yet')
})

test('a simulated performer: a gain that is turned is seen at once, and the take surges', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '41')
  await page.keyboard.press('Escape')
  await page.keyboard.press('6')
  await page.locator('[data-simulate]').click()
  await page.getByRole('radio', { name: 'loudest passage' }).click()
  const shown = async () => Number((await page.locator('[data-figure="peak"]').innerText()).replace('−', '-'))
  const peak = async () => {
    await page.locator('[data-passage]').click()
    await page.waitForTimeout(5000)
    return shown()
  }
  const loud = await peak()
  // Undo turns it back by 6 dB while the performer plays on.
  await page.getByRole('button', { name: 'Undo' }).click()
  const turned = await peak()
  expect(Math.abs(loud - turned - 6)).toBeLessThan(0.6)
  await page.getByRole('radio', { name: 'as in the take' }).click()
  // The narrator's surge is 6 dB.
  expect(Math.abs((await peak()) - turned - 6)).toBeLessThan(0.6)
  await page.locator('[data-close]').click()
  await expect(page.locator('[data-gauge]')).toHaveAttribute('data-source', 'none')
})

test('no permission: said in words, and everything else works', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'))
  })
  await soundcheck(page)
  await page.locator('[data-open]').click()
  await expect(page.locator('[data-trouble]')).toContainText('The browser was not allowed to listen')
  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-progress]')).toContainText('1 of')
})

test('no violation of accessibility with a reading, a contradiction and a running gauge', async ({ page }) => {
  await soundcheck(page)
  await goTo(page, 'strips narrator', 'narrator.n3.gain')
  await read(page, '−9')
  await expect(sentence(page)).toBeVisible()
  await page.locator('[data-simulate]').click()
  await expect(page.locator('[data-figure="peak"]')).not.toHaveText('–')
  expect(await violations(page)).toEqual([])
})

test('by ear: before and now at −30 dBFS, never over −20', async ({ page }) => {
  await soundcheck(page)
  const ear = page.locator('[data-by-ear]')
  await expect(ear).toContainText('50.3 dB over its floor')
  await ear.getByRole('textbox', { name: 'Level, dBFS' }).fill('0')
  await ear.getByRole('textbox', { name: 'Level, dBFS' }).press('Enter')
  await expect(ear.getByRole('alert')).toContainText('−20')
  await ear.getByRole('textbox', { name: 'Level, dBFS' }).press('Escape')
  await ear.getByRole('button', { name: 'Compare before and after' }).click()
  await expect(ear.getByRole('status')).toContainText('programme, then its pause')
  await ear.getByRole('button', { name: 'Stop' }).click()
  await expect(ear.getByRole('button', { name: 'Compare before and after' })).toBeVisible()
})

test('the run sheet on paper: every step with its device, its caution and a line for what is read', async ({
  page,
}) => {
  await soundcheck(page)
  await page.emulateMedia({ media: 'print' })
  const sheet = page.locator('[data-run-sheet-print]')
  await expect(sheet).toContainText('Run sheet: Net loft, evening')
  await expect(sheet.locator('li')).toHaveCount(Number((await sheet.locator('li .figure').last().innerText()).trim()))
  await expect(sheet).toContainText('−18.0 … −12.0 dBFS at the recorder’s meter')
  await expect(sheet).toContainText('“Old Punt ribbon” must not get it.')
})
