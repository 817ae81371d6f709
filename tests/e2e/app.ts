import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { test as base, expect } from '@playwright/test'

/** How many times slower the page is made to run; 1 as it is. What a test only wins by being quick fails then. */
const SLOWED = Number(process.env.E2E_SLOWED ?? 1)

/** A page that may not leave the machine, may not log errors, and saves files without the system’s dialog. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page, baseURL }, use) => {
    const trouble: string[] = []
    page.on('request', (request) => {
      const url = request.url()
      if (!url.startsWith(baseURL ?? '') && !/^(blob|data):/.test(url)) trouble.push(`left the machine: ${url}`)
    })
    page.on('pageerror', (error) => trouble.push(`threw: ${error.message}`))
    page.on('console', (message) => {
      if (message.type() === 'error') trouble.push(`logged: ${message.text()}`)
    })
    await page.addInitScript(() => {
      // What the policy refuses is thrown, and may be caught where nobody sees it.
      document.addEventListener(
        'securitypolicyviolation',
        ({ effectiveDirective, blockedURI, sourceFile, lineNumber }) => {
          // What was inline and has no nonce is what was refused.
          const inline = [...document.querySelectorAll('script:not([src])')].filter(
            (each) => !(each as HTMLScriptElement).nonce,
          )
          const text = inline.map((each) => each.textContent.slice(0, 80)).join(' | ')
          reportError(new Error(`refused by ${effectiveDirective}: ${blockedURI} ${sourceFile}:${lineNumber} ${text}`))
        },
      )
      Reflect.deleteProperty(window, 'showSaveFilePicker')
      Reflect.deleteProperty(window, 'showOpenFilePicker')
    })
    if (SLOWED > 1)
      await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: SLOWED })
    await use(page)
    // A test that takes something away from the page says that it will complain.
    if (test.info().annotations.some(({ type }) => type === 'expects-errors')) return
    expect(trouble).toEqual([])
  },
})

export { expect }

/** A browser that hands out its own fake microphone without asking, which beeps. */
export const FAKE_DEVICE = [
  '--no-sandbox',
  '--disable-gpu',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  '--autoplay-policy=no-user-gesture-required',
]

/** Opens the program as on a first visit: the demo session. */
export async function open(page: Page, address = '/') {
  await page.goto(address)
  await expect(page.locator('[data-gain-handle]')).toBeVisible()
}

export const verdict = (page: Page, key: 'headroom' | 'floor' | 'latency' | 'bus') =>
  page.locator(`[data-verdict="${key}"]`)
export const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true })
export const gain = (page: Page) => field(page, 'Gain, dB')

export async function type(page: Page, name: string, value: string) {
  await field(page, name).fill(value)
  // By the keyboard, not at the field: what is typed may take the field away.
  await page.keyboard.press('Enter')
}

/** Unfolds the data sheets of all stages. */
export async function unfoldSheets(page: Page) {
  // The key goes to the place that is shown: Path must stand before it is pressed.
  await expect(page.locator('[data-sheet]').first()).toBeVisible()
  await page.keyboard.press('d')
  await expect(page.locator('[data-sheet] [aria-expanded="true"]').first()).toBeVisible()
}

/** Waits until everything that was changed is kept. */
export const saved = (page: Page) => expect(page.locator('[data-saved]')).toContainText(/saved \d\d:\d\d/)

/** The figures of the table behind the chart, of one stage’s point. */
export async function point(page: Page, stage: string) {
  await page.getByRole('radio', { name: 'Table' }).click()
  // Without its ± a figure stands in full.
  const spread = page.locator('[data-doubt]')
  if ((await spread.getAttribute('aria-pressed')) === 'true') await spread.click()
  const figure = async (key: string) =>
    Number((await page.locator(`main [data-point="${stage}.${key}"]`).innerText()).replace('−', '-'))
  return {
    average: await figure('average'),
    peak: await figure('peak'),
    headroom: await figure('headroom'),
    noise: await figure('noise'),
    snr: await figure('snr'),
  }
}

/** Begins a session of one's own stage by stage: a source, a microphone, an interface. */
export async function startBlank(page: Page) {
  await page.keyboard.press('n')
  await page.getByRole('button', { name: 'Stage by stage instead' }).click()
  await expect(field(page, 'Name of the source')).toHaveValue('My source')
}

/** Goes to the log, from wherever the cursor is. */
export async function goToLog(page: Page) {
  await page.keyboard.press('Escape')
  await page.keyboard.press('7')
  await expect(page.locator('[data-takes]')).toBeVisible()
}

/** Makes a mark, with the keyboard out of any field. */
export async function makeMark(page: Page, name: string, more: Record<string, string> = {}) {
  await page.keyboard.press('b')
  for (const [label, text] of Object.entries({ Name: name, ...more })) await field(page, label).fill(text)
  await page.keyboard.press('Enter')
  // The mark is listed before it is written, and only then does the dialog go: keys are its own until then.
  await expect(page.locator('[data-mark-form]')).toHaveCount(0)
}

/** Opens a session file by pasting its text into the import dialog. */
export async function paste(page: Page, text: string) {
  await page.getByRole('button', { name: 'Import' }).click()
  await page.getByRole('textbox', { name: 'Or paste its text' }).fill(text)
  await page.getByRole('button', { name: 'Open the pasted text' }).click()
}

/** Opens a session file of one's own beside the demo, and waits until it is the one on the screen. */
export async function openFile(page: Page, file: { name?: unknown }) {
  await open(page)
  await expect(page).toHaveURL(/strip=narrator/)
  const before = page.url().split('?')[0] ?? ''
  await paste(page, JSON.stringify(file))
  await expect(page).not.toHaveURL(new RegExp(before))
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue(String(file.name))
}

/** What an independent checker of accessibility says of the page as it stands, by all of its rules or by some. */
export async function violations(page: Page, rules?: string[]): Promise<string[]> {
  // Its legacy mode leaves frames of other origins out, of which there are none, and takes half of the time.
  const checker = new AxeBuilder({ page }).setLegacyMode(true)
  const { violations: found } = await (rules ? checker.withRules(rules) : checker).analyze()
  return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`)
}
