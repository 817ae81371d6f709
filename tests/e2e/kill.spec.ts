import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { chromium } from '@playwright/test'
import { expect, test } from './app'

/** A browser with a profile of its own on disk, as a person's is. */
const launch = (profile: string) =>
  chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  })

/** Logs a take and ticks a step, once what the rounds before left is seen to be there. */
async function log(page: Page, round: number) {
  await page.keyboard.press('Escape')
  await page.keyboard.press('7')
  await expect(page.locator('[data-take]')).toHaveCount(round)
  await page.locator('[data-toggle-take]').click()
  await page.locator('[data-toggle-take]').click()
  await expect(page.locator(`[data-take="${round + 1}"]`)).toBeVisible()
  await page.keyboard.press('6')
  await expect(page.locator('[data-progress]')).toContainText(`${round} of`)
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-progress]')).toContainText(`${round + 1} of`)
  // As long as something is in this tab only, the header says so.
  await expect(page.locator('[data-saved]')).toContainText(/saved \d/)
}

/** Answers an estimate, once what the round before learnt is seen to be there. @returns its points */
async function practise(page: Page, before: string | null) {
  await page.keyboard.press('Escape')
  await page.keyboard.press('9')
  if (before !== null) await expect(page.locator('[data-progress-list]')).toContainText(`last ${before}`)
  await page.locator('[data-drill="headroom"]').click()
  const estimate = page.getByRole('textbox', { name: /Your estimate/ })
  await estimate.fill('7')
  await estimate.press('Enter')
  await expect(page.locator('[data-points]')).toHaveText(/^\d+$/)
  return page.locator('[data-points]').innerText()
}

/** Puts one more item on the shelf, once those of the rounds before are seen to be there. */
async function shelve(page: Page, round: number) {
  await page.getByRole('link', { name: 'Gear shelf' }).click()
  await page.getByRole('searchbox').fill('grebe')
  await expect(page.locator('[data-item]')).toHaveCount(1 + round)
  await page.locator('[data-item="grebe"]').click()
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.locator('[data-item]')).toHaveCount(2 + round)
  await page.goBack()
}

test('the browser killed in the middle of editing, again and again: nothing that was said to be saved is gone', async ({
  baseURL,
}) => {
  test.setTimeout(480_000)
  const profile = mkdtempSync(join(tmpdir(), 'remetra-profile-'))
  let acknowledged = '35'
  let points: string | null = null
  let address = baseURL ?? ''
  try {
    for (let round = 0; round < 4; round++) {
      const context = await launch(profile)
      const page = context.pages()[0] ?? (await context.newPage())
      await page.goto(address.replace(/\/soundcheck\//, '/path/'))
      const gain = page.getByRole('textbox', { name: 'Gain, dB', exact: true })
      await expect(gain).toHaveValue(acknowledged)
      await expect(page.locator('[data-saved]')).toContainText(/saved \d/)
      address = page.url()
      for (let edit = 0; edit < 6; edit++) {
        const value = String(10 + ((7 * round + 5 * edit) % 40))
        await gain.fill(value)
        await gain.press('Enter')
        await expect(page.locator('[data-saved]')).toContainText(/saved \d/)
        acknowledged = value
      }
      points = await practise(page, points)
      await shelve(page, round)
      await log(page, round)
      execFileSync('pkill', ['-9', '-f', profile])
      await context.close().catch(() => undefined) // it is gone already
    }
  } finally {
    rmSync(profile, { recursive: true, force: true })
  }
})
