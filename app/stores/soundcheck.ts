import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { runSheet } from '#core/soundcheck/run-sheet'
import type { Step } from '#core/soundcheck/step'
import { useSessionStore } from './session'
import { useViewStore } from './view'

/** Step by step with one input, or all inputs at once. */
export type SoundcheckPage = 'steps' | 'inputs'

/** The soundcheck of the open session: its run sheet, the step in hand, and the reading that is looked at. */
export const useSoundcheckStore = defineStore('soundcheck', () => {
  const store = useSessionStore()
  const view = useViewStore()
  const page = ref<SoundcheckPage>('steps')
  const chosenStep = ref<string | null>(null)
  const chosenReading = ref<string | null>(null)

  const steps = computed<Step[]>(() =>
    store.committed && store.evaluation ? runSheet(store.committed, store.evaluation, store.plan?.settings) : [],
  )
  /** The step in hand: the chosen one, or the first that is not done. */
  const step = computed(
    () =>
      steps.value.find(({ id }) => id === chosenStep.value) ??
      steps.value.find(({ state }) => state !== 'done') ??
      steps.value.at(-1) ??
      null,
  )
  const open = computed(() => steps.value.filter(({ state }) => state !== 'done').length)

  function choose(id: string | null) {
    chosenStep.value = id
    const { strip } = steps.value.find((each) => each.id === id) ?? {}
    if (strip) view.select(strip)
  }
  const at = (by: number): Step | null =>
    steps.value[steps.value.findIndex(({ id }) => id === step.value?.id) + by] ?? null
  /** To the next step that is not done, behind one that was; the first of all where there is none behind it. */
  function goOn(done: string) {
    const from = steps.value.findIndex(({ id }) => id === done)
    const next = [...steps.value.slice(from + 1), ...steps.value.slice(0, from)].find(({ state }) => state !== 'done')
    choose(next?.id ?? done)
  }

  const all = computed(() => store.session?.soundcheck?.readings ?? [])
  const reading = computed(() => all.value.find(({ id }) => id === chosenReading.value) ?? all.value.at(-1) ?? null)
  const inferred = computed(() => view.sureness?.readings.find(({ id }) => id === reading.value?.id) ?? null)

  return {
    page,
    steps,
    step,
    open,
    choose,
    goOn,
    move: (by: number) => {
      const next = at(by)
      if (next) choose(next.id)
    },
    readings: all,
    reading,
    inferred,
    chooseReading: (id: string | null) => {
      chosenReading.value = id
    },
  }
})
