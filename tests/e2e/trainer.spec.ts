import type { Page } from '@playwright/test'
import { drillKinds } from '#core/trainer/drill'
import { expect, open, test, violations } from './app'

async function trainer(page: Page) {
  await open(page)
  await page.keyboard.press('9')
  await expect(page.locator('[data-today]')).toBeVisible()
}
/** Names causes, or chooses fixes, one after the other until one is right. @returns how many were wrong */
async function until(page: Page, choices: string, done: () => Promise<boolean>) {
  for (let i = 0; i < 20; i++) {
    if (await done()) return i - 1
    await page.locator(choices).first().click()
  }
  throw new Error('None was right.')
}

test('an exercise from the complaint to the score: looked at, checked, turned, named, fixed; kept over a reload', async ({
  page,
}) => {
  await trainer(page)
  await page.getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.locator('[data-complaint]')).toContainText(':')
  await expect(page.locator('[data-chain-table] tbody tr').first()).toBeVisible()
  await page.locator('[data-make]').first().click()
  await expect(page.locator('[data-made] li')).toHaveCount(1)
  await expect(page.locator('[data-spent]')).toHaveText('1 made')
  // Everything that is heard stands in words, too.
  await page.locator('[data-caption] summary').click()
  await expect(page.locator('[data-caption] p')).toContainText(/The performer at|Nothing of the performer/)
  const wrong = await until(page, '[data-name]', () => page.locator('[data-choose-fix]').isVisible())
  if (wrong > 0) await expect(page.locator('[data-told]')).toHaveCount(0)
  expect(await violations(page)).toEqual([])
  const fixes = await until(page, '[data-fix-choice]', () => page.locator('[data-score]').isVisible())
  await expect(page.locator('[data-score]')).toContainText('Shortest solution from')
  const points = Number(await page.locator('[data-points]').innerText())
  expect(points).toBeLessThanOrEqual(Math.max(0, 100 - 20 * wrong - 12 * fixes))
  await expect(page.locator('[data-progress-list] tbody tr')).toHaveCount(1)
  await expect(page.locator('[data-progress-list]')).toContainText(`last ${points}`)
  await page.waitForTimeout(500)
  await page.reload()
  await expect(page.locator('[data-progress-list]')).toContainText(`last ${points}`)
  // What was learnt is nobody’s session: nothing of it was changed.
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await page.getByRole('button', { name: 'Reset progress' }).click()
  await expect(page.locator('[data-progress-list]')).toHaveCount(0)
})

test('listening is safe and can be stopped; the next exercise comes by key; the solution can be shown', async ({
  page,
}) => {
  await trainer(page)
  await page.getByRole('combobox', { name: 'Grade' }).selectOption({ index: 2 })
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.locator('[data-exercise]')).toContainText('never over −20')
  await expect(page.locator('[data-exercise]')).toContainText('Headphones down first')
  await page.locator('[data-listen]').click()
  await expect(page.locator('[data-exercise]').getByRole('status')).toContainText('Playing…')
  await page.locator('[data-listen]').click()
  await expect(page.locator('[data-listen]')).toHaveText('Listen')
  const complaint = await page.locator('[data-complaint]').innerText()
  const table = await page.locator('[data-chain-table]').innerText()
  await page.locator('[data-complaint]').click()
  await page.keyboard.press('x')
  await expect
    .poll(
      async () =>
        `${await page.locator('[data-complaint]').innerText()}${await page.locator('[data-chain-table]').innerText()}`,
    )
    .not.toBe(`${complaint}${table}`)
  await page.getByRole('button', { name: 'Show the solution' }).click()
  await expect(page.locator('[data-points]')).toHaveText('0')
  await expect(page.locator('[data-score]')).toContainText('The solution was shown')
  await page.getByRole('button', { name: 'To the overview' }).click()
  await expect(page.locator('[data-trainer-intro]')).toBeVisible()
})

test('estimates: every kind is asked, answered and scored against what is computed', async ({ page }) => {
  await trainer(page)
  for (const kind of drillKinds) {
    await page.locator(`[data-drill="${kind}"]`).click()
    await expect(page.locator(`[data-drilling="${kind}"]`)).toBeVisible()
    if (kind === 'noise-source') await page.locator('[data-choice]').first().click()
    else if (kind === 'set-gain') {
      const gain = page.getByRole('textbox', { name: 'Gain, dB' })
      const before = await page.locator('[data-coarse]').innerText()
      await gain.fill(
        String(
          Number(await gain.inputValue()) > 10
            ? Number(await gain.inputValue()) - 10
            : Number(await gain.inputValue()) + 10,
        ),
      )
      await gain.press('Enter')
      await expect(page.locator('[data-coarse]')).not.toHaveText(before)
      await page.locator('[data-done]').click()
    } else {
      const estimate = page.getByRole('textbox', { name: /Your estimate/ })
      await estimate.fill('7')
      await estimate.press('Enter')
    }
    await expect(page.locator('[data-drill-result]')).toContainText('is what it comes to')
    await expect(page.locator('[data-points]')).toHaveText(/^\d+$/)
  }
  await expect(page.locator('[data-progress-list] tbody tr')).toHaveCount(drillKinds.length)
  await expect(page.locator('main')).not.toContainText('NaN')
})

test('six strangers are set up by their meters, and what was left is told', async ({ page }) => {
  await trainer(page)
  await page.locator('[data-set-up]').click()
  const rows = page.locator('[data-stranger]')
  await expect(rows).toHaveCount(6)
  await expect(page.locator('[data-left]')).toContainText('left')
  for (const look of ['swapped', 'pad', 'dead']) await page.locator(`[data-look="${look}"]`).click()
  await page.locator('[data-look="pad"]').click()
  await expect(page.locator('[data-six] [role=status]')).toHaveText('No pad is in.')
  // The first one is brought into its window by what its meter says.
  const first = rows.first()
  const name = await first.locator('strong').innerText()
  await expect(async () => {
    if ((await first.getAttribute('data-state')) === 'in-window') return
    const label = ((await first.locator('[role=img]').getAttribute('aria-label')) ?? '').replaceAll('−', '-')
    const [, read, low, high] = /(-?[\d.]+) dBFS, window (-?[\d.]+) to (-?[\d.]+)/.exec(label) ?? []
    const off = read === undefined ? 18 : (Number(low) + Number(high)) / 2 - Number(read)
    const step = Math.abs(off) >= 6 ? 6 : 1
    for (let i = 0; i < Math.round(Math.abs(off) / step); i++)
      await page.getByRole('button', { name: `${name}: ${step} dB ${off > 0 ? 'up' : 'down'}` }).click()
    await expect(first).toHaveAttribute('data-state', 'in-window', { timeout: 6000 })
  }).toPass({ timeout: 90_000 })
  expect(await violations(page)).toEqual([])
  await page.locator('[data-finish]').click()
  await expect(page.locator('[data-score]')).toContainText('of 100')
  await expect(page.locator('[data-score]')).toContainText('1 look for nothing: −4')
  await expect(page.locator('[data-progress-list]')).toContainText('Set up six strangers')
  await page.getByRole('button', { name: 'Six others' }).click()
  await expect(page.locator('[data-finish]')).toBeVisible()
})
