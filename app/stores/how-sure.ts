import { defineStore } from 'pinia'
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, toRaw } from 'vue'
import { gained } from '#core/uncertainty/gained'
import type { UncertainStrip, Uncertainty } from '#core/uncertainty/uncertainty'
import type { HowSureMessage } from '~/workers/how-sure.worker'
import { useSessionStore } from './session'
import { tellLateTrouble } from './late-part'

/** What is said of a session is worked out when its hand has rested that long, ms. */
const REST = 150

type Answer = Omit<Extract<HowSureMessage, { next: unknown }>, 'inputs'> & {
  uncertainty: Uncertainty
  key: string | null
}

/** How sure the figures of the open session are: worked out in a worker after each change; what comes late is dropped. */
export const useHowSureStore = defineStore('how-sure', () => {
  const store = useSessionStore()
  const answer = shallowRef<Answer | null>(null)
  /** What the last measurement gained, in words. */
  const told = ref<string | null>(null)
  const worker = new Worker(new URL('../workers/how-sure.worker.ts', import.meta.url), { type: 'module' })
  let asked = { id: 0, key: null as string | null }
  /** Strips of the answer that is coming in. */
  let coming: UncertainStrip[] = []

  function ask() {
    if (!store.committed) return
    asked = { id: asked.id + 1, key: store.key }
    coming = []
    worker.postMessage({ id: asked.id, session: toRaw(store.committed) })
  }
  worker.onmessage = ({ data }: MessageEvent<HowSureMessage>) => {
    if (data.id !== asked.id) return
    if ('failed' in data) {
      tellLateTrouble(new Error(`The ± could not be worked out: ${data.failed}`))
      return
    }
    if ('strips' in data) {
      coming.push(...data.strips)
      return
    }
    const before = answer.value
    const { id, inputs, next, readings } = data
    answer.value = { id, uncertainty: { inputs, strips: coming }, next, readings, key: asked.key }
    coming = []
    if (before?.key === asked.key && before.id !== id && store.committed)
      told.value = gained(store.committed, before.uncertainty, answer.value.uncertainty) ?? told.value
  }
  worker.onerror = () => tellLateTrouble(new Error('The ± could not be worked out'))
  watchDebounced(() => store.committed, ask, { debounce: REST, immediate: true })

  const current = computed(() => (answer.value?.key === store.key ? answer.value : null))
  return {
    told,
    isKnown: computed(() => current.value !== null),
    next: computed(() => current.value?.next ?? []),
    readings: computed(() => current.value?.readings ?? []),
    inputs: computed(() => current.value?.uncertainty.inputs ?? []),
    ofStrip: (id: string | undefined) => current.value?.uncertainty.strips.find((strip) => strip.id === id) ?? null,
  }
})
