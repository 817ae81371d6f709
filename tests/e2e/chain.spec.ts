import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, field, open, point, test, type, unfoldSheets, verdict } from './app'

const template = async (page: Page, id: string) => {
  await page.keyboard.press('a')
  await page.locator(`[data-template="${id}"]`).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
}
const stages = (page: Page) =>
  page.locator('[data-stage] section').evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')))

test('a desk chain from its template: five stages, two gains in one device, planned front to back, undone', async ({
  page,
}) => {
  await open(page)
  await template(page, 'desk')
  await expect(page).toHaveURL(/strip=voice/)
  expect(await stages(page)).toHaveLength(5)
  await expect(page.locator('[data-hiss]')).toContainText('dB lower than with all gain at the last stage')
  await page.getByRole('button', { name: 'Set for me' }).click()
  // By hand: with the group at its zero mark 39 dB read −15 dBFS at +18 dBu full scale.
  await expect(field(page, 'Gain of Estuary desk, microphone channel, dB')).toHaveValue('39')
  await expect(field(page, 'Gain of Estuary desk, group, dB')).toHaveValue('0')
  await expect(field(page, 'Fader of Estuary desk, microphone channel, dB')).toHaveValue('0')
  await page.keyboard.press('Control+z')
  await expect(field(page, 'Gain of Estuary desk, microphone channel, dB')).toHaveValue('40')
  await page.keyboard.press('Control+z')
  await expect(
    page.getByRole('navigation', { name: 'Strips' }).getByRole('button', { name: 'Voice, desk' }),
  ).toHaveCount(0)
})

test('a lock keeps the plan off a gain', async ({ page }) => {
  await open(page)
  await template(page, 'desk')
  await type(page, 'Gain of Estuary desk, microphone channel, dB', '46')
  await page
    .getByRole('button', { name: 'Gain of Estuary desk, microphone channel locked: the plan leaves it alone' })
    .click()
  await page.getByRole('button', { name: 'Set for me' }).click()
  await expect(field(page, 'Gain of Estuary desk, microphone channel, dB')).toHaveValue('46')
  await expect(field(page, 'Gain of Estuary desk, group, dB')).toHaveValue('−7')
  await expect(page.locator('[data-plan]')).toContainText('gain of Estuary desk, group')
})

test('a connection says what does not fit and fixes it: a desk into an instrument input', async ({ page }) => {
  await open(page)
  await template(page, 'desk-into-two')
  await expect(verdict(page, 'headroom')).toContainText(/3\.0 (± [\d.]+ )?dB too loud/)
  await expect(page.locator('[data-joint="caution"]')).toHaveCount(1)
  await page.getByRole('button', { name: 'Joint 1: needs attention' }).click()
  await expect(page.getByText('made for a tenth of that')).toHaveCount(2)
  await page.locator('[data-pop-up]').getByRole('button', { name: 'Fix' }).first().click()
  expect(await stages(page)).toEqual([
    expect.stringContaining('Estuary desk'),
    'DI box: DI box, 12 : 1',
    expect.stringContaining('Shingle'),
  ])
  await expect(page.locator('[data-finding="line-into-instrument"]')).toHaveCount(0)
})

test('stages are inserted, moved, refused and removed, by pointer and by keys', async ({ page }) => {
  await open(page)
  await page.getByRole('button', { name: 'Joint 2: fits' }).click()
  await page.getByRole('button', { name: 'Insert something here…' }).click()
  // What a box does finds it too, a blank one as well.
  await page.getByRole('searchbox').fill('compressor')
  await expect(page.locator('[data-pick="blank-processor"]')).toBeVisible()
  await page.getByRole('searchbox').fill('reed')
  await page.locator('[data-pick="reed-pad"]').click()
  expect(await stages(page)).toEqual([
    'Source: Narrator, reading',
    'Microphone: Sandpiper small condenser',
    'Pad: Reed pad, 20 dB',
    'Interface input: Saltmarsh Four',
  ])
  const end = await point(page, 'n3')
  // 20 dB of pad; the microphone now meets 10 kΩ instead of 2.4 kΩ, and the pad drives the input from 150 Ω.
  expect(
    Math.abs(
      end.peak -
        (-19.09 -
          20 +
          20 * Math.log10(1 + 200 / 2400) -
          20 * Math.log10(1 + 200 / 10_000) -
          20 * Math.log10(1 + 150 / 2400)),
    ),
  ).toBeLessThan(0.05)
  await page.getByRole('radio', { name: 'Relative to clipping' }).click()

  // Behind the microphone is the only place for it: earlier is refused in words.
  await page.getByRole('button', { name: 'What to do with Reed pad, 20 dB' }).click()
  await page.getByRole('button', { name: 'Move towards the source' }).click()
  await expect(page.locator('[data-told]')).toContainText(
    'takes an analogue signal, but “Narrator, reading” before it gives sound',
  )
  expect((await stages(page))[2]).toBe('Pad: Reed pad, 20 dB')

  await field(page, 'Name of the pad').focus()
  await page.keyboard.press('Alt+ArrowRight')
  await expect(page.locator('[data-told]')).toContainText('takes an analogue signal, but')
  await page.getByRole('button', { name: 'What to do with Reed pad, 20 dB' }).focus()
  await page.keyboard.press('Delete')
  expect(await stages(page)).toHaveLength(3)
  await page.keyboard.press('Control+z')
  expect(await stages(page)).toHaveLength(4)
})

