import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { expect, gain, open, saved, test, type } from './app'

/** Runs in the page: a change of a table of the browser's database. */
const inDatabase = (page: Page, table: string, change: string) =>
  page.evaluate(
    ([name, body]) =>
      new Promise<void>((resolve, reject) => {
        const request = indexedDB.open('remetra')
        request.onerror = () => reject(request.error)
        request.onsuccess = () => {
          const transaction = request.result.transaction(name as string, 'readwrite')
          new Function('store', body as string)(transaction.objectStore(name as string))
          transaction.oncomplete = () => {
            request.result.close()
            resolve()
          }
          transaction.onerror = () => reject(transaction.error)
        }
      }),
    [table, change],
  )
const each = (change: string) =>
  `store.openCursor().onsuccess = ({ target: { result } }) => { if (!result) return; const row = result.value; ${change}; result.update(row); result.continue() }`

test.use({ bypassCSP: true })

test('a session of a newer version is shown as such, left alone, and saved as it was found', async ({ page }) => {
  await open(page)
  await type(page, 'Gain, dB', '41')
  await saved(page)
  await inDatabase(page, 'revisions', each('row.session.version = 99; row.session.wonder = 7'))
  await page.reload()
  await expect(page.locator('[data-not-open]')).toContainText('A newer version of Remetra wrote “Net loft, evening”')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as found' }).click()
  const raw = readFileSync(await (await download).path(), 'utf8')
  expect(raw).toContain('"wonder": 7')
  await page.reload()
  await expect(page.locator('[data-not-open]')).toContainText('newer version')
})

test('a database of a newer version is neither read nor written; everything in it can be exported', async ({
  page,
}) => {
  await open(page)
  await saved(page)
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const request = indexedDB.open('remetra', 990)
        request.onupgradeneeded = () => request.result.createObjectStore('wonders', { keyPath: 'id' }).put({ id: 'w' })
        request.onsuccess = () => {
          request.result.close()
          resolve()
        }
        request.onerror = () => reject(request.error)
      }),
  )
  await page.goto('/sessions')
  await expect(page.getByText('A newer version of Remetra keeps data in this browser')).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export everything as found' }).click()
  const raw = JSON.parse(readFileSync(await (await download).path(), 'utf8'))
  expect([raw.version, raw.tables.wonders.length, raw.tables.sessions.length]).toEqual([990, 1, 1])
})

test('a damaged log entry is named and exported; the rest of the log is there', async ({ page }) => {
  await open(page)
  await page.keyboard.press('7')
  for (let i = 0; i < 2; i++) {
    await page.locator('[data-toggle-take]').click()
    await page.locator('[data-toggle-take]').click()
    await expect(page.locator(`[data-take="${i + 1}"]`)).toBeVisible()
  }
  await inDatabase(
    page,
    'log',
    each("if (row.entry.take && row.entry.take.number === 1) row.entry.take.at = 'yesterday'"),
  )
  await page.reload()
  await page.keyboard.press('7')
  await expect(page.locator('[data-aside]')).toContainText('Damaged and left out: Take 1.')
  await expect(page.locator('[data-take="2"]')).toBeVisible()
  await expect(page.locator('[data-take="1"]')).toHaveCount(0)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export as found' }).click()
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('yesterday')
})

test('log entries that the storage refuses stay, are said, survive another session, and are stored later', async ({
  page,
}) => {
  test.info().annotations.push({ type: 'expects-errors' })
  await open(page)
  await saved(page)
  const address = page.url()
  await page.keyboard.press('7')
  await page.evaluate(() => {
    const add = IDBObjectStore.prototype.add
    Object.assign(window, { refuses: true })
    IDBObjectStore.prototype.add = function (this: IDBObjectStore, ...given: [unknown]) {
      if (this.name === 'log' && (window as unknown as { refuses: boolean }).refuses)
        throw new DOMException('full', 'QuotaExceededError')
      return add.apply(this, given)
    }
  })
  await page.locator('[data-toggle-take]').click()
  await page.locator('[data-toggle-take]').click()
  await expect(page.locator('[data-notice="log"]')).toContainText('log entries are not stored')
  await expect(page.locator('[data-saved]')).toHaveText('not kept')
  await expect(page.locator('[data-take="1"]')).toBeVisible()
  await page.evaluate(() => Object.assign(window, { refuses: false }))
  await page.locator('[data-notice="log"]').getByRole('button', { name: 'Try again' }).click()
  await expect(page.locator('[data-notice="log"]')).toHaveCount(0)
  await open(page, address)
  await page.keyboard.press('7')
  await expect(page.locator('[data-take="1"]')).toBeVisible()
})

test('two tabs log at once: no take number is given twice', async ({ page, context }) => {
  await open(page)
  await saved(page)
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(gain(other)).toBeVisible()
  for (const each of [page, other]) await each.keyboard.press('7')
  for (let i = 0; i < 3; i++) {
    await Promise.all([page, other].map((each) => each.locator('[data-toggle-take]').click()))
    await Promise.all([page, other].map((each) => each.locator('[data-toggle-take]').click()))
  }
  for (const number of [1, 2, 3, 4, 5, 6])
    for (const each of [page, other]) await expect(each.locator(`[data-take="${number}"]`)).toHaveCount(1)
})

test('two tabs tick one after the other, practise and shelve at once: all of it is kept', async ({ page, context }) => {
  await open(page)
  await saved(page)
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(gain(other)).toBeVisible()
  const both = [page, other] as const
  const together = (act: (each: Page, i: number) => Promise<unknown>) => Promise.all(both.map(act))

  await together((each) => each.keyboard.press('6'))
  await together((each) => expect(each.locator('[data-run-sheet]')).toBeVisible())
  // A session that both change at the same moment goes on as two; one after the other they follow each other.
  for (const [i, each] of both.entries()) {
    await each.keyboard.press('Enter')
    await together((tab) => expect(tab.locator('[data-progress]')).toHaveText(new RegExp(`^${i + 1} of`)))
  }

  await together((each) => each.keyboard.press('9'))
  await together((each) => each.locator('[data-drill="headroom"]').click())
  await together(async (each) => {
    const estimate = each.getByRole('textbox', { name: /Your estimate/ })
    await estimate.fill('7')
    await estimate.press('Enter')
    await expect(each.locator('[data-points]')).toHaveText(/^\d+$/)
  })

  await together((each) => each.getByRole('link', { name: 'Gear shelf' }).click())
  await together((each) => each.getByRole('searchbox').fill('grebe'))
  await together((each) => each.locator('[data-item="grebe"]').click())
  await together((each) => each.getByRole('button', { name: 'Duplicate' }).click())
  await together((each) => expect(each.locator('[data-item]')).toHaveCount(3))
  await page.keyboard.press('Escape')
  await page.keyboard.press('9')
  await expect(page.locator('[data-progress-list]')).toContainText('of 2, last')
})
