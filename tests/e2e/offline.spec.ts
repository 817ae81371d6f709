import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { expect, gain, goToLog, makeMark, open, saved, test, type, verdict } from './app'

test.describe('without the server', () => {
  test.use({ serviceWorkers: 'allow' })
  test('after the first visit everything works, every late part included', async ({ page, context }) => {
    await open(page)
    // It takes the page over when everything that the build has lies in its cache.
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null)
    await type(page, 'Gain, dB', '41')
    await saved(page)
    await context.setOffline(true)
    await page.reload()
    await expect(gain(page)).toHaveValue('41')
    await page.getByRole('radio', { name: 'Target levels' }).click()
    await expect(page.locator('[data-convention="peaks-18-12"]')).toBeVisible()
    for (const [key, what] of [
      ['2', '[data-mix-row]'],
      ['3', '[data-cell]'],
      ['4', '[data-arrival]'],
      ['5', '[data-page]'],
      ['h', '[data-item]'],
      ['o', '[data-session]'],
    ] as const) {
      await page.keyboard.press(key)
      await expect(page.locator(what).first()).toBeVisible()
    }
    await page.keyboard.press('5')
    await page.locator('[data-page="input-full-scale"]').click()
    await page.getByRole('button', { name: 'Try it on the simulated interface' }).click()
    await expect(page.locator('[data-row]').first()).toBeVisible()
    await page.keyboard.press('a')
    await expect(page.locator('[data-template]').first()).toBeVisible()
    await page.keyboard.press('Escape')
    const download = page.waitForEvent('download')
    await page.keyboard.press('e')
    await download
    // A place asked for by its address too.
    await page.goto('/shelf')
    await expect(page.locator('[data-item]').first()).toBeVisible()
    await context.setOffline(false)
  })
})

test.describe('a newer version', () => {
  test.use({ serviceWorkers: 'allow' })
  test('that another tab took is told in this one, and a reload loses nothing', async ({ page }) => {
    await open(page)
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null)
    await page.reload()
    await expect(gain(page)).toHaveValue('35')
    // What the browser says to every tab when a worker takes over.
    await page.evaluate(() => navigator.serviceWorker.dispatchEvent(new Event('controllerchange')))
    await expect(page.locator('[data-notice="version-taken"]')).toContainText('in use in another tab')
    await gain(page).fill('42')
    await page.locator('[data-notice="version-taken"]').getByRole('button', { name: 'Reload' }).click()
    await expect(page.locator('[data-notice="version-taken"]')).toHaveCount(0)
    await expect(gain(page)).toHaveValue('42')
  })
})

test('a late part that does not come says so, and nothing else is lost', async ({ page }) => {
  await open(page)
  // The cards are a late part themselves.
  await expect(gain(page)).toHaveValue('35')
  await page.waitForLoadState('networkidle')
  const late = /_nuxt\/.*\.js/
  await page.route(late, (route) => route.fulfill({ status: 503, body: '' }))
  test.info().annotations.push({ type: 'expects-errors' })
  await page.keyboard.press('3')
  await expect(page.locator('[data-notice="late"]')).toContainText('could not be loaded')
  await expect(gain(page)).toHaveValue('35')
  await type(page, 'Gain, dB', '40')
  // A request that is still held back when the page closes keeps the browser from closing.
  await page.unroute(late)
  const loaded = page.waitForEvent('load')
  await page.getByRole('button', { name: 'Reload the page' }).click()
  await loaded
  await expect(page.locator('[data-notice="late"]')).toHaveCount(0)
  await expect(gain(page)).toHaveValue('40')
})

