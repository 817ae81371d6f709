import { delay } from 'es-toolkit'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Recommendation } from '#core/latency/recommend'
import type { useHowSureStore } from './how-sure'
import type { useTimingStore } from './timing'
import { verdict } from '#core/evaluation/verdict'
import { useSessionStore } from './session'
import { latePart } from './late-part'

export const readings = ['ceiling', 'own', 'table', 'noise', 'conventions'] as const
export type SectionReading = (typeof readings)[number]

/** What the screen looks at: one strip of the open session, one of its stages, and how its section is read. */
export const useViewStore = defineStore('view', () => {
  const open = useSessionStore()
  // What is recommended is said when the first picture stands.
  const timing = shallowRef<ReturnType<typeof useTimingStore> | null>(null)
  async function fetchTiming() {
    timing.value ??= (await latePart(() => import('./timing')))?.useTimingStore() ?? null
  }
  const sureness = shallowRef<ReturnType<typeof useHowSureStore> | null>(null)
  async function fetchHowSure() {
    sureness.value ??= (await latePart(() => import('./how-sure')))?.useHowSureStore() ?? null
  }
  /** Whether the section shows how far its edges may be off. */
  const showsSpread = ref(true)
  const wanted = ref<string | null>(null)
  const stage = ref<string | null>(null)
  /** A session has just begun: the hand goes on at its first stage, once that stands. */
  const begins = ref(false)
  const reading = ref<SectionReading>('ceiling')

  const index = computed(() => Math.max(0, open.session?.strips.findIndex((strip) => strip.id === wanted.value) ?? 0))
  const strip = computed(() => open.session?.strips[index.value] ?? null)
  const evaluated = computed(() => open.evaluation?.strips[index.value] ?? null)
  const sure = computed(() => sureness.value?.ofStrip(strip.value?.id) ?? null)
  const recommended = shallowRef<Recommendation | null>(null)
  // In a task of its own: timing a large session takes as long as evaluating it.
  watch(
    [timing, strip, () => open.committed],
    async () => {
      await delay(0)
      recommended.value = timing.value?.recommendationFor(strip.value?.id) ?? null
    },
    { immediate: true },
  )
  const recommendation = computed(() => (recommended.value?.strip === strip.value?.id ? recommended.value : null))
  const statements = computed(() =>
    open.session && strip.value && evaluated.value
      ? verdict(open.session, strip.value, evaluated.value, recommendation.value, sure.value)
      : null,
  )

  function step(by: number) {
    const strips = open.session?.strips ?? []
    wanted.value = strips[(index.value + by + strips.length) % strips.length]?.id ?? null
  }
  function nextReading() {
    reading.value = readings[(readings.indexOf(reading.value) + 1) % readings.length] ?? 'ceiling'
  }

  return {
    fetchTiming,
    fetchHowSure,
    sureness,
    sure,
    showsSpread,
    toggleSpread: () => {
      showsSpread.value = !showsSpread.value
    },
    reading,
    nextReading,
    strip,
    evaluated,
    recommendation,
    statements,
    stage,
    begins,
    step,
    select: (id: string) => {
      wanted.value = id
    },
    selectStage: (id: string) => {
      stage.value = id
    },
  }
})
