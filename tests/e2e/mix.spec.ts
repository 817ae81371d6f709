import { readFileSync } from 'node:fs'
import { blankSession } from '#core/edits'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { expect, field, open, openFile, saved, test, type, verdict } from './app'

const strip = (page: Parameters<typeof open>[0], name: string) =>
  page.getByRole('navigation', { name: 'Strips' }).getByRole('button', { name: new RegExp(`^${name}`) })

test('a bus: what flows in is turned where it stands, by pointer, key and typing; the sum and the verdict follow', async ({
  page,
}) => {
  await open(page)
  await strip(page, 'To the stream').click()
  await expect(page.locator('[data-tributary]')).toHaveCount(4)
  await expect(verdict(page, 'bus')).toContainText('Stream −15.8 ± 0.8 LUFS')
  await expect(page.locator('[data-brings="pieces"]')).toContainText('60 %')
  await type(page, 'Send of Pieces to To the stream, dB', '-14')
  await expect(page.locator('[data-brings="narrator"]')).toBeVisible()
  await expect(verdict(page, 'bus')).toContainText('Stream −19.2')
  await expect(page.locator('[data-finding="stream-loudness"]')).toContainText('Fix')
  await page.locator('[data-finding="stream-loudness"]').getByRole('button', { name: 'Fix' }).click()
  await expect(verdict(page, 'bus')).toContainText('Stream −16.0')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(verdict(page, 'bus')).toContainText('Stream −15.8')
  // In the section, by the mouse: up 20 px is louder, and one step of undo.
  const handle = page.getByRole('slider', { name: 'Send of Narrator in the section' })
  const box = (await handle.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y - 30, { steps: 5 })
  await page.mouse.up()
  const sent = field(page, 'Send of Narrator to To the stream, dB')
  expect(Number(await sent.inputValue())).toBeGreaterThan(6)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(sent).toHaveValue('3')
  // Its own scale, by keys.
  await page.getByRole('slider', { name: 'Send of Narrator to To the stream', exact: true }).press('ArrowUp')
  await expect(sent).toHaveValue('3.5')
})

test('a bus is added, fed, renamed and deleted; what goes with it is told and comes back', async ({ page }) => {
  await open(page)
  await page.keyboard.press('a')
  await page.locator('[data-bus-use="stream"]').click()
  await expect(page.locator('[data-unfed]')).toContainText('Nothing feeds “Stream” yet')
  await type(page, 'Name of the strip', 'Second stream')
  await page.locator('[data-confluence]').getByRole('combobox', { name: 'Begin a send' }).selectOption('Cello')
  await expect(page.locator('[data-tributary="cello"]')).toBeVisible()
  await strip(page, 'Cello').click()
  await expect(page.locator('[data-sends]')).toContainText('Second stream')
  await strip(page, 'Second stream').click()
  await page.getByRole('button', { name: 'delete', exact: true }).click()
  await expect(page.locator('[data-told]')).toContainText('What Cello sent to it went with it')
  await strip(page, 'Cello').click()
  await expect(page.locator('[data-sends]')).not.toContainText('Second stream')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('[data-sends]')).toContainText('Second stream')
  // A copy goes where its original goes.
  await page.keyboard.press('a')
  await page.getByRole('button', { name: 'Copy “Cello”' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toHaveValue('Cello 2')
  await expect(page.locator('[data-sends]')).toContainText('Second stream')
})

test('equally loud: all strips of a bus are brought to the quietest', async ({ page }) => {
  await open(page)
  await strip(page, 'Music').click()
  await page.locator('[data-confluence]').getByRole('button', { name: 'by fader' }).click()
  await expect(page.locator('[data-told]')).toContainText('as loud as the quietest')
  await expect(page.locator('[data-brings="cello"]')).toContainText('50 %')
  await expect(page.locator('[data-brings="harmonium"]')).toContainText('50 %')
})

test('Mix: every strip in a line; sorted, filtered, sent, set for me', async ({ page }) => {
  await open(page)
  await page.keyboard.press('2')
  const rows = page.locator('[data-mix-row]')
  await expect(rows).toHaveCount(8)
  const order = () => rows.evaluateAll((all) => all.map((row) => row.getAttribute('data-mix-row')))
  await page.getByRole('button', { name: 'Least headroom' }).click()
  expect((await order())[0]).toBe('stream')
  await page.getByRole('button', { name: 'Least headroom' }).click()
  expect((await order())[0]).toBe('harmonium')
  await page.getByRole('button', { name: 'Least headroom' }).click()
  expect((await order())[0]).toBe('narrator')
  await expect(page.locator('[data-mix-row="narrator"]')).toContainText('a quarter past one')
  await expect(page.locator('[data-recorded="narrator"]')).toHaveText('−19.1')
  await expect(page.locator('[data-pfl="preview"]')).toContainText('−0.1')
  await expect(page.locator('[data-pfl="preview"]')).toContainText('0 = +4.0 dBu')

  await type(page, 'Gain of Narrator, dB', '60')
  await page.getByRole('switch', { name: /needs attention only \(\d/ }).click()
  await expect(rows).not.toHaveCount(8)
  await expect(page.locator('[data-mix-row="narrator"]')).toBeVisible()
  await page.locator('[data-set-all]').click()
  await expect(page.locator('[data-told]')).toContainText('settings were changed')
  await expect(page.locator('[data-nothing-needed], [data-mix-row]').first()).toBeVisible()
  await page.getByRole('switch', { name: /needs attention only/ }).click()
  await expect(field(page, 'Gain of Narrator, dB')).toHaveValue('39')
  await page.locator('[data-told]').getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'Gain of Narrator, dB')).toHaveValue('60')

  await page.getByRole('button', { name: 'Begin: Send of Tide, recorder to Music' }).click()
  await type(page, 'Send of Tide, recorder to Music, dB', '-7')
  await saved(page)
  await page.reload()
  await expect(field(page, 'Send of Tide, recorder to Music, dB')).toHaveValue('−7')
  await type(page, 'Send of Tide, recorder to Music, dB', '')
  await expect(page.getByRole('button', { name: 'Begin: Send of Tide, recorder to Music' })).toBeVisible()
  const drag = page.getByRole('slider', { name: 'Gain of Cello, drag' })
  await drag.focus()
  await drag.press('ArrowUp')
  await expect(field(page, 'Gain of Cello, dB')).toHaveValue('25')
})