test('everything in one file and back: merged, nothing overwritten, a faulty one named and nothing taken', async ({
  page,
  browser,
}) => {
  await open(page)
  await type(page, 'Gain, dB', '41')
  await page.keyboard.press('Escape')
  await page.keyboard.press('o')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Back up everything' }).first().click()
  const text = readFileSync(await (await download).path(), 'utf8')
  expect(JSON.parse(text)).toMatchObject({ format: 'remetra.backup', sessions: [{ name: 'Net loft, evening' }] })
  const restore = async (on: Page, content: string) => {
    const chooser = on.waitForEvent('filechooser')
    await on.getByRole('button', { name: 'Restore a backup…' }).click()
    await (
      await chooser
    ).setFiles({ name: 'all.backup.json', mimeType: 'application/json', buffer: Buffer.from(content) })
  }
  await restore(page, text)
  await expect(page.locator('[data-backup-told]')).toContainText('0 sessions were added. 1 was there already.')
  // The same session with a fuller log, and more practice: both are taken in.
  const fuller = JSON.parse(text)
  fuller.sessions[0].log = {
    marks: [],
    takes: [{ id: 't1', number: 1, name: 'One', strips: ['narrator'], at: '2026-11-26T19:00:00Z' }],
  }
  fuller.trainer = { progress: [{ kind: 'gain', box: 2, due: 20800, seen: 3, good: 2, last: 8 }], seconds: [] }
  await restore(page, JSON.stringify(fuller))
  await expect(page.locator('[data-backup-told]')).toContainText('1 was there already with 1 new log entry')
  const again = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Back up everything' }).first().click()
  const both = JSON.parse(readFileSync(await (await again).path(), 'utf8'))
  expect(both.sessions[0].log.takes).toHaveLength(1)
  expect(both.trainer).toEqual(fuller.trainer)
  await restore(page, text.replace('"gain":41', '"gain":410'))
  await expect(page.locator('[data-notice="backup-refused"]')).toContainText('settings.gain')
  await expect(page.locator('[data-session]')).toHaveCount(1)
  // Another browser: its own demo stays, the backup's session comes beside it, with its history.
  const elsewhere = await browser.newContext({ serviceWorkers: 'block' })
  const other = await elsewhere.newPage()
  await other.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))
  await open(other, page.url().replace(/\/sessions.*/, '/'))
  await other.keyboard.press('o')
  await restore(other, text)
  await expect(other.locator('[data-backup-told]')).toContainText('1 session was added')
  // Under its own name, the older of the two.
  await expect(other.locator('[data-session="Net loft, evening"]')).toHaveCount(2)
  await other.getByRole('link', { name: 'Open Net loft, evening' }).last().click()
  await expect(gain(other)).toHaveValue('41')
  await other.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(other)).toHaveValue('35')
  await elsewhere.close()
})

test('kept in a file on disk: written after each change, changes from outside noticed, taken with a step of undo', async ({
  page,
}) => {
  // The browser's own file store stands in for the disk: its handles are the same kind of thing.
  await page.addInitScript(() => {
    Object.assign(window, {
      showSaveFilePicker: async () =>
        (await navigator.storage.getDirectory()).getFileHandle('mine.session.json', { create: true }),
    })
  })
  const onDisk = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory()
      return (await (await root.getFileHandle('mine.session.json')).getFile()).text()
    })
  await open(page)
  await page.getByRole('button', { name: 'Keep in a file' }).click()
  await expect(page.locator('[data-file-link]')).toContainText('Kept in the file “mine.session.json” too')
  await type(page, 'Gain, dB', '41')
  await expect.poll(async () => JSON.parse(await onDisk()).strips[0].stages[2].settings.gain).toBe(41)
  await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory()
    const handle = await root.getFileHandle('mine.session.json')
    const text = (await (await handle.getFile()).text()).replace('"gain": 41', '"gain": 22')
    await new Promise((resolve) => setTimeout(resolve, 20))
    const stream = await handle.createWritable()
    await stream.write(text)
    await stream.close()
    window.dispatchEvent(new Event('focus'))
  })
  await expect(page.locator('[data-file-link]')).toContainText('was changed by something else')
  await page.getByRole('button', { name: 'Load the file' }).click()
  await expect(gain(page)).toHaveValue('22')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(page)).toHaveValue('41')
  // A mark changes nothing of the session, and is in the file all the same.
  await goToLog(page)
  await makeMark(page, 'For the file')
  await expect.poll(async () => JSON.parse(await onDisk()).log?.marks[0]?.name).toBe('For the file')
})