test('stages are reordered by dragging their heads', async ({ page }) => {
  await open(page)
  await template(page, 'channel-strip')
  await page.getByRole('button', { name: 'Joint 3: fits' }).click()
  await page.getByRole('button', { name: 'Insert something here…' }).click()
  await page.locator('[data-pick="grebe"]').click()
  const names = async () => (await stages(page)).map((name) => name?.split(': ')[1]?.split(',')[0])
  expect(await names()).toEqual([
    'Reader',
    'Mudlark moving coil',
    'Cormorant strip',
    'Grebe two-channel preamp',
    'Cormorant strip',
    'Saltmarsh Four 2',
  ])
  const heads = page.locator('[data-stage] [data-drag]')
  await page.mouse.move(640, 120)
  await heads.nth(3).hover() // the library is fetched when the pointer comes near
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(150)
  await page.mouse.down()
  const target = await heads.nth(4).boundingBox()
  if (!target) throw new Error('no head')
  await page.mouse.move(target.x + target.width / 2, target.y + 5, { steps: 12 })
  await page.mouse.move(target.x + target.width - 4, target.y + 6, { steps: 6 })
  await page.mouse.up()
  await expect
    .poll(names)
    .toEqual([
      'Reader',
      'Mudlark moving coil',
      'Cormorant strip',
      'Cormorant strip',
      'Grebe two-channel preamp',
      'Saltmarsh Four 2',
    ])
})

test('a stereo pair is set alike', async ({ page }) => {
  await open(page)
  await template(page, 'keys')
  await expect(page.getByRole('combobox', { name: 'Stereo partner' })).toHaveValue('keys-r')
  await type(page, 'Gain, dB', '4')
  await page
    .getByRole('navigation', { name: 'Strips' })
    .getByRole('button', { name: /Keys R/ })
    .click()
  await expect(field(page, 'Gain, dB')).toHaveValue('4')
  await page.getByRole('combobox', { name: 'Monitoring of the pair' }).selectOption('mono')
  await page.getByRole('combobox', { name: 'Stereo partner' }).selectOption('')
  await type(page, 'Gain, dB', '6')
  await page.keyboard.press('Tab')
  await page
    .getByRole('navigation', { name: 'Strips' })
    .getByRole('button', { name: /Keys L/ })
    .click()
  await expect(field(page, 'Gain, dB')).toHaveValue('4')
})

test('strips are copied, renamed and deleted', async ({ page }) => {
  await open(page)
  await page
    .getByRole('navigation', { name: 'Strips' })
    .getByRole('button', { name: /Harmonium/ })
    .click()
  await page.keyboard.press('a')
  await page.getByRole('button', { name: 'Copy “Harmonium”' }).click()
  // A copy has boxes and a free input of its own; taking the other strip's input is found, with the way out.
  await expect(field(page, 'Name of the strip')).toHaveValue('Harmonium 2')
  await expect(page.locator('[data-finding="input-shared"]')).toHaveCount(0)
  await page.getByRole('combobox', { name: 'Input' }).selectOption('mic4')
  const shared = page.locator('[data-finding="input-shared"]')
  await expect(shared).toContainText('The strip “Harmonium” takes this input too')
  await shared.getByRole('button', { name: 'Fix' }).click()
  await expect(shared).toHaveCount(0)
  await page.getByRole('button', { name: 'delete' }).click()
  await expect(page.locator('[data-told]')).toContainText('Undo brings it back')
  await expect(page.getByRole('navigation', { name: 'Strips' }).getByRole('listitem')).toHaveCount(8)
})

