import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'
import type { BenchChoice } from '#core/bench/bench'
import { benchOf } from '#core/bench/bench'
import type { Row, Typed } from '#core/bench/procedure'
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import type { Take } from '#core/standin/record'
import { standInFor } from '#core/standin/stand-in'
import { useSessionStore } from './session'
import { useViewStore } from './view'

/** What has been typed and recorded for one procedure so far. */
export interface Work {
  typed: Typed
  rows: Row[]
}

/** What stands on the bench, which page of it lies open, and the work on every procedure while the program is open. */
export const useBenchStore = defineStore('bench', () => {
  const store = useSessionStore()
  const view = useViewStore()
  const page = ref('recording')
  const choice = ref<BenchChoice>({})
  /** Which of the stand-ins it is: each is another unit of the make. */
  const standInNumber = ref(1)

  const bench = computed(() => (store.session ? benchOf(store.session, view.strip?.id, choice.value) : null))
  const standIn = computed(() => bench.value && standInFor(bench.value.unit, bench.value.input, bench.value.output, bench.value.session.system, standInNumber.value))

  /** The recording whose levels lie open. */
  const recording = shallowRef<{ name: string, source: Blob | Take, report: LevelsReport } | null>(null)

  const works = shallowReactive(new Map<string, Work>())
  /** Work belongs to one input of one unit of one session: of another it would be wrong. */
  const keyOf = (procedure: string) => [store.key, bench.value?.unit.id, bench.value?.input.id, procedure].join(' ')

  return {
    page, recording, choice, standInNumber, bench, standIn,
    choose: (part: BenchChoice) => { choice.value = { ...choice.value, ...part } },
    workOn: (procedure: string) => works.get(keyOf(procedure)),
    setWork: (procedure: string, work: Work) => { works.set(keyOf(procedure), work) },
  }
})