test('a database that vanished is told, and its sessions come back from the second copy', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '41')
  await type(page, 'Name of the session', 'Kept evening')
  await goToLog(page)
  await makeMark(page, 'As it sounded')
  const copied = (name: string) =>
    page.evaluate(async (folderName) => {
      const root = await navigator.storage.getDirectory()
      const folder = await root.getDirectoryHandle(folderName, { create: true })
      const texts: string[] = []
      for await (const handle of folder.values())
        texts.push(await (await (handle as FileSystemFileHandle).getFile()).text())
      return texts.join()
    }, name)
  // A copy that is replaced while the folder is read is not found for a moment.
  const holds = (folder: string, words: string) =>
    expect(async () => expect(await copied(folder)).toContain(words)).toPass({ timeout: 30_000 })
  await holds('second-copies', 'Kept evening')
  await holds('second-logs', 'As it sounded')
  // What the database loses of a log stays in the copy, also when the log goes on.
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('remetra')
        opening.onsuccess = () => {
          const work = opening.result.transaction('log', 'readwrite')
          work.objectStore('log').clear()
          work.oncomplete = () => {
            opening.result.close()
            resolve()
          }
          work.onerror = () => reject(work.error ?? new Error('not cleared'))
        }
      }),
  )
  await page.reload()
  await goToLog(page)
  await makeMark(page, 'After the break')
  await holds('second-logs', 'After the break')
  // The open page holds the database; it lets go, and says that it is gone.
  await page.evaluate(() => indexedDB.deleteDatabase('remetra'))
  await expect(page.locator('[data-notice="cleared"]')).toContainText('storage for this site was cleared')
  page.on('dialog', (dialog) => void dialog.accept())
  await page.goto('/')
  await expect(page.locator('[data-notice="vanished"]')).toContainText('Kept evening')
  await page.getByRole('button', { name: 'Bring them back' }).click()
  await page.getByRole('link', { name: 'Open Kept evening' }).click()
  await expect(gain(page)).toHaveValue('41')
  await expect(verdict(page, 'headroom')).toContainText(/13\.1 (± [\d.]+ )?dB/)
  await goToLog(page)
  await expect(page.locator('[data-mark="As it sounded"]')).toBeVisible()
  await expect(page.locator('[data-mark="After the break"]')).toBeVisible()
})

test('notes are kept while they are typed, before the field is left', async ({ page, context }) => {
  await open(page)
  await page.getByText('Notes', { exact: true }).click()
  await page.getByRole('textbox', { name: 'Notes on the session' }).pressSequentially('Tide at nine')
  await saved(page)
  await page.waitForTimeout(900)
  const address = page.url()
  const again = await context.newPage()
  await again.goto(address)
  await again.getByText('Notes', { exact: true }).click()
  await expect(again.getByRole('textbox', { name: 'Notes on the session' })).toHaveValue(/Tide at nine$/)
})

test('a full disk is told, nothing is lost while the tab is open, the page asks before it goes, and space can be freed', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put
    IDBObjectStore.prototype.put = function (...args) {
      const disk = window as { full?: boolean; refused?: number }
      if (disk.full) {
        disk.refused = (disk.refused ?? 0) + 1
        throw new DOMException('full', 'QuotaExceededError')
      }
      return put.apply(this, args as Parameters<typeof put>)
    }
  })
  const refused = () => page.evaluate(() => (window as { refused?: number }).refused ?? 0)
  await open(page)
  await saved(page)
  await page.evaluate(() => Object.assign(window, { full: true }))
  await type(page, 'Gain, dB', '41')
  await expect(page.locator('[data-notice="storage"]')).toContainText('full')
  const before = await refused()
  await type(page, 'Gain, dB', '42')
  // A write still on its way would find the disk free again below, and be kept without being tried again.
  await expect.poll(refused).toBeGreaterThan(before)
  const asked = page.waitForEvent('dialog')
  const leaving = page.close({ runBeforeUnload: true })
  const dialog = await asked
  expect(dialog.type()).toBe('beforeunload')
  await dialog.dismiss()
  await leaving
  await page.evaluate(() => Object.assign(window, { full: false }))
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.locator('[data-notice="storage"]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gain(page)).toHaveValue('41')
  await saved(page)
  await page.reload()
  await expect(gain(page)).toHaveValue('41')
})

test('plain http under a network name: sessions begin there too', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(crypto, 'randomUUID', { value: undefined })
    Object.defineProperty(navigator, 'storage', { value: undefined })
    Object.defineProperty(navigator, 'serviceWorker', { value: undefined })
    Reflect.deleteProperty(Navigator.prototype, 'serviceWorker')
  })
  await open(page)
  await page.keyboard.press('n')
  await page.getByRole('button', { name: 'Begin, planned' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toHaveValue('Voice')
  await saved(page)
})