test('conventions side by side, one adopted', async ({ page }) => {
  await open(page)
  await page.getByRole('radio', { name: 'Target levels' }).click()
  await expect(page.locator('[data-convention]')).toHaveCount(8)
  await expect(page.locator('[data-convention="peaks-12-6"]')).toContainText('45.0 dB')
  await page.getByRole('button', { name: 'Adopt Peaks −12 to −6' }).click()
  await expect(field(page, 'Gain, dB')).toHaveValue('45')
  await expect(page.locator('[data-convention="peaks-12-6"]')).toContainText('in use')
})

test('the noise budget, in the file and in the air, with what would help', async ({ page }) => {
  await open(page)
  await page.getByRole('radio', { name: 'Noise budget' }).click()
  await expect(page.locator('[data-budget="room"]')).toContainText('28.0')
  await expect(page.locator('[data-budget="self-noise"]')).toContainText('14.0')
  await expect(page.getByRole('region', { name: 'What would improve it' })).toContainText('half the distance, 0.15 m')
})

test('the shelf: search, measure, duplicate, take off and back, export and import', async ({ page }) => {
  await open(page)
  await page.getByRole('link', { name: 'Gear shelf' }).click()
  await page.getByRole('searchbox').fill('grebe')
  await page.locator('[data-item="grebe"]').click()
  await field(page, 'EIN, measured, dBu').fill('-126.4')
  await field(page, 'EIN, measured, dBu').press('Enter')
  await expect(page.locator('[data-spec="ein"]')).toContainText('+1.60')
  await type(page, 'EIN, spread, dBu', '0,2')
  await type(page, 'EIN, data sheet, dBu', 'loud')
  await expect(page.getByRole('alert')).toContainText('is not a number')
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(field(page, 'Name of the item')).toHaveValue('Grebe two-channel preamp 2')
  await type(page, 'Name of the item', '=Grebe of my own')

  const exported = async (kind: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: `Export as ${kind}` }).click()
    return readFileSync(await (await download).path(), 'utf8')
  }
  const csv = await exported('CSV')
  expect(csv).toContain("'=Grebe of my own")
  expect(csv).toContain('"{""ein"":{""value"":-126.4,""spread"":{""value"":0.2,""is"":""half-range""}}}"')
  const json = await exported('JSON')
  expect(JSON.parse(json)).toMatchObject({ format: 'remetra.gear', version: 2 })

  await page.getByRole('button', { name: 'Remove from the shelf' }).click()
  await expect(page.locator('[data-item]')).toHaveCount(1)
  const choose = async (name: string, text: string) => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Import…' }).click()
    await (await chooser).setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  }
  await choose('mine.csv', csv)
  await expect(page.getByRole('status')).toContainText(['1 item added, 1 already there.'])
  await expect(page.locator('[data-item]')).toHaveCount(2)
  await choose(
    'bad.json',
    '{"format":"remetra.gear","version":1,"items":[{"id":"x","kind":"pad","name":"X","specs":{"loss":"much"}}]}',
  )
  await expect(page.locator('[data-notice="gear-refused"]')).toContainText('items[0].specs.loss')
  await page.reload()
  await page.getByRole('searchbox').fill('grebe')
  await expect(page.locator('[data-item]')).toHaveCount(2)
})

test('a session’s copy is updated from the shelf, seeing first what would change', async ({ page }) => {
  await open(page)
  await template(page, 'ribbon')
  await page.getByRole('link', { name: 'Gear shelf' }).click()
  await page.getByRole('searchbox').fill('grebe')
  await type(page, 'EIN, data sheet, dBu', '-125')
  await page.getByRole('link', { name: 'Path' }).click()
  await page.getByRole('button', { name: 'What to do with Grebe two-channel preamp' }).click()
  await page.getByRole('button', { name: 'Update from the shelf…' }).click()
  await expect(page.locator('[data-difference]')).toHaveText(['EIN −128 dBu −125 dBu'])
  await page.getByRole('button', { name: 'Take the shelf’s' }).click()
  await unfoldSheets(page)
  await expect(field(page, 'EIN, dBu').first()).toHaveValue('−125')
})

test('a low cut says what it takes', async ({ page }) => {
  await open(page)
  await template(page, 'ribbon')
  await page.getByRole('switch', { name: 'low cut' }).click()
  await expect(page.locator('[data-finding="low-cut"]')).toContainText('12 dB at 40 Hz')
})
