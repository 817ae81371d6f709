import type { Ref } from 'vue'
import { computed, ref, watch } from 'vue'

/**
 * Walking a table by keys: the arrows go from cell to cell, Home and End to the ends of a row, Enter goes into the cell’s field, Escape
 * comes back out. One cell is on the way of the Tab key.
 * @param shown the rows that stand on the page, of a table too long for all of them
 * @param reveal brings a row into sight: keys can be quicker than the page
 */
export function useGridKeys(
  table: Ref<HTMLElement | null>,
  shown: () => readonly number[],
  reveal: (row: number) => void,
) {
  const at = ref({ row: 0, column: 0 })
  let awaited: { row: number; column: number } | null = null
  const cellAt = (row: number, column: number) =>
    table.value?.querySelector<HTMLElement>(`[data-row="${row}"] [data-column="${column}"]`) ?? null

  function go(row: number, column: number) {
    const cell = cellAt(row, column)
    awaited = null
    if (cell) {
      at.value = { row, column }
      cell.focus()
    } else if (!cellAt(row, 0)) {
      awaited = { row, column }
      reveal(row)
    }
  }
  watch(shown, (rows) => awaited && rows.includes(awaited.row) && go(awaited.row, awaited.column), { flush: 'post' })
  function keys(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    const cell = target.closest<HTMLElement>('[data-column]')
    if (!cell) return
    const [row, column] = [Number(cell.closest<HTMLElement>('[data-row]')?.dataset.row), Number(cell.dataset.column)]
    if (target !== cell) {
      if (event.key === 'Escape') go(row, column)
      return
    }
    const moves: Record<string, [number, number]> = {
      ArrowUp: [row - 1, column],
      ArrowDown: [row + 1, column],
      ArrowLeft: [row, column - 1],
      ArrowRight: [row, column + 1],
      Home: [row, 0],
      End: [row, (cell.parentElement?.children.length ?? 1) - 1],
    }
    const move = moves[event.key]
    if (move) go(...move)
    else if (event.key === 'Enter') cell.querySelector<HTMLElement>('input, button, select, [role="slider"]')?.focus()
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const stop = computed(() => (shown().includes(at.value.row) ? at.value.row : shown()[0]))
  const tabindex = (row: number, column: number) => (stop.value === row && at.value.column === column ? 0 : -1)
  return { keys, tabindex }
}
