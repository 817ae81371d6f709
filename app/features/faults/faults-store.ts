import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, toRaw, watch } from 'vue'
import type { Answers, CheckId } from '#core/diagnosis/checks'
import type { Diagnosis } from '#core/diagnosis/diagnose'
import type { Prone } from '#core/diagnosis/prone'
import type { SymptomId, When } from '#core/diagnosis/symptom'
import type { Session } from '#core/session'
import type { DiagnoseMessage, DiagnoseTask } from '~/workers/diagnose.worker'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** One complaint under way, as it survives a reload. */
interface Search {
  symptoms: SymptomId[]
  everywhere: boolean
  when: When | null
  answers: Answers
  /** What recordings said, in words. */
  heard: string[]
  /** What was set, and what to look at once more. */
  fixed: { title: string; after: string } | null
}
const nothing = (): Search => ({ symptoms: [], everywhere: false, when: null, answers: {}, heard: [], fixed: null })

/** The search for a fault in the open session: what is complained of, what was checked, and what that makes likely. */
export const useFaultsStore = defineStore('faults', () => {
  const store = useSessionStore()
  const view = useViewStore()
  const kept = useSessionStorage<Record<string, Search>>('remetra-faults', {})
  const search = computed(() => kept.value[store.key ?? ''] ?? nothing())
  const change = (part: Partial<Search>) => {
    if (store.key) kept.value = { ...kept.value, [store.key]: { ...search.value, ...part } }
  }

  const diagnosis = shallowRef<Diagnosis | null>(null)
  /** What the chain invites, while nothing is complained of. */
  const prone = shallowRef<Prone[]>([])
  const working = ref(false)
  const trouble = ref<string | null>(null)
  const worker = new Worker(new URL('../../workers/diagnose.worker.ts', import.meta.url), { type: 'module' })
  let asked = 0
  let sent: Session | null = null
  const strip = computed(() => (search.value.everywhere ? null : (view.strip?.id ?? null)))

  function ask() {
    const { symptoms, when, answers } = search.value
    asked++
    if (symptoms.length === 0) diagnosis.value = null
    if (!store.committed) {
      working.value = false
      return
    }
    working.value = true
    const session = toRaw(store.committed)
    const task: DiagnoseTask = {
      id: asked,
      ...(sent !== session && { session }),
      strip: strip.value,
      complaint: JSON.parse(JSON.stringify({ symptoms, answers, ...(when && { when }) })),
    }
    sent = session
    worker.postMessage(task)
  }
  worker.onmessage = ({ data }: MessageEvent<DiagnoseMessage>) => {
    if (data.id !== asked) return
    working.value = false
    trouble.value = 'failed' in data ? `The causes could not be worked out: ${data.failed}.` : null
    if ('diagnosis' in data) diagnosis.value = data.diagnosis
    if ('prone' in data) prone.value = data.prone
  }
  worker.onerror = () => {
    working.value = false
    trouble.value = 'The causes could not be worked out: the worker did not start. Reload the page.'
  }
  watch([() => store.committed, search, strip], ask, { immediate: true })

  return {
    search,
    strip,
    diagnosis,
    prone,
    working,
    trouble,
    toggle: (id: SymptomId) => {
      const { symptoms } = search.value
      const next = symptoms.includes(id) ? symptoms.filter((each) => each !== id) : [...symptoms, id]
      change({ symptoms: next, fixed: null })
    },
    /** A search that is under way goes on as it is; otherwise one begins with how it would be noticed. */
    suspect: (id: SymptomId) => {
      if (search.value.symptoms.length === 0) change({ symptoms: [id], everywhere: false })
    },
    /** A new search with what was heard elsewhere. */
    begin: (symptom: SymptomId, answers: Answers) => change({ ...nothing(), symptoms: [symptom], answers }),
    look: (everywhere: boolean) => change({ everywhere }),
    happens: (when: When | null) => change({ when }),
    answer: (check: CheckId, outcome: string) => change({ answers: { ...search.value.answers, [check]: outcome } }),
    takeBack: (check: CheckId) => {
      const { [check]: _, ...answers } = search.value.answers
      change({ answers })
    },
    takeLastBack: () => {
      const last = (Object.keys(search.value.answers) as CheckId[]).at(-1)
      if (!last) return
      const { [last]: _, ...answers } = search.value.answers
      change({ answers })
    },
    heard: (answers: Answers, says: string[]) =>
      change({ answers: { ...search.value.answers, ...answers }, heard: says }),
    fixed: (title: string, after: string) => change({ fixed: { title, after } }),
    beginAnew: () => change(nothing()),
  }
})
