import { formatISO } from 'date-fns'
import { computed, ref, toRaw } from 'vue'
import { EMPTY, rowsOf } from '#core/bench/procedure'
import type { Bench, Procedure, Row, SimulatedTrial, Typed } from '#core/bench/procedure'
import { missingFor } from '#core/bench/procedures'
import type { SimulatedInterface } from '#core/simulated/simulated-interface'
import { useBenchStore } from '~/stores/bench'
import { useMeasuring } from '~/composables/use-measuring'
import { useStageEdit } from '~/composables/use-stage-edit'

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

  /** The place that a recording is for: it goes there whatever is chosen meanwhile. */
  const placed = () => ({
    at: store.placeOf(procedure().id),
    procedure: procedure(),
    bench: bench(),
    typed: typed.value,
  })
  type Place = ReturnType<typeof placed>

  function add(
    place: Place,
    rowsOf: Pick<Row, 'name' | 'found' | 'sampleRate' | 'simulated' | 'remarks'>[],
    own: Typed,
  ) {
    const simulated = rowsOf[0]?.simulated ?? null
    const work = store.workAt(place.at) ?? { typed: {}, rows: [] }
    // What the simulated interface gave and what a unit gave do not go together.
    const before = work.rows.filter(
      (row) =>
        (row.simulated === null) === (simulated === null) && (!simulated || row.simulated?.seed === simulated.seed),
    )
    const more = rowsOf.map((row, i) => ({
      ...row,
      typed: { ...place.procedure.initialEach(place.bench, place.typed, before.length + i), ...own },
    }))
    kept.value = null
    store.setWorkAt(place.at, { ...work, rows: [...before, ...more] })
  }

  async function ask(
    name: string,
    recording: File | Extract<SimulatedTrial, { take: unknown }>,
    simulated: SimulatedInterface | null,
    place: Place,
  ): Promise<boolean> {
    const question = place.procedure.question?.(place.typed)
    if (!question) return false
    const made = 'take' in recording
    const found = await measuring.measure(name, {
      question,
      recording: made ? structuredClone(toRaw(recording.take)) : recording,
      played: made ? undefined : (played.value ?? undefined),
    })
    if (!found) return false
    const { answer, sampleRate, remarks } =
      'report' in found
        ? { answer: found.report, sampleRate: found.report.format.sampleRate, remarks: found.report.remarks }
        : { answer: found.found, sampleRate: found.sampleRate, remarks: found.remarks }
    const rowsFound = rowsOf(place.procedure, answer)
    add(
      place,
      rowsFound.map((each) => ({ name, found: each, sampleRate, simulated, remarks })),
      made ? recording.typed : {},
    )
    return true
  }

  async function takeFiles(files: readonly File[]) {
    const place = placed()
    for (const file of files) if (!(await ask(file.name, file, null, place))) return
  }
  const reading = (name: string, simulated: SimulatedInterface | null) => [
    { name, found: null, sampleRate: 0, simulated, remarks: [] },
  ]
  const read = (values: Typed) => add(placed(), reading('Reading', null), values)

  async function trySimulated() {
    const { simulated } = store
    if (!simulated) return
    set({ rows: [] })
    const place = placed()
    for (const [i, trial] of place.procedure.simulated(place.bench, place.typed, simulated).entries()) {
      if ('reading' in trial) add(place, reading('Meter of the simulated interface', simulated), trial.reading)
      else if (!(await ask(`Simulated interface, take ${i + 1}`, trial, simulated, place))) return
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
    trySimulated,
    keep,
    clear: () => set({ rows: [] }),
  }
}
