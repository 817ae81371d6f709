import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef } from 'vue'
import type { CauseId } from '#core/diagnosis/causes'
import type { CheckId } from '#core/diagnosis/checks'
import type { Change } from '#core/edits'
import type { Session } from '#core/session'
import { applyChanges } from '#core/edits'
import type { Drill, DrillKind } from '#core/trainer/drill'
import { drillOf, scoreDrill } from '#core/trainer/drill'
import type { Exercise, Grade } from '#core/trainer/exercise'
import { exerciseOf, grades, kindsOf, outcomeOf, viewOf } from '#core/trainer/exercise'
import { shortestWay } from '#core/trainer/shortest-way'
import type { Progress } from '#core/trainer/schedule'
import type { StrangersAttempt } from '#core/trainer/six-strangers'
import { scoreStrangers, strangersSession } from '#core/trainer/six-strangers'
import { after, dayOf, nextKind, openGrade } from '#core/trainer/schedule'
import type { Score } from '#core/trainer/score'
import { levelsOff, scoreOf } from '#core/trainer/score'
import type { Aside } from '~/persistence'
import { describeStorageTrouble, trainerRepository } from '~/persistence'

/** An exercise under way: the chain as it is turned now, and what was found out so far. */
export interface Running {
  exercise: Exercise
  session: Session
  checks: { check: CheckId; outcome: string }[]
  found: CauseId[]
  fixed: CauseId[]
  wrong: { causes: CauseId[]; fixes: CauseId[] }
  shown: boolean
  score: Score | null
}
export interface RunningDrill {
  drill: Drill
  given: number | string | null
  result: ReturnType<typeof scoreDrill> | null
}

/** Six inputs to be set up, by the clock. */
export interface RunningSetUp {
  seed: number
  session: Session
  /** Milliseconds of the clock. */
  began: number
  score: Score | null
}

/** A day’s practice, s. */
export const DAILY = 300
/** Longer than that without a step nobody was practising, s. */
const AWAY = 90

/** As progress of it is kept. */
export const SET_UP = 'set-up six-strangers'

