import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, open, saved, test, violations } from './app'

interface Backup {
  sessions: { name: string; steps: { session: { id: string; name: string } }[] }[]
}

async function backup(page: Page, press: string): Promise<Backup> {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: press }).first().click()
  return JSON.parse(readFileSync(await (await download).path(), 'utf8')) as Backup
}

async function restore(page: Page, file: Backup) {
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Restore a backup…' }).click()
  const buffer = Buffer.from(JSON.stringify(file))
  await (await chooser).setFiles({ name: 'many.backup.json', mimeType: 'application/json', buffer })
}

/** The demo eleven times more, each under a name of its own. */
async function manySessions(page: Page) {
  await open(page)
  await saved(page)
  await page.keyboard.press('o')
  const whole = await backup(page, 'Back up everything')
  const [first] = whole.sessions
  if (!first) throw new Error('the backup holds the demo')
  const named = (name: string, i: number) => ({
    ...first,
    name,
    steps: first.steps.map((step) => ({ ...step, session: { ...step.session, id: `copy-${i}`, name } })),
  })
  const names = Array.from({ length: 11 }, (_, i) => `Evening ${String(i + 1).padStart(2, '0')}`)
  await restore(page, { ...whole, sessions: names.map(named) })
  await expect(page.locator('[data-session]')).toHaveCount(12)
}

test('a list of sessions tells what each holds, how far its soundcheck is, and where else it is kept', async ({
  page,
}) => {
  await open(page)
  await saved(page)
  await page.keyboard.press('o')
  const about = page.locator('[data-session="Net loft, evening"] [data-about]')
  await expect(about).toContainText('Narrator, Cello, Harmonium, Tide, recorder')
  await expect(about).toContainText(/3 busses/)
  await expect(about).toContainText(
    /Soundcheck: \d+ steps, none done · No mark yet · With a second copy in this browser/,
  )
  await expect(page.locator('[data-list-tools]')).toHaveCount(0)
})

test('from ten sessions on they are searched and sorted; several at once are exported, deleted and brought back', async ({
  page,
}) => {
  await manySessions(page)
  const names = () =>
    page.locator('[data-session]').evaluateAll((all) => all.map((each) => each.getAttribute('data-session')))
  await page.getByRole('radio', { name: 'By name' }).click()
  expect((await names()).slice(0, 2)).toEqual(['Evening 01', 'Evening 02'])
  const search = page.getByRole('searchbox', { name: 'Search the sessions' })
  await search.fill('evening 1')
  await expect(page.locator('[data-session]')).toHaveCount(2)
  await search.fill('harmonium')
  await expect(page.locator('[data-session]')).toHaveCount(12)
  await search.fill('nobody')
  await expect(page.getByText('No session has “nobody”')).toBeVisible()
  await search.fill('')
  expect(await violations(page)).toEqual([])
  await page.getByRole('checkbox', { name: 'Choose Evening 03' }).check()
  await page.getByRole('checkbox', { name: 'Choose Evening 05' }).check()
  const some = await backup(page, 'Export 2 chosen')
  expect(some.sessions.map(({ name }) => name).sort()).toEqual(['Evening 03', 'Evening 05'])
  await page.getByRole('button', { name: 'Delete 2 chosen' }).click()
  await expect(page.locator('[data-session]')).toHaveCount(10)
  await expect(page.getByText('2 sessions were deleted.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(page.locator('[data-session]')).toHaveCount(12)
  await restore(page, some)
  await expect(page.locator('[data-backup-told]')).toContainText('0 sessions were added. 2 were there already')
  await page.getByRole('checkbox', { name: 'Choose all' }).check()
  await expect(page.getByRole('button', { name: 'Delete 12 chosen' })).toBeVisible()
})

test('a way to another place goes on while the strip in the address changes, and takes the strip along', async ({
  page,
}) => {
  await open(page)
  await page.waitForLoadState('networkidle')
  const code = /_nuxt\/.*\.js/
  let letGo = () => {}
  const held = new Promise<void>((resolve) => {
    letGo = resolve
  })
  await page.route(code, async (route) => {
    await held
    await route.continue()
  })
  const asked = page.waitForRequest(code)
  await page.keyboard.press('3')
  await asked
  await page.keyboard.press(']')
  await expect(page.locator('[data-strip-name] input')).toHaveValue('Cello')
  letGo()
  await expect(page).toHaveURL(/\/timing\/[^?]+\?strip=cello$/)
  await page.unroute(code)
  await page.keyboard.press('[')
  await expect(page).toHaveURL(/\?strip=narrator$/)
})

test('a key pressed as soon as an imported session is there goes to its place', async ({ page }) => {
  await open(page)
  const text = readFileSync('demo/net-loft.session.json', 'utf8').replace('Net loft, evening', 'Brought in')
  for (const [key, place] of [
    ['6', 'soundcheck'],
    ['3', 'timing'],
    ['7', 'log'],
  ] as const) {
    const before = new URL(page.url()).pathname
    await page.evaluate(
      (given) => {
        const clipboardData = new DataTransfer()
        clipboardData.setData('text/plain', given)
        window.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }))
      },
      text.replace('Brought in', `Brought in ${key}`),
    )
    await page.waitForFunction((name) => document.title.startsWith(name), `Brought in ${key}`)
    await page.keyboard.press(key)
    await expect(page).toHaveURL(new RegExp(`/${place}/`))
    expect(new URL(page.url()).pathname.split('/')[2]).not.toBe(before.split('/')[2])
  }
})
