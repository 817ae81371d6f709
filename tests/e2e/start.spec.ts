import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { expect, field, gain, open, openFile, startBlank, test, type, unfoldSheets, verdict } from './app'
import { example1 } from '../support/sessions'

/** Counts what a hand does: a press, a click, a text typed. */
function counted(page: Page) {
  let gestures = 0
  const count =
    <A extends unknown[]>(act: (...args: A) => Promise<unknown>) =>
    async (...args: A) => {
      gestures++
      await act(...args)
    }
  return {
    press: count((key: string) => page.keyboard.press(key)),
    click: count((role: 'button' | 'radio' | 'checkbox', name: string | RegExp) =>
      page.getByRole(role, { name }).first().click(),
    ),
    text: count((words: string) => page.keyboard.insertText(words)),
    fill: count((name: string, words: string) => field(page, name).fill(words)),
    paste: count(async (text: string) => {
      await page.evaluate((given) => {
        const clipboardData = new DataTransfer()
        clipboardData.setData('text/plain', given)
        document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }))
      }, text)
    }),
    get gestures() {
      return gestures
    },
  }
}

test('one’s own five stages with their figures in at most 20 gestures, planned and exported', async ({ page }) => {
  await open(page)
  const hand = counted(page)
  await hand.press('n')
  await expect(page.getByRole('radio', { name: 'A voice' })).toBeFocused()
  await hand.press('Space')
  await hand.press('Tab')
  await hand.text('Ferryman')
  await hand.click('radio', 'A moving-coil microphone')
  await hand.click('checkbox', /An inline preamp/)
  await hand.click('radio', /Through a preamp/)
  await hand.click('button', 'Begin, planned')
  await expect(field(page, 'Name of the source')).toHaveValue('Ferryman')
  await expect(page.getByText('assumed').first()).toBeVisible()
  await expect(page.locator('[data-stage]')).toHaveCount(5)
  await hand.fill('Average, dB SPL', '72')
  await hand.press('Enter')
  await hand.press('Escape')
  // Figures from three sheets, pasted wherever one is: each finds its device.
  const sheet = async (device: string, lines: string) => {
    await hand.paste(lines)
    await expect(page.getByRole('dialog', { name: `Data sheet of ${device}` })).toHaveCount(1)
    await expect(page.getByRole('button', { name: /^Take \d+ figures?$/ })).toBeVisible()
    await expect(page.getByRole('textbox', { name: 'Lines of the data sheet' })).toBeFocused()
    await hand.press('Control+Enter')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  await sheet('My microphone', 'Sensitivity 1.8 mV/Pa\nOutput impedance 250 ohms')
  await sheet('My preamp', 'EIN −128 dBu A-weighted, 150 Ω\nmax output +22 dBu\ngain range 56 dB')
  await sheet('My interface', 'max input +18 dBu @ min gain\nDynamic range 112 dB (A)')
  await hand.press('s')
  await expect(page.locator('[data-plan-state]')).toContainText('at its target')
  const download = page.waitForEvent('download')
  await hand.press('e')
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8'))
  expect(hand.gestures).toBeLessThanOrEqual(20)
  expect(file.gear).toMatchObject([
    { specs: { level: 72 } },
    { specs: { sensitivity: 1.8, impedance: 250 } },
    { kind: 'booster' },
    { specs: { ein: -128, maxOutput: 22 } },
    { inputs: [{ specs: { fullScale: 18, dynamicRange: 112 } }, {}] },
  ])
  await expect(verdict(page, 'headroom')).toContainText(/Headroom [\d.]+/)
})

test('many through a desk, into a stream and a subwoofer with tops: fed, planned, and what cannot be is refused in words', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('n')
  const form = page.locator('[data-start]')
  // Only a desk has busses of its own.
  await expect(form.getByRole('checkbox')).toHaveCount(1)
  await form.getByRole('radio', { name: 'Many, through a desk' }).check()
  await form.getByRole('textbox', { name: /What is it called/ }).fill('Anke, Laptop, Cleo')
  // Each name has its own kind; what a name tells can be said otherwise.
  await expect(form.getByRole('combobox', { name: 'What Laptop is' })).toHaveValue('player')
  await expect(form.getByRole('combobox', { name: 'What Cleo is' })).toHaveValue('voice')
  await form.getByRole('combobox', { name: 'What Anke is' }).selectOption('instrument-mic')
  await form.getByRole('checkbox', { name: /^Stream/ }).check()
  await form.getByRole('checkbox', { name: /^Subwoofer and tops/ }).check()
  const distance = form.getByRole('textbox', { name: /How far/ })
  for (const wrong of ['three feet', '300']) {
    await distance.fill(wrong)
    await form.getByRole('button', { name: 'Begin, planned' }).click()
    await expect(form.getByRole('alert')).toBeVisible()
    await expect(distance).toHaveValue(wrong)
  }
  await distance.fill('0,5')
  await expect(form.getByRole('alert')).toHaveCount(0)
  await form.getByRole('button', { name: 'Begin, planned' }).click()
  await expect(page.locator('[data-start]')).toHaveCount(0)
  await page.keyboard.press('2')
  await expect(page.locator('[data-mix-row]')).toHaveCount(6)
  for (const bus of ['Stream', 'Subwoofer', 'Tops'])
    await expect(field(page, `Send of Cleo to ${bus}, dB`)).toHaveValue(/^−?[\d.]+$/)
  // Planned: no strip and no bus is stopped.
  await expect(page.locator('[data-mix-row] [aria-label="stop"]')).toHaveCount(0)
  // A send is taken before the fader, here as on the strip's page.
  await page.getByRole('button', { name: 'Send of Cleo to Tops: taken after the fader. Change' }).click()
  await expect(page.getByRole('button', { name: 'Send of Cleo to Tops: taken before the fader. Change' })).toBeVisible()
  await page.getByRole('link', { name: 'Cleo' }).click()
  await expect(page.locator('[data-sends]')).toContainText('Tops')
  await expect(page.getByRole('button', { name: 'Send of Cleo to Tops: taken before the fader. Change' })).toBeVisible()
  // A panel talks in turn: the bus gets no more than its loudest.
  await page.keyboard.press('2')
  await page.getByRole('link', { name: 'Tops', exact: true }).click()
  const before = await verdict(page, 'headroom').innerText()
  await page.getByRole('combobox', { name: 'How many sound at once' }).selectOption('in-turn')
  await expect(verdict(page, 'headroom')).not.toHaveText(before)
  await expect(page.getByRole('combobox', { name: 'How many sound at once' })).toHaveValue('in-turn')
})