/** The trainer: which exercise is under way, and how well each kind goes. Kept in this browser alone. */
export const useTrainerStore = defineStore('trainer', () => {
  const progress = shallowRef<readonly Progress[]>([])
  const practised = shallowRef<readonly { day: number; seconds: number }[]>([])
  const aside = shallowRef<readonly Aside[]>([])
  const trouble = ref<string | null>(null)
  const running = shallowRef<Running | null>(null)
  const drilling = shallowRef<RunningDrill | null>(null)
  const settingUp = shallowRef<RunningSetUp | null>(null)
  const wantedGrade = ref<Grade | null>(null)
  let just: string | null = null
  let last = Date.now()

  const failed = (error: unknown) => {
    trouble.value = `Your progress is not stored: ${describeStorageTrouble(error)}`
  }
  const watch = () =>
    trainerRepository.watch((record) => {
      progress.value = record.progress
      aside.value = record.aside
      practised.value = record.seconds
    }, failed)

  const today = () => dayOf(new Date())
  const secondsToday = computed(() => practised.value.find(({ day }) => day === today())?.seconds ?? 0)
  const open = computed(
    () =>
      openGrade(grades.map((grade) => kindsOf(grade).filter((kind) => goesWell(`${grade} ${kind}`)).length)) as Grade,
  )
  const goesWell = (kind: string) => (progress.value.find((each) => each.kind === kind)?.good ?? 0) > 0
  const grade = computed<Grade>(() => wantedGrade.value ?? open.value)

  /** Time between two steps counts as practice, as long as nobody went away. */
  function step() {
    const now = Date.now()
    const seconds = (now - last) / 1000
    last = now
    if (seconds > 0 && seconds < AWAY) trainerRepository.addTime(today(), seconds).catch(failed)
  }
  function keep(kind: string, points: number, good: boolean) {
    const result = (known: Progress | undefined) => after(known, kind, points, good, today())
    const [known, others] = [
      progress.value.find((each) => each.kind === kind),
      progress.value.filter((each) => each.kind !== kind),
    ]
    progress.value = [...others, result(known)]
    trainerRepository.learn(kind, result).catch(failed)
  }

  function begin(kind: string | null = null) {
    last = Date.now()
    leave()
    const kinds = kindsOf(grade.value).map((each) => `${grade.value} ${each}`)
    const chosen = kind ?? nextKind(kinds, progress.value, today(), just, Math.random)
    just = chosen
    const [of, cause] = chosen.split(' ') as [string, CauseId]
    const exercise = exerciseOf(cause, Number(of) as Grade, 1 + Math.floor(1e6 * Math.random()))
    running.value = {
      exercise,
      session: exercise.session,
      checks: [],
      found: [],
      fixed: [],
      wrong: { causes: [], fixes: [] },
      shown: false,
      score: null,
    }
  }
  function change(part: Partial<Running>) {
    step()
    if (running.value) running.value = { ...running.value, ...part }
  }
  function check(id: CheckId) {
    const now = running.value
    if (!now || now.score) return
    const outcome = outcomeOf(now.exercise, viewOf(now.session, now.exercise.strip), id, now.fixed)
    change({ checks: [...now.checks.filter((each) => each.check !== id), { check: id, outcome }] })
  }
  const turn = (changes: readonly Change[]) =>
    running.value && change({ session: applyChanges(running.value.session, changes) })

  /** @returns whether it is one that is at work */
  function name(cause: CauseId): boolean {
    const now = running.value
    if (!now) return false
    const right = now.exercise.faults.some((fault) => fault.cause === cause)
    if (right) change({ found: [...now.found, cause] })
    else change({ wrong: { ...now.wrong, causes: [...new Set([...now.wrong.causes, cause])] } })
    return right
  }
  function fix(fault: CauseId, chosen: CauseId) {
    const now = running.value
    if (!now) return
    if (fault !== chosen) {
      change({ wrong: { ...now.wrong, fixes: [...new Set([...now.wrong.fixes, chosen])] } })
      return
    }
    change({ fixed: [...now.fixed, fault] })
    if (now.exercise.faults.every(({ cause }) => cause === fault || now.fixed.includes(cause))) finish(false)
  }
  function finish(shown: boolean) {
    const now = running.value
    if (!now || now.score) return
    const { exercise, checks, wrong } = now
    const before = levelsOff(viewOf(exercise.session, exercise.strip))
    const turned = now.session === exercise.session ? null : levelsOff(viewOf(now.session, exercise.strip))
    const score = scoreOf({
      checks: checks.length,
      fewest: exercise.faults.reduce((sum, _, i) => sum + shortestWay(exercise, i).checks.length, 0),
      wrongCauses: wrong.causes.length,
      wrongFixes: wrong.fixes.length,
      // Only what was turned is judged in decibels, and only where it made matters worse than it stood or left it wrong.
      off: turned === null || before === null ? null : turned,
      shown,
    })
    change({ shown, score })
    exercise.faults.slice(0, 1).forEach(({ cause }) => keep(`${exercise.grade} ${cause}`, score.points, score.good))
  }

  function leave() {
    running.value = null
    drilling.value = null
    settingUp.value = null
  }

  function drill(kind: DrillKind) {
    last = Date.now()
    leave()
    drilling.value = { drill: drillOf(kind, 1 + Math.floor(1e6 * Math.random())), given: null, result: null }
  }
  function estimate(given: number | string) {
    const now = drilling.value
    if (!now || now.result) return
    step()
    const result = scoreDrill(now.drill, given)
    drilling.value = { ...now, given, result }
    keep(`drill ${now.drill.kind}`, result.points, result.good)
  }
  function setUp() {
    last = Date.now()
    leave()
    settingUp.value = {
      seed: 1 + Math.floor(1e6 * Math.random()),
      session: strangersSession(),
      began: Date.now(),
      score: null,
    }
  }
  function turnSetUp(session: Session) {
    if (!settingUp.value || settingUp.value.score) return
    step()
    settingUp.value = { ...settingUp.value, session }
  }
  function finishSetUp(attempt: Omit<StrangersAttempt, 'seconds'>) {
    const now = settingUp.value
    if (!now || now.score) return
    step()
    const score = scoreStrangers({ ...attempt, seconds: (Date.now() - now.began) / 1000 })
    settingUp.value = { ...now, score }
    keep(SET_UP, score.points, score.good)
  }
  async function forget() {
    progress.value = []
    practised.value = []
    triggerRef(progress)
    await trainerRepository.clear().catch(failed)
  }

  return {
    progress,
    secondsToday,
    trouble,
    aside,
    running,
    drilling,
    grade,
    open,
    watch,
    today,
    choose: (wished: Grade) => {
      wantedGrade.value = wished
    },
    begin,
    check,
    turn,
    name,
    fix,
    show: () => finish(true),
    leave,
    settingUp,
    setUp,
    turnSetUp,
    finishSetUp,
    drill,
    estimate,
    forget,
  }
})
