import { formatISO } from 'date-fns'
import { ref } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Reading } from '#core/model'
import type { Session } from '#core/session'
import { applyChanges } from '#core/edits'
import type { InferredReading } from '#core/soundcheck/inferred'
import { keepOnto } from '#core/soundcheck/keep-onto'
import type { MeterChoice } from '#core/soundcheck/meter-choices'
import { expectedAt, limitOf } from '#core/soundcheck/meter-choices'
import { runSheet, withTick, withoutTicks } from '#core/soundcheck/run-sheet'
import type { Step } from '#core/soundcheck/step'
import { keepReading, withReading } from '#core/soundcheck/keep-reading'
import { newKey } from '~/persistence'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'

/** A reading as it is taken: which meter at which stage, and what it shows. */
export interface TakenReading {
  strip: string
  stage: string
  meter: MeterChoice
  value: number
  by: Reading['by']
  spread?: number | undefined
}

/** Ticks, readings and what follows from them: each an edit of the session, undone like any other. */
export function useSoundcheck() {
  const store = useSessionStore()
  const soundcheck = useSoundcheckStore()
  const told = ref<string | null>(null)
  const now = () => formatISO(new Date())

  function tick(step: Step) {
    const done = step.state === 'done'
    told.value = store.edit(done ? 'Remove a tick' : 'Tick', (session) => withTick(session, step, done ? null : now()))
    if (!done && told.value === null) soundcheck.goOn(step.id)
  }

  /** A reading as the session keeps it; `null` where the level at that stage is not known. */
  function readingFrom(session: Session, { strip, stage, meter, value, by, spread }: TakenReading): Reading | null {
    const expected = expectedAt(session, { strip, stage, ...meter })
    const limit = limitOf(meter, value)
    if (expected === null) return null
    return {
      id: `reading-${newKey()}`,
      strip,
      stage,
      reads: meter.reads,
      value: Math.round(100 * value) / 100,
      unit: meter.unit,
      by,
      expected: Math.round(1000 * expected) / 1000,
      at: now(),
      ...(spread !== undefined && { spread }),
      ...(limit && { limit }),
    }
  }

  /** @returns what is wrong with it, in words */
  function take(taken: TakenReading): string | null {
    const reading = store.session && readingFrom(store.session, taken)
    if (!reading) return 'The level at that stage is not known: add a source to the strip first.'
    const wrong = store.edit('Reading', (session) => withReading(session, reading))
    if (wrong === null) soundcheck.chooseReading(reading.id)
    return wrong
  }

  /** Readings of several strips as one edit, undone together. @returns what is wrong, in words */
  function takeAll(taken: readonly TakenReading[]): string | null {
    return store.edit(`${taken.length} readings`, (session) =>
      taken.reduce((kept, each) => {
        const reading = readingFrom(session, each)
        return reading ? withReading(kept, reading) : kept
      }, session),
    )
  }

  const remove = (id: string) =>
    store.edit('Remove a reading', (session) => ({
      ...session,
      soundcheck: { ...session.soundcheck, readings: session.soundcheck?.readings?.filter((each) => each.id !== id) },
    }))

  /** What is known better, kept as measured; and the gain turned, where that is wanted too. */
  function keep(reading: Reading, inferred: InferredReading, { turning }: { turning: boolean }) {
    const onto = keepOnto(inferred.explains)
    told.value = null
    if (onto === null) {
      told.value = 'The difference is in the gain. Measure the gain at the knob’s marks on Bench. Nothing was kept.'
      return
    }
    let wrong: string | null = null
    const refused = store.edit(turning ? 'Set and keep' : 'Keep a reading', (session) => {
      const kept = keepReading(session, reading, formatISO(new Date(), { representation: 'date' }), onto)
      if (!kept.ok) {
        wrong = kept.message
        return session
      }
      return turning ? applyChanges(kept.session, inferred.changes) : kept.session
    })
    told.value = wrong ?? refused
  }
  function turn(inferred: InferredReading) {
    told.value = store.edit('Turn as read', (session) => applyChanges(session, inferred.changes))
  }

  /** Steps that a change opens again: their numbers on the sheet. */
  function opened(change: (session: Session) => Session): number[] {
    const session = store.committed
    if (!session) return []
    const changed = change(session)
    const after = runSheet(changed, evaluateSession(changed))
    return after.flatMap(({ id, state }, i) =>
      state === 'again' && soundcheck.steps.find((each) => each.id === id)?.state !== 'again' ? [i + 1] : [],
    )
  }

  return {
    told,
    tick,
    take,
    takeAll,
    remove,
    keep,
    turn,
    opened,
    beginAnew: () => {
      told.value = store.edit('Start the soundcheck over', withoutTicks)
      soundcheck.choose(null)
    },
  }
}
