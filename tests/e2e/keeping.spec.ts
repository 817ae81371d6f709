import { readFileSync } from 'node:fs'
import { example1 } from '../support/sessions'
import { expect, gain, open, openFile, paste, saved, test, type, verdict } from './app'

test('closed and opened again: the gain, the undo and the redo are all there', async ({ page, context }) => {
  await open(page)
  await type(page, 'Gain, dB', '41')
  await type(page, 'Gain, dB', '44')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Undo' }).click()
  await saved(page)
  await page.close()
  const again = await context.newPage()
  await open(again)
  await expect(gain(again)).toHaveValue('41')
  await again.getByRole('button', { name: 'Redo' }).click()
  await expect(gain(again)).toHaveValue('44')
  await again.getByRole('button', { name: 'Undo' }).click()
  await again.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(again)).toHaveValue('35')
})

test('exported and imported it is the same, byte for byte', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '37')
  const exported = async () => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Export' }).click()
    const file = await download
    expect(file.suggestedFilename()).toBe('net-loft-evening.session.json')
    return readFileSync(await file.path(), 'utf8')
  }
  const first = await exported()
  const before = page.url()
  await page.getByRole('button', { name: 'Import' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose a file…' }).click()
  await (await chooser).setFiles({ name: 'mine.json', mimeType: 'application/json', buffer: Buffer.from(first) })
  await expect(page).not.toHaveURL(before)
  await expect(gain(page)).toHaveValue('37')
  expect(await exported()).toBe(first)
})

test('a file is opened by dropping it and by pasting it', async ({ page }) => {
  await open(page)
  const file = readFileSync('demo/net-loft.session.json', 'utf8')
  const bring = (name: string, how: 'drop' | 'paste') =>
    page.evaluate(
      ({ text, kind }) => {
        const data = new DataTransfer()
        if (kind === 'drop') data.items.add(new File([text], 'dropped.json', { type: 'application/json' }))
        else data.setData('text/plain', text)
        window.dispatchEvent(
          kind === 'drop'
            ? new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true })
            : new ClipboardEvent('paste', { clipboardData: data, bubbles: true }),
        )
      },
      { text: file.replace('Net loft, evening', name), kind: how },
    )
  await bring('Dropped in', 'drop')
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Dropped in')
  await bring('Pasted in', 'paste')
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Pasted in')
})

for (const [what, text, words] of [
  ['not JSON', '{"format": "remetra.session", ', 'is not JSON'],
  ['another format', '{"format":"shopping.list","version":1}', 'not "remetra.session"'],
  ['version 99', '{"format":"remetra.session","version":99}', 'Open it with a newer Remetra'],
  [
    'faults in several places',
    readFileSync('demo/net-loft.session.json', 'utf8')
      .replace('"gain": 35', '"gain": 350')
      .replace('"gear": "eelgrass"', '"gear": "gone"')
      .replace('"level": 68', '"level": 1e309'),
    'strips[1].stages[1].gear',
  ],
] as const) {
  test(`a bad file (${what}) is answered with where and what to do; the open session stays`, async ({ page }) => {
    await open(page)
    await type(page, 'Gain, dB', '41')
    const before = page.url()
    await paste(page, text)
    const notice = page.locator('[data-notice="refused"]')
    await expect(notice).toContainText(words)
    await expect(notice).toContainText('nothing was changed')
    expect(page.url()).toBe(before)
    await expect(gain(page)).toHaveValue('41')
    if (what.startsWith('faults')) await expect(notice.getByRole('listitem')).toHaveCount(3)
  })
}