test('the whole of it by keyboard: own chain, plan, adopt, timing, export', async ({ page }) => {
  await open(page)
  // What only shows that it can be taken back, or where help is, does not count.
  const aside = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key)
  }
  let pressed = 0
  const press = async (...keys: string[]) => {
    pressed += keys.length
    await aside(...keys)
  }
  const tabTo = async (what: string) => {
    // A place is fetched: a key pressed before it stands leads once round the page.
    await expect(page.locator(what).first()).toBeVisible()
    while (!(await page.evaluate((wanted) => document.activeElement?.matches(wanted), what))) await press('Tab')
  }
  await press('n')
  await expect(page.getByRole('radio', { name: 'A voice' })).toBeFocused()
  await press('Space', 'Tab')
  await page.keyboard.insertText('Sluice keeper')
  await press('Enter')
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toHaveValue('Sluice keeper')
  // One goes on at the first stage: its figures are next.
  await expect(page.locator('[data-stage]').first()).toBeFocused()
  await tabTo('[aria-label="Average, dB SPL"]')
  await press('Control+a')
  await page.keyboard.insertText('72')
  await press('Enter', 'Escape')
  // A gain by its key, held: one step of undo, taken back from where one stands.
  await press('g')
  const before = await gain(page).inputValue()
  await page.keyboard.down('ArrowUp')
  for (let i = 0; i < 8; i++) await page.keyboard.down('ArrowUp')
  await page.keyboard.up('ArrowUp')
  await expect(gain(page)).not.toHaveValue(before)
  await aside('Control+z')
  await expect(gain(page)).toHaveValue(before)
  // A field, taken with Enter, undone from inside, left with Escape; then single keys work.
  await gain(page).focus()
  await aside('Control+a')
  await page.keyboard.insertText('11')
  await aside('Enter', 'Control+z')
  await expect(gain(page)).toHaveValue(before)
  await press('Escape', 's')
  await expect(page.locator('[data-plan-state]')).toContainText('at its target')
  // Conventions compared, another one adopted.
  await press('v', 'v', 'v', 'v')
  await expect(page.locator('[data-convention="peaks-12-6"]')).toBeVisible()
  await tabTo('[data-convention="peaks-12-6"] button')
  await press('Enter')
  await expect(page.getByRole('combobox', { name: 'Target level' })).toHaveValue('peaks-12-6')
  // Timing: a cell by arrows.
  await press('3')
  await tabTo('[data-cell]')
  while (!(await page.evaluate(() => document.activeElement?.matches('[data-cell="48000-64"]'))))
    await press('ArrowRight', 'ArrowDown')
  await press('Enter')
  await expect(page.locator('[data-cell="48000-64"]')).toHaveAttribute('aria-pressed', 'true')
  // These keys first.
  await aside('?')
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible()
  await expect(page.getByRole('dialog').getByRole('heading', { level: 3 }).first()).toHaveText('Timing')
  await aside('Escape')
  await expect(page.locator('[data-cell="48000-64"]')).toBeFocused()
  const download = page.waitForEvent('download')
  await press('e')
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8'))
  expect(file).toMatchObject({
    target: 'peaks-12-6',
    system: { bufferFrames: 64 },
    strips: [{ name: 'Sluice keeper' }],
  })
  // Beside what is typed.
  expect(pressed).toBeLessThanOrEqual(60)
})

