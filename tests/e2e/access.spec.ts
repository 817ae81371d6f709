import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { expect, open, paste, test, unfoldSheets, violations } from './app'

test('no violation on any screen or dialog, in either theme', async ({ page }) => {
  test.setTimeout(420_000)
  const check = async (screen: string) => {
    expect(await violations(page), screen).toEqual([])
    // The themes differ in their colours alone.
    await page.emulateMedia({ colorScheme: 'dark' })
    await expect(page.locator('html')).toHaveClass(/dark/)
    expect(await violations(page, ['color-contrast']), `${screen}, dark`).toEqual([])
    await page.emulateMedia({ colorScheme: 'light' })
    await expect(page.locator('html')).not.toHaveClass(/dark/)
  }
  await open(page)
  await check('path')
  await page.getByRole('button', { name: 'Set for me' }).click()
  await page.getByRole('radio', { name: 'Table' }).click()
  await check('path, table')
  await unfoldSheets(page)
  await check('path, data sheets')
  await page.getByRole('button', { name: 'measured: where Maximum input level is from' }).click()
  await check('origin')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  await check('unit')
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await check('keys')
  await page.keyboard.press('Escape')
  await paste(page, '{}')
  await check('refused file')
  await page.keyboard.press('a')
  await check('add a strip')
  await page.locator('[data-template="desk"]').click()
  for (const reading of ['Noise budget', 'Target levels', 'Relative to clipping']) {
    await page.getByRole('radio', { name: reading }).click()
    await check(`long strip, ${reading}`)
  }
  await page.getByRole('button', { name: 'Joint 2: fits' }).click()
  await check('joint')
  await page.getByRole('button', { name: 'Insert something here…' }).click()
  await check('gear picker')
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Timing' }).click()
  await expect(page.locator('[data-cell]').first()).toBeVisible()
  await check('timing')
  await page.getByRole('link', { name: 'Monitoring' }).click()
  await page.getByRole('radio', { name: 'Both', exact: true }).click()
  await expect(page.locator('[data-doubling] canvas')).toBeVisible()
  await check('monitoring')
  await page.getByRole('link', { name: 'Bench' }).click()
  await expect(page.locator('[data-known]').first()).toBeVisible()
  await check('bench')
  await page.locator('[data-page="recording"]').click()
  await page
    .getByLabel('Choose a recording', { exact: true })
    .setInputFiles({
      name: 'a.wav',
      mimeType: 'audio/wav',
      buffer: Buffer.from(writeWav([sine(8000, 20, 300, -20)], 8000, 16)),
    })
  await expect(page.locator('[data-thirds]')).toBeAttached()
  await check('bench, recording')
  for (const [id, rows] of [
    ['output-full-scale', 3],
    ['idle-noise', 1],
    ['round-trip', 2],
  ] as const) {
    await page.locator(`[data-page="${id}"]`).click()
    await page.getByRole('button', { name: 'Try it on the simulated interface' }).click()
    await expect(page.locator('[data-row]')).toHaveCount(rows, { timeout: 60_000 })
    await check(`bench, ${id}`)
  }
  await page.locator('[data-page="cable"]').click()
  await expect(page.locator('[data-cable-run]')).toBeVisible()
  await check('bench, one cable')
  await page.locator('[data-page="signals"]').click()
  await expect(page.getByRole('heading', { name: 'Test signals' })).toBeVisible()
  await check('bench, signals')
  await page.locator('[data-page="compare"]').click()
  await expect(page.locator('[data-compared]').first()).toBeVisible()
  await check('bench, compare')
  await page.getByRole('link', { name: 'Gear shelf' }).click()
  await expect(page.locator('[data-item]').first()).toBeVisible()
  await check('gear shelf')
  await page.getByRole('link', { name: 'Sessions' }).click()
  await page.getByRole('button', { name: 'Delete Net loft, evening' }).click()
  await check('sessions')
})

test('the whole main job without a mouse', async ({ page }) => {
  await open(page)
  await page.keyboard.press('g')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('s')
  await expect(page.locator('[data-plan]')).toContainText('36 → 39 dB')
  await page.keyboard.press('v')
  await page.keyboard.press('v')
  await expect(page.getByRole('table', { name: 'Levels at the output of every stage' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('t')
  await expect(page.locator('html')).toHaveClass(/dark/)
})

test('first load: at most 195 kB of compressed JavaScript until a gain can be turned, fonts from here', async ({
  page,
}) => {
  // When the handle first stood there; what was asked for later is not of the first load.
  await page.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('[data-gain-handle]')) return
      performance.mark('usable')
      observer.disconnect()
    }).observe(document, { childList: true, subtree: true })
  })
  await open(page)
  const bytes = await page.evaluate(() => {
    const usable = performance.getEntriesByName('usable')[0]?.startTime ?? 0
    const scripts = performance.getEntriesByType('resource') as PerformanceResourceTiming[]
    return scripts
      .filter(({ name, startTime }) => name.endsWith('.js') && startTime <= usable)
      .reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0)
  })
  expect(bytes).toBeGreaterThan(50_000)
  expect(bytes).toBeLessThan(195_000)
  expect(await page.evaluate(() => document.fonts.check('13px "Instrument Sans Variable"'))).toBe(true)
})
