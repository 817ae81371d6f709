import { describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import { useGridKeys } from '~/features/mix/use-grid-keys'

/** A table of which some rows stand on the page, as far as the keys look at it. */
function tableOf(count: number, standing: number[]) {
  const shown = ref(standing)
  const revealed: number[] = []
  let focused = ''
  const cells = new Map<string, HTMLElement>()
  const cellAt = (row: number, column: number) => {
    const name = `${row} ${column}`
    const closest = (what: string) => (what === '[data-column]' ? cell : { dataset: { row: String(row) } })
    const focus = () => {
      focused = name
    }
    const cell = { dataset: { column: String(column) }, closest, focus } as unknown as HTMLElement
    if (!cells.has(name)) cells.set(name, cell)
    return cells.get(name) ?? null
  }
  const querySelector = (selector: string) => {
    const [row = -1, column = -1] = [...selector.matchAll(/"(-?\d+)"/g)].map(([, number]) => Number(number))
    return shown.value.includes(row) && column >= 0 && column < 2 ? cellAt(row, column) : null
  }
  const grid = useGridKeys(
    ref({ querySelector } as unknown as HTMLElement),
    () => shown.value,
    (row) => row >= 0 && row < count && revealed.push(row),
  )
  const press = (key: string, row: number, column: number) =>
    grid.keys({
      key,
      target: cellAt(row, column),
      preventDefault() {},
      stopPropagation() {},
    } as unknown as KeyboardEvent)
  return { shown, revealed, press, focused: () => focused }
}

describe('walking a long table by keys', () => {
  it('a row that stands is gone to at once', () => {
    const table = tableOf(9, [0, 1])
    table.press('ArrowDown', 0, 1)
    expect(table.focused()).toBe('1 1')
    expect(table.revealed).toEqual([])
  })
  it('one that does not stand yet is brought into sight, and gone to when it stands', async () => {
    const table = tableOf(9, [0, 1])
    table.press('ArrowDown', 1, 1)
    expect(table.focused()).toBe('')
    expect(table.revealed).toEqual([2])
    table.shown.value = [1, 2, 3]
    await nextTick()
    expect(table.focused()).toBe('2 1')
    // It was waited for once: what comes later takes no focus.
    table.press('ArrowUp', 2, 1)
    table.shown.value = [1, 2, 3, 4]
    await nextTick()
    expect(table.focused()).toBe('1 1')
  })
  it('beyond the last row and the last column there is nothing', async () => {
    const table = tableOf(2, [0, 1])
    table.press('ArrowDown', 1, 0)
    table.press('ArrowRight', 1, 1)
    await nextTick()
    expect(table.focused()).toBe('')
    expect(table.revealed).toEqual([])
  })
})