test('Mix by keys: from cell to cell, into a field and out again', async ({ page }) => {
  await open(page)
  await page.keyboard.press('2')
  await page.locator('[data-row="0"] [data-column="0"]').focus()
  for (const key of ['ArrowDown', 'ArrowRight', 'ArrowRight', 'ArrowRight', 'Enter']) await page.keyboard.press(key)
  await expect(field(page, 'Gain of Cello, dB')).toBeFocused()
  await page.keyboard.type('30')
  await page.keyboard.press('Enter')
  await expect(field(page, 'Gain of Cello, dB')).toHaveValue('30')
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-row="1"] [data-column="3"]')).toBeFocused()
  await page.keyboard.press('End')
  await expect(page.locator('[data-row="1"] [data-column="12"]')).toBeFocused()
})

test('Mix of 72 strips: only those in sight are on the page, all are reached by the wheel and by keys', async ({
  page,
}) => {
  const session = blankSession('many', 'Seventy-two')
  const strips = Array.from({ length: 72 }, (_, i) =>
    session.strips.map((each) => ({
      ...each,
      id: `s${i}`,
      stages: each.stages.map((stage) => ({ ...stage, id: `${stage.id}-${i}` })),
    })),
  )
  const file = { ...session, strips: strips.flat() }
  await openFile(page, file)
  await page.keyboard.press('2')
  const row = (at: number) => page.locator(`[data-row="${at}"]`)
  await expect(row(0)).toBeVisible()
  expect(await page.locator('[data-mix-row]').count()).toBeLessThan(40)
  await row(0).locator('[data-column="0"]').focus()
  for (let at = 1; at <= 40; at++) {
    await page.keyboard.press('ArrowDown')
    await expect(row(at).locator('[data-column="0"]')).toBeFocused()
  }
  await expect(row(0)).toHaveCount(0)
  await page.getByLabel('All strips, table').evaluate((table) => table.scrollTo(0, table.scrollHeight))
  await expect(row(71)).toBeVisible()
  await expect(page.locator('[data-row] [tabindex="0"][data-column]')).toHaveCount(1)
})

test('pieces: several recordings at once are measured and trimmed to one mark; the cue list is a table', async ({
  page,
}) => {
  await open(page)
  await strip(page, 'Pieces').click()
  const wav = (level: number) => Buffer.from(writeWav([sine(48_000, 4, 440, level)], 48_000, 24))
  const files = [
    { name: 'Gulls.wav', mimeType: 'audio/wav', buffer: wav(-30) },
    { name: 'Sluice.wav', mimeType: 'audio/wav', buffer: wav(-12) },
    { name: 'Notes.wav', mimeType: 'audio/wav', buffer: Buffer.from('no recording at all') },
  ]
  await page.getByLabel('Choose recordings').setInputFiles(files)
  await expect(page.locator('[data-pieces-told]')).toContainText('2 measured')
  await expect(page.locator('[data-pieces-told]')).toContainText('Notes.wav')
  await expect(page.locator('[data-piece]')).toHaveCount(4)
  // A sine’s average is its peak: −30 + 10 and −12 − 8 are −20.
  await expect(field(page, 'Trim of Gulls, dB')).toHaveValue('10')
  await expect(field(page, 'Trim of Sluice, dB')).toHaveValue('−8')
  await type(page, 'Mark of the loudest passages, dBFS', '-5')
  await page.getByRole('button', { name: 'trim all to it' }).click()
  await expect(page.locator('[data-pieces-told]')).toContainText('would pass -1 dBFS')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'cue list as CSV' }).click()
  const rows = readFileSync(await (await download).path(), 'utf8')
    .trim()
    .split('\r\n')
  expect(rows).toHaveLength(5)
  expect(rows[3]).toContain('Gulls')
})

test('Mix fits its lines to the window, says in words what a strip needs, and marks what is planned', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('2')
  const narrator = page.locator('[data-mix-row="narrator"]')
  await expect(narrator.locator('[data-needs]')).toHaveText('level off target')
  await expect(narrator.locator('[data-planned]')).toHaveCount(1)
  const table = page.getByLabel('All strips, table')
  const fits = await table.evaluate(
    (each) => each.scrollWidth <= each.clientWidth && each.scrollHeight <= each.clientHeight,
  )
  expect(fits).toBe(true)
  // Few lines are higher than many, and pad and 48 V stand beside each other.
  expect((await narrator.boundingBox())?.height).toBeGreaterThan(52)
  const [pad, phantom] = await Promise.all(
    ['pad', '48 V'].map((name) => narrator.getByRole('switch', { name }).boundingBox()),
  )
  expect(Math.abs((pad?.y ?? 0) - (phantom?.y ?? 99))).toBeLessThan(3)
})
