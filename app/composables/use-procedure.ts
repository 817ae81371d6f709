import { formatISO } from 'date-fns'
import { computed, ref, toRaw } from 'vue'
import { EMPTY } from '#core/bench/procedure'
import type { Bench, Procedure, Row, Trial, Typed } from '#core/bench/procedure'
import { missingFor } from '#core/bench/procedures'
import type { StandIn } from '#core/standin/stand-in'
import { useBenchStore } from '~/stores/bench'
import { useMeasuring } from './use-measuring'
import { useStageEdit } from './use-stage-edit'

/** One guided measurement under way: what was typed, its recordings, what comes of them, and keeping it. */
export function useProcedure(procedure: () => Procedure, bench: () => Bench) {
  const store = useBenchStore()
  const edit = useStageEdit()
  const measuring = useMeasuring()
  const kept = ref<string | null>(null)
  const played = ref<File | null>(null)

  const known = computed(() => procedure().known(bench()))
  const missing = computed(() => missingFor(procedure(), bench()))
  const work = computed(() => store.workOn(procedure().id) ?? { typed: {}, rows: [] })
  const typed = computed<Typed>(() => ({
    ...procedure().initial(bench()),
    ...(played.value && procedure().playedApart),
    ...work.value.typed,
  }))
  const rows = computed(() => work.value.rows)
  const outcome = computed(() => (missing.value ? EMPTY : procedure().outcome(bench(), typed.value, rows.value)))

  function set(part: { typed?: Typed; rows?: Row[] }) {
    kept.value = null
    store.setWork(procedure().id, { ...work.value, ...part })
  }
  const type = (key: string, value: number | undefined) => {
    set({ typed: { ...work.value.typed, [key]: value } })
    return null
  }
  const typeRow = (index: number, key: string, value: number | undefined) => {
    set({ rows: rows.value.map((row, i) => (i === index ? { ...row, typed: { ...row.typed, [key]: value } } : row)) })
    return null
  }
  const remove = (index: number) => set({ rows: rows.value.filter((_, i) => i !== index) })

  function add(name: string, found: unknown[], sampleRate: number, own: Typed, standIn: StandIn | null) {
    // What the stand-in gave and what a unit gave do not go together.
    const before = rows.value.filter(
      (row) => (row.standIn === null) === (standIn === null) && (!standIn || row.standIn?.seed === standIn.seed),
    )
    const more = found.map((each, i) => ({
      name,
      typed: { ...procedure().initialEach(bench(), typed.value, before.length + i), ...own },
      found: each,
      sampleRate,
      standIn,
    }))
    set({ rows: [...before, ...more] })
  }

  async function ask(
    name: string,
    recording: File | Extract<Trial, { take: unknown }>,
    standIn: StandIn | null,
  ): Promise<boolean> {
    const asked = procedure()
    const question = asked.question?.(typed.value)
    if (!question) return false
    const made = 'take' in recording
    const found = await measuring.measure(name, {
      question,
      recording: made ? structuredClone(toRaw(recording.take)) : recording,
      played: made ? undefined : (played.value ?? undefined),
    })
    // Another page was opened meanwhile.
    if (!found || asked !== procedure()) return false
    add(
      name,
      asked.rows(('report' in found ? found.report : found.found) as never),
      'report' in found ? found.report.format.sampleRate : found.sampleRate,
      made ? recording.typed : {},
      standIn,
    )
    return true
  }

  async function takeFiles(files: readonly File[]) {
    for (const file of files) if (!(await ask(file.name, file, null))) return
  }
  const read = (values: Typed) => add('Reading', [null], 0, values, null)

  async function tryStandIn() {
    const { standIn } = store
    if (!standIn) return
    set({ rows: [] })
    for (const [i, trial] of procedure().standIn(bench(), typed.value, standIn).entries()) {
      if ('reading' in trial) add('Stand-in’s meter', [null], 0, trial.reading, standIn)
      else if (!(await ask(`Stand-in, take ${i + 1}`, trial, standIn))) return
    }
  }

  function keep() {
    const { keep: keeping } = outcome.value
    if (!keeping) return
    kept.value =
      edit.session(keeping.label, (session) =>
        keeping.apply(session, formatISO(new Date(), { representation: 'date' })),
      ) ?? `Kept ${keeping.where}.`
  }

  return {
    ...measuring,
    known,
    missing,
    typed,
    rows,
    outcome,
    kept,
    played,
    type,
    typeRow,
    remove,
    takeFiles,
    read,
    tryStandIn,
    keep,
    clear: () => set({ rows: [] }),
  }
}
