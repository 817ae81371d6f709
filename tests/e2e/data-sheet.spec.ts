import type { Page } from '@playwright/test'
import { writeGearFile } from '#core/files'
import { INVENTED_SHEETS } from '../support/data-sheets'
import { deviceOf, judged } from '../support/read-invented'
import { expect, field, open, openFile, test, unfoldSheets, violations } from './app'
import { example1 } from '../support/sessions'

const KINDS = [...new Set(INVENTED_SHEETS.map(({ of }) => of))]

/** Lets a file fall onto the open dialog. */
const drop = (page: Page, name: string, bytes: Buffer) =>
  page.locator('[data-data-sheet]').evaluate(
    (form, [fileName, base64]) => {
      const dataTransfer = new DataTransfer()
      const content = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))
      dataTransfer.items.add(new File([content], fileName))
      form.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }))
    },
    [name, bytes.toString('base64')] as const,
  )

/** What the dialog would take, as it stands on the screen. */
async function shown(page: Page) {
  const rows = await page
    .locator('[data-target] [data-figure]')
    .evaluateAll((figures) =>
      figures.map((figure) => ({
        port: figure.closest('[data-target]')?.getAttribute('data-target') ?? '',
        key: figure.getAttribute('data-figure') ?? '',
        isOpen: figure.textContent.includes('choose'),
        value: figure.querySelector('tr:has(:checked) .figure')?.textContent ?? '',
        words: figure.querySelector('tr:has(:checked)')?.textContent ?? '',
      })),
    )
  const values: Record<string, Record<string, number | string>> = {}
  for (const { port, key, value, words } of rows) {
    if (value === '') continue
    const number = Number(value.replace('−', '-'))
    const source = /([\d.]+) Ω source/.exec(words)?.[1]
    const weighting = /unweighted/.test(words) ? 'Z' : /A-weighted/.test(words) ? 'A' : undefined
    values[port] = {
      ...values[port],
      [key]: Number.isNaN(number) ? value : number,
      ...(key === 'ein' && source && { einSource: Number(source) }),
      ...(key === 'ein' && weighting && { einWeighting: weighting }),
    }
  }
  return { values, open: rows.filter(({ isOpen }) => isOpen).map(({ port, key }) => `${port} ${key}`.trim()) }
}

test('data sheets as PDF, dropped on the devices of the shelf: 95 % of their figures are read right, none is wrong unmarked', async ({
  page,
}) => {
  await open(page)
  const devices = KINDS.map((of) => ({ ...deviceOf({ of }), id: of.replace(' ', '-'), name: `A ${of}` }))
  await page.keyboard.press('h')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Import…' }).click()
  await (
    await chooser
  ).setFiles({ name: 'devices.json', mimeType: 'application/json', buffer: Buffer.from(writeGearFile(devices)) })
  await expect(page.getByText('A di-box')).toBeVisible()
  const paper = await page.context().newPage()
  const told: string[] = []
  const sum = { right: 0, all: 0, wrong: 0 }
  for (const sheet of INVENTED_SHEETS.filter(({ as }) => as === 'html')) {
    await paper.setContent(`<body style="font:11pt sans-serif">${sheet.sheet}</body>`)
    const pdf = await paper.pdf({ format: 'A4' })
    await page.getByRole('button', { name: `A ${sheet.of}` }).click()
    await page.getByRole('button', { name: 'Read a data sheet…' }).click()
    await drop(page, 'printed.pdf', pdf)
    await expect(page.locator('[data-file-name]')).toContainText('printed.pdf')
    await expect(page.locator('[data-figure]').first()).toBeVisible()
    const result = judged(sheet, await shown(page))
    told.push(...result.told.map((each) => `${sheet.name}: ${each}`))
    for (const key of ['right', 'all', 'wrong'] as const) sum[key] += result[key]
    await page.keyboard.press('Escape')
  }
  expect(sum.wrong, told.join('\n')).toBe(0)
  expect(sum.right / sum.all, told.join('\n')).toBeGreaterThanOrEqual(0.95)
})