test('how loud in words: a session with a name, a level that belongs to the words, and its ± from the start', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('n')
  const form = page.locator('[data-start]')
  // A part that is fetched late comes with its styles.
  await expect(form.locator('label.answer').first()).toHaveCSS('display', 'flex')
  await form.getByLabel('What is the session called?').fill('Slack water')
  await form.getByLabel('A moving-coil microphone').check()
  await form.getByLabel('How far from it?').fill('0.05')
  await form.getByLabel('How loud is it?').selectOption({ label: 'belts, 90 dB SPL at 1 m' })
  await form.getByRole('button', { name: 'Begin, planned' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Slack water')
  await expect(field(page, 'Average, dB SPL')).toHaveValue('90')
  await expect(page.getByRole('button', { name: 'assumed: where Average is from' })).toBeVisible()
  await expect(verdict(page, 'headroom')).toContainText('±')
  await expect(verdict(page, 'headroom')).not.toContainText('under 0.01 %')
  await unfoldSheets(page)
  await expect(page.getByRole('button', { name: 'assumed: where Stated at is from' })).toBeVisible()
})

test('a strip changes its kind of source: what does not fit is taken out, and told; undo brings it back', async ({
  page,
}) => {
  await openFile(page, example1())
  await page
    .getByRole('button', { name: /What to do with/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Replace…' }).click()
  await expect(page.getByRole('searchbox')).toBeFocused()
  await page.locator('[data-pick="blank-electric-source"]').click()
  await expect(page.locator('[data-told]')).toContainText('was taken out: it cannot take what comes before it')
  await expect(page.locator('[data-stage]')).toHaveCount(2)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-stage]')).toHaveCount(3)
})

test('a gain beyond a changed range is moved, 48 V that can no longer be given is switched off, and both are said', async ({
  page,
}) => {
  await openFile(page, example1())
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  await type(page, 'Maximum gain of mic1, dB', '30')
  await page.locator('[data-input-table]').getByRole('switch').first().click()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.locator('[data-told]')).toContainText('48 V')
  await expect(gain(page)).toHaveValue('30')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(gain(page)).toHaveValue('35')
})

test('a combined socket is three ways in; two strips take two sockets', async ({ page }) => {
  await startBlankAfter(page)
  await page.getByRole('button', { name: 'Interface settings…' }).click()
  await page.getByRole('button', { name: 'Add a combined socket' }).click()
  const table = page.locator('[data-input-table]')
  await expect(table.locator('[data-input="line1"]')).toBeVisible()
  await expect(table.locator('[data-input="inst1"]')).toBeVisible()
  await type(page, 'Maximum input level of line1, dBu', '22')
  await expect(page.locator('[data-gain-map]')).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('combobox', { name: 'Input', exact: true }).selectOption('line1')
  await unfoldSheets(page)
  await expect(page.getByRole('button', { name: /where Maximum input level is from/ })).toBeVisible()
  await expect(field(page, 'Maximum input level, dBu')).toHaveValue('22')
})
async function startBlankAfter(page: Page) {
  await open(page)
  await startBlank(page)
}

test('the demo says so until it is no longer the demo', async ({ page }) => {
  await open(page)
  await expect(page.getByText('This is the demo')).toBeVisible()
  await type(page, 'Name of the session', 'My evening')
  await expect(page.getByText('This is the demo')).toHaveCount(0)
})

test('adding a strip says so and puts the cursor into its name', async ({ page }) => {
  await open(page)
  await page.keyboard.press('a')
  await page.getByRole('button', { name: 'Copy “Narrator”' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toHaveValue('Narrator 2')
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toBeFocused()
  await expect(page.locator('[data-told]')).toContainText('“Narrator 2” was added')
})

test('a subwoofer and tops are two busses: both are named, and Undo takes both out again', async ({ page }) => {
  await open(page)
  await page.keyboard.press('a')
  await page.locator('[data-bus-use="sub-and-tops"]').click()
  await expect(page.locator('[data-told]')).toContainText('“Subwoofer” and “Tops” were added; Undo removes them again.')
  await expect(page.getByRole('textbox', { name: 'Name of the strip' })).toHaveValue('Subwoofer')
  const strips = page.getByRole('navigation', { name: 'Strips' })
  await expect(strips.getByRole('button', { name: /^Tops/ })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(strips.getByRole('button', { name: /^(Subwoofer|Tops)/ })).toHaveCount(0)
})

test('an address that leads nowhere says so, in the program’s own words, and leads back', async ({ page }) => {
  await page.goto('/nowhere')
  await expect(page.getByRole('heading', { name: 'There is no page at this address' })).toBeVisible()
  await page.getByRole('button', { name: 'Back to the session' }).click()
  await expect(page.locator('[data-gain-handle]')).toBeVisible()
})
