import type { InjectionKey } from 'vue'
import { inject } from 'vue'

/** Prints the place that is looked at: the shell makes its sheet for paper first. */
export const PRINT: InjectionKey<() => Promise<void>> = Symbol('print')

export function usePrinting(): () => Promise<void> {
  const print = inject(PRINT)
  if (!print) throw new Error('There is nothing to print here.')
  return print
}