test('what competes stands side by side to choose from; what cannot be is named and not taken', async ({ page }) => {
  await openFile(page, example1())
  await page.getByRole('button', { name: 'What to do with' }).last().click()
  await page.getByRole('button', { name: 'Read a data sheet…' }).click()
  await expect(page.getByRole('textbox', { name: 'Lines of the data sheet' })).toBeFocused()
  await page.keyboard.insertText(
    [
      'EIN −128 dBu A-weighted, 150 Ω',
      'EIN −139 dBu',
      'Dynamic range 114 dB',
      'Dynamic range 118 dB',
      'colour: anthracite',
    ].join('\n'),
  )
  const ein = page.locator('[data-figure="ein"]')
  await expect(ein).toContainText('below the thermal noise of its source')
  await expect(ein.getByRole('checkbox')).toHaveCount(1)
  const range = page.locator('[data-figure="dynamicRange"]').first()
  await expect(range).toContainText('The sheet says it differently: choose.')
  await range.getByRole('checkbox', { name: /118/ }).click()
  // What was chosen among other lines is no choice among these.
  const lines = page.getByRole('textbox', { name: 'Lines of the data sheet' })
  const all = await lines.inputValue()
  await lines.fill('Dynamic range 116 dB')
  await expect(range.getByRole('checkbox')).toBeChecked()
  await lines.fill(all)
  await expect(range.getByRole('checkbox', { name: /114/ })).toBeChecked()
  await range.getByRole('checkbox', { name: /118/ }).click()
  await expect(page.locator('[data-left]')).toContainText('colour: anthracite')
  expect(await violations(page)).toEqual([])
  await page.getByRole('button', { name: /^Take \d figures$/ }).click()
  await unfoldSheets(page)
  await expect(field(page, 'EIN, dBu')).toHaveValue('−128')
  await expect(field(page, 'Dynamic range, dB')).toHaveValue('118')
})

test('a file that is no data sheet says what it is, and nothing is taken', async ({ page }) => {
  await openFile(page, example1())
  await page.getByRole('button', { name: 'What to do with' }).last().click()
  await page.getByRole('button', { name: 'Read a data sheet…' }).click()
  await drop(page, 'broken.pdf', Buffer.from('%PDF-1.7 and then nothing'))
  await expect(page.getByRole('alert')).toContainText('This PDF cannot be read')
  const paper = await page.context().newPage()
  await paper.setContent('<svg width="90" height="90"><rect width="90" height="90"/></svg>')
  await drop(page, 'picture.pdf', await paper.pdf())
  await expect(page.getByRole('alert')).toContainText('its pages are pictures')
  await drop(page, 'words.txt', Buffer.from('a picnic on the quay'))
  await expect(page.getByRole('status')).toContainText('was found')
})

test('pasted or dropped on Path, a data sheet goes to the stage in hand; a session is still imported', async ({
  page,
}) => {
  await openFile(page, example1())
  const bring = (type: 'paste' | 'drop', brought: { text?: string; base64?: string }) =>
    page.evaluate(
      ([how, { text, base64 }]) => {
        const data = new DataTransfer()
        if (text !== undefined) data.setData('text/plain', text)
        if (base64 !== undefined)
          data.items.add(new File([Uint8Array.from(atob(base64), (each) => each.charCodeAt(0))], 'sheet.pdf'))
        const event =
          how === 'paste'
            ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true })
            : new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true })
        document.body.dispatchEvent(event)
      },
      [type, brought] as const,
    )
  await page.locator('[data-stage]').nth(1).click()
  await page.keyboard.press('Escape')
  await bring('paste', { text: 'Sensitivity 22 mV/Pa\nImpedance 50 Ω' })
  await expect(page.locator('[data-figure="sensitivity"]')).toContainText('22')
  await expect(page.getByRole('textbox', { name: 'Lines of the data sheet' })).toBeFocused()
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await unfoldSheets(page)
  await expect(field(page, 'Sensitivity, mV/Pa')).toHaveValue('22')
  const paper = await page.context().newPage()
  await paper.setContent('<p>Maximum SPL 141 dB</p>')
  await bring('drop', { base64: (await paper.pdf()).toString('base64') })
  await expect(page.locator('[data-figure="maxSpl"]')).toContainText('141')
  await page.keyboard.press('Escape')
  await bring('paste', { text: JSON.stringify({ ...example1(), name: 'Pasted all the same' }) })
  await expect(page.getByRole('textbox', { name: 'Name of the session' })).toHaveValue('Pasted all the same')
})
