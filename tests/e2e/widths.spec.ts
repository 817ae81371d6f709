import { expect, open, test, violations } from './app'
import { troubles } from './troubles'

/** The smallest and the usual width of each layout, and the least height of what is pressed, px. */
const DEVICES = [
  { by: 'touch', widths: [360, 390, 768], least: 44 },
  { by: 'pointer', widths: [900, 1280, 1920], least: 24 },
] as const
const sizeAt = (width: number) => ({
  width,
  height: width < 640 ? 844 : width === 1920 ? 1080 : width === 768 ? 1024 : 800,
})
const PLACES = [
  'path',
  'bus',
  'room',
  'mix',
  'timing',
  'monitoring',
  'bench',
  'soundcheck',
  'log',
  'faults',
  'trainer',
  'shelf',
  'sessions',
] as const

/** A bus has a page of its own on Path. */
const addressOf = (place: (typeof PLACES)[number], key = '') =>
  place === 'shelf' || place === 'sessions'
    ? `/${place}`
    : place === 'bus'
      ? `/path/${key}?strip=stream`
      : place === 'room'
        ? `/path/${key}?strip=preview`
        : `/${place}/${key}`

// What is wrong in one place does not hide what is in the next; a layout that still moves is looked at again.
const softly = expect.configure({ soft: true, timeout: 5000 })

for (const { by, widths, least } of DEVICES) {
  test.describe(`by ${by}`, () => {
    const touch = by === 'touch'
    test.use({ viewport: sizeAt(widths[0]), hasTouch: touch, isMobile: touch })
    test(`every place at ${widths.join(', ')} px: nothing covered, cut, too small or pushed over the edge`, async ({
      page,
    }) => {
      test.setTimeout(480_000)
      await open(page)
      const key = page.url().match(/path\/([^?]+)/)?.[1]
      for (const place of PLACES) {
        await page.setViewportSize(sizeAt(widths[0]))
        await page.goto(addressOf(place, key))
        await expect(page.locator('main')).not.toContainText('Opening…')
        await page.waitForLoadState('networkidle')
        for (const width of widths) {
          await page.setViewportSize(sizeAt(width))
          await softly.poll(() => troubles(page, least), `${place}, ${width} px`).toEqual([])
        }
        // The screens of a pointer, and both themes, are looked at dialog by dialog in access.spec.ts.
        if (touch) expect.soft(await violations(page), `axe, ${place}`).toEqual([])
      }
    })
  })
}

test.describe('by thumb', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  test('the verdict is a line that opens, the places beyond the nearest are behind More, the session’s tools in a menu', async ({
    page,
  }) => {
    await open(page)
    const line = page.locator('[data-verdict-line]')
    await expect(line).toHaveText(/Headroom 19\.1 dB · floor −80\.4 dBFS\(A\) · 8\.65 ms/)
    await expect(page.locator('[data-verdict="headroom"]')).toBeHidden()
    await line.tap()
    await expect(page.locator('[data-verdict="headroom"]')).toContainText('Headroom 19.1')
    await line.tap()
    // What stands above the place leaves most of the screen to it.
    const top = await page.getByLabel('Strip', { exact: true }).boundingBox()
    expect((top?.y ?? 999) + (top?.height ?? 0)).toBeLessThan(60)
    await page.getByRole('button', { name: 'More places' }).tap()
    await page.getByRole('link', { name: 'Timing' }).tap()
    await expect(page).toHaveURL(/\/timing\//)
    await page.getByRole('button', { name: 'The session and the page' }).tap()
    await page.getByRole('button', { name: 'Keys' }).tap()
    await expect(page.getByRole('dialog').getByRole('heading').first()).toBeVisible()
  })
  test('tables of many columns stand as blocks: nothing is pushed sideways; strips in another order', async ({
    page,
  }) => {
    await open(page)
    const overhang = (inside: string) =>
      page
        .locator(inside)
        .first()
        .evaluate((table) => {
          const box = table.closest('.overflow-auto') as HTMLElement
          return box.scrollWidth - box.clientWidth
        })
    await page.getByLabel('How to read the section').selectOption('conventions')
    await expect(page.locator('[data-convention]').first()).toBeVisible()
    expect(await overhang('table:has([data-convention])')).toBeLessThanOrEqual(0)
    await page.getByRole('link', { name: 'Mix' }).tap()
    await expect(page.locator('[data-mix-row]').first()).toContainText('Narrator')
    expect(await overhang('table:has([data-mix-row])')).toBeLessThanOrEqual(0)
    await page.getByLabel('In order of').selectOption('strip')
    await expect(page.locator('[data-mix-row]').first()).toContainText('Cello')
  })
  test('a gain is dragged in the section, and turned on its scale; the card below is one stage at a time', async ({
    page,
  }) => {
    await open(page)
    await page.locator('[data-stage-tab]').last().tap()
    const field = page.getByRole('textbox', { name: 'Gain, dB', exact: true })
    await expect(field).toHaveValue('35')
    await expect(page.locator('main section[id^="stage-"]')).toHaveCount(1)
    const drag = async (selector: string, x: number, y: number) => {
      const handle = page.locator(selector)
      await handle.scrollIntoViewIfNeeded()
      const box = await handle.boundingBox()
      if (!box) throw new Error('no handle')
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44)
      const client = await page.context().newCDPSession(page)
      const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
      await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [at] })
      for (let i = 1; i <= 8; i++)
        await client.send('Input.dispatchTouchEvent', {
          type: 'touchMove',
          touchPoints: [{ x: at.x + (x * i) / 8, y: at.y + (y * i) / 8 }],
        })
      await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
      // The browser takes a touch that follows at once for a part of this one.
      await page.waitForTimeout(500)
    }
    await drag('[data-gain-handle]', 0, -30)
    const lifted = Number(await field.inputValue())
    expect(lifted).toBeGreaterThan(38)
    await drag('[data-gain]', -40, 0)
    expect(Number(await field.inputValue())).toBeLessThan(lifted)
    await page.getByRole('button', { name: 'Undo' }).tap()
    await expect(field).toHaveValue(String(lifted))
    await page.getByRole('button', { name: 'Undo' }).tap()
    await expect(field).toHaveValue('35')
  })
})
