import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'
import type { BenchChoice } from '#core/bench/bench'
import { benchOf } from '#core/bench/bench'
import { procedures } from '#core/bench/procedures'
import type { Row, Typed } from '#core/bench/procedure'
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import type { Take } from '#core/simulated/record'
import { simulatedFor } from '#core/simulated/simulated-interface'
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
  const page = ref('start')
  const choice = ref<BenchChoice>({})
  /** Which of the simulated interfaces it is: each is another unit of the make. */
  const simulatedNumber = ref(1)

  const bench = computed(() => (store.session ? benchOf(store.session, view.strip?.id, choice.value) : null))
  const simulated = computed(
    () =>
      bench.value &&
      simulatedFor(
        bench.value.unit,
        bench.value.input,
        bench.value.output,
        bench.value.session.system,
        simulatedNumber.value,
      ),
  )

  /** The recording whose levels lie open. */
  const recording = shallowRef<{ name: string; source: Blob | Take; report: LevelsReport } | null>(null)

  const works = shallowReactive(new Map<string, Work>())
  /** Work belongs to what was on the bench for it: of another input or output it would be wrong. */
  function keyOf(procedure: string): string {
    const needs = procedures.find(({ id }) => id === procedure)?.needs ?? []
    return [
      store.key,
      procedure,
      bench.value?.unit.id,
      ...needs.map((need) => (need === 'voice' ? view.strip?.id : bench.value?.[need]?.id)),
    ].join(' ')
  }

  return {
    page,
    recording,
    choice,
    simulatedNumber,
    bench,
    simulated,
    choose: (part: BenchChoice) => {
      choice.value = { ...choice.value, ...part }
    },
    placeOf: keyOf,
    workAt: (place: string) => works.get(place),
    setWorkAt: (place: string, work: Work) => {
      works.set(place, work)
    },
    workOn: (procedure: string) => works.get(keyOf(procedure)),
    setWork: (procedure: string, work: Work) => {
      works.set(keyOf(procedure), work)
    },
  }
})