test('sessions: new, rename, duplicate, delete, undo the deletion', async ({ page }) => {
  await open(page)
  await page.getByRole('link', { name: 'Sessions' }).click()
  await page.getByRole('button', { name: 'Start a new one' }).click()
  await page.getByRole('button', { name: 'Stage by stage instead' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the source' })).toHaveValue('My source')
  await type(page, 'Name of the session', 'Sluice gate')
  await page.getByRole('link', { name: 'Sessions' }).click()
  await page.getByRole('button', { name: 'Duplicate Sluice gate' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Sluice gate 2')
  await page.getByRole('link', { name: 'Sessions' }).click()
  await type(page, 'Name of Net loft, evening', 'Net loft, morning')
  await expect(page.locator('[data-session="Net loft, morning"]')).toBeVisible()
  await page.getByRole('button', { name: 'Delete Net loft, morning' }).click()
  await expect(page.locator('[data-session]')).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(page.locator('[data-session]')).toHaveCount(3)
  await page.getByRole('link', { name: 'Open Net loft, morning' }).click()
  await expect(verdict(page, 'headroom')).toContainText(/19\.1 (± [\d.]+ )?dB/)
})

test('two tabs of one session: one follows the other, and never overwrites it silently', async ({ page, context }) => {
  await open(page)
  await saved(page)
  const other = await context.newPage()
  await open(other, page.url())
  await type(page, 'Gain, dB', '41')
  await expect(gain(other)).toHaveValue('41')

  const box = await other.locator('[data-gain-handle]').boundingBox()
  if (!box) throw new Error('no handle')
  await other.mouse.move(box.x + 20, box.y + 10)
  await other.mouse.down()
  await other.mouse.move(box.x + 20, box.y + 50, { steps: 4 })
  await type(page, 'Gain, dB', '22')
  await saved(page)
  await page.waitForTimeout(200)
  await other.mouse.up()
  await expect(other.locator('[data-notice="conflict"]')).toContainText('Nothing was overwritten')
  // Both are kept before anybody chooses: this tab's under a name of its own.
  await expect(other.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Net loft, evening (copy)')
  await expect.poll(() => other.url().split('?')[0]).not.toBe(page.url().split('?')[0])
  await expect(gain(page)).toHaveValue('22')
  await other.getByRole('button', { name: 'Open the other tab’s' }).click()
  await expect(gain(other)).toHaveValue('22')
  await other.getByRole('link', { name: 'Sessions' }).click()
  await expect(other.locator('[data-session="Net loft, evening (copy)"]')).toBeVisible()
})

test('blocked storage is told, everything works, and the session can be exported', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(IDBFactory.prototype, 'open', {
      value: () => {
        throw new DOMException('denied', 'SecurityError')
      },
    })
  })
  await open(page)
  await expect(page.locator('[data-notice="storage"]')).toContainText('blocked')
  await type(page, 'Gain, dB', '41')
  await expect(verdict(page, 'headroom')).toContainText(/13\.1 (± [\d.]+ )?dB/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(page)).toHaveValue('35')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export now' }).click()
  expect(JSON.parse(readFileSync(await (await download).path(), 'utf8')).name).toBe('Net loft, evening')
  // Every place stands without it, and nothing fails unsaid.
  for (const key of ['2', '3', '4', '5', '6', '7', '8', '9', 'h', 'o']) {
    await page.keyboard.press(key)
    await expect(page.locator('main')).not.toBeEmpty()
    await page.waitForLoadState('networkidle')
  }
  await expect(page.getByText('storage is blocked or failing').first()).toBeVisible()
})

test('a first visit that goes on to another session at once: the demo is kept on the way, and nothing is said to be unkept', async ({
  page,
}) => {
  const file = { ...example1(), id: 'at-once', name: 'At once' }
  await openFile(page, file)
  await saved(page)
  await expect(page.getByText('has changes that are not kept')).toHaveCount(0)
  await page.keyboard.press('o')
  await expect(page.locator('[data-session]')).toHaveCount(2)
})

test('a value typed and not yet entered is there after a reload, and can be undone', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '36')
  await saved(page)
  await gain(page).fill('41')
  await page.reload()
  await expect(gain(page)).toHaveValue('41')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(page)).toHaveValue('36')
  await saved(page)
  await page.reload()
  await expect(gain(page)).toHaveValue('36')
})
