import type { Judged } from '../../bench/judgement'
import type { Bench } from '../../bench/procedure'
import type { SheetGroup } from '../../files'
import type { Doubt } from '../findings'

/** What is known of a run besides what it found. */
export interface SheetContext {
  bench: Bench
  /** YYYY-MM-DD. */
  on: string
  /** ± of the multimeter, %. */
  meterAccuracy: number
  /** Played and recorded by the browser, whose own buffers are in the round trip. */
  isThroughBrowser: boolean
  /** Of a simulated interface, by the figure’s id. */
  truth: Record<string, number> | null
}

export const DOUBTS: Record<Doubt, string> = {
  'samples-lost': 'Samples were lost during the run. Raise the buffer and run it again.',
  'loose': 'The level jumped: a loose contact in the cable or a plug. Replace the cable and run it again.',
  'two-clocks': 'Output and input run on two clocks. Make one unit the clock of all.',
}

export type Draft = Omit<Judged, 'truth' | 'spread' | 'within' | 'better' | 'more' | 'less'> &
  Partial<Pick<Judged, 'within' | 'better' | 'more' | 'less'>> & {
    id: string
    group: SheetGroup
    u: number
    method: string
    /** In place of a comparison with the maker’s figure. */
    says?: string
    doubt?: string | null
  }
