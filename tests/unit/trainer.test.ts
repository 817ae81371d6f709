import { describe, expect, it } from 'vitest'
import { causeIds, causeOf } from '#core/diagnosis/causes'
import { diagnose } from '#core/diagnosis/diagnose'
import { checkOf } from '#core/diagnosis/checks'
import { applyFix } from '#core/diagnosis/fix-change'
import { fits } from '#core/trainer/planted/fits'
import { plant } from '#core/trainer/planted/plant'
import { templateIds } from '#core/trainer/planted/templates'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { seeded } from '#core/numeric/random'
import { applySettings } from '#core/edits'
import { drillKinds, drillOf, scoreDrill } from '#core/trainer/drill'
import {
  candidates,
  checksFor,
  complaintOf,
  exerciseOf,
  grades,
  kindsOf,
  fixChoices,
  outcomeOf,
  viewOf,
} from '#core/trainer/exercise'
import { shortestWay } from '#core/trainer/shortest-way'
import { after, dayOf, nextKind, openGrade } from '#core/trainer/schedule'
import { levelsOff, scoreOf } from '#core/trainer/score'

const whole = { checks: 2, fewest: 2, wrongCauses: 0, wrongFixes: 0, off: 0, shown: false }

describe('exercises', () => {
  it('the table of what fits where is what planting says', () => {
    for (const cause of causeIds)
      for (const template of templateIds) {
        const planted = [7, 8, 9].some((seed) => plant(cause, template, seed) !== null)
        expect(fits[cause].includes(template), `${cause} in ${template}`).toBe(planted)
      }
  })

  it('every kind of every grade makes one, the same for a seed, with a complaint, checks, candidates and a way to the end', () => {
    for (const grade of grades) {
      const kinds = kindsOf(grade)
      expect(kinds.length, `grade ${grade}`).toBeGreaterThan(20)
      for (const kind of kinds.filter((_, i) => i % 3 === grade % 3)) {
        const exercise = exerciseOf(kind, grade, 40 + grade)
        const [fault] = exercise.faults
        expect(fault?.cause).toBe(kind)
        expect(complaintOf(exercise).length).toBeGreaterThan(8)
        expect(candidates(fault?.symptom ?? 'hiss')).toContain(kind)
        expect(checksFor(exercise).length).toBeGreaterThan(2)
        const choices = fixChoices(exercise, 0)
        expect(choices.filter(({ cause }) => cause === kind)).toHaveLength(1)
        expect(new Set(choices.map(({ says }) => says)).size).toBe(choices.length)
      }
    }
    expect(exerciseOf('pad-in', 1, 3)).toEqual(exerciseOf('pad-in', 1, 3))
    expect(exerciseOf('pad-in', 1, 3).session).not.toEqual(exerciseOf('pad-in', 1, 4).session)
  })

  it('the shortest way ends in the cause’s own fix, and its checks show what the learner’s would', () => {
    for (const kind of [
      'phantom-missing',
      'earth-loop',
      'converter-over',
      'track-not-armed',
      'direct-and-host',
    ] as const) {
      const exercise = exerciseOf(kind, 2, 9)
      const way = shortestWay(exercise, 0)
      const view = viewOf(exercise.session, exercise.strip)
      expect(way.checks.length, kind).toBeLessThanOrEqual(3)
      expect(scoreOf({ ...whole, checks: way.checks.length, fewest: way.checks.length }).points).toBe(100)
      const answers = Object.fromEntries(way.checks.map(({ check }) => [check, outcomeOf(exercise, view, check)]))
      const [first] = diagnose(exercise.session, exercise.strip, {
        symptoms: [exercise.faults[0]?.symptom ?? 'hiss'],
        answers,
      }).causes
      expect(first?.id, kind).toBe(kind)
      // None of these checks can be left out.
      for (const { check } of way.checks) {
        const { [check]: _, ...fewer } = answers
        const { causes } = diagnose(exercise.session, exercise.strip, {
          symptoms: [exercise.faults[0]?.symptom ?? 'hiss'],
          answers: fewer,
        })
        expect(causes[0]?.id === kind && (causes[0]?.probability ?? 0) > 0.75, `${kind} without ${check}`).toBe(false)
      }
      for (const { check, shows } of way.checks)
        expect(shows).toBe(checkOf(check).outcomes[outcomeOf(exercise, view, check)])
      expect(way.fix.says.length).toBeGreaterThan(10)
    }
  })

  it('turning a knob changes what checks and levels show', () => {
    const exercise = exerciseOf('converter-over', 1, 12)
    const view = viewOf(exercise.session, exercise.strip)
    expect(outcomeOf(exercise, view, 'recorder-meter')).toBe('top')
    expect(levelsOff(view)).toBeGreaterThan(2)
    const { fix } = shortestWay(exercise, 0)
    const fixed = viewOf(applyFix(exercise.session, fix.changes ?? []), exercise.strip)
    expect(outcomeOf(exercise, fixed, 'recorder-meter')).toBe('middle')
    expect(levelsOff(fixed)).toBeLessThan(1)
  })

  it('two faults: the second is heard by itself, and a check shows the one it is made for', () => {
    const exercise = [2, 4, 6, 8]
      .map((seed) => exerciseOf('converter-over', 4, seed))
      .find(({ faults }) => faults.length === 2)
    expect(exercise).toBeDefined()
    if (!exercise) return
    const [first, second] = exercise.faults
    expect(second?.hidden).toBe(true)
    expect(causeOf(second?.cause ?? 'pad-in').symptoms[first?.symptom ?? 'hiss']).toBeUndefined()
    expect(complaintOf(exercise)).toContain('; and ')
    const [check, shown] = Object.entries(causeOf(second?.cause ?? 'pad-in').shows)[0] as [
      never,
      Record<string, number>,
    ]
    const likeliest = Object.entries(shown).sort((a, b) => b[1] - a[1])[0]?.[0]
    expect(outcomeOf(exercise, viewOf(exercise.session, exercise.strip), check)).toBe(likeliest)
  })
})

describe('scores', () => {
  it('takes off for checks, wrong turns and decibels, and never below nothing', () => {
    expect(scoreOf(whole)).toEqual({ points: 100, good: true, because: [] })
    expect(scoreOf({ ...whole, checks: 4 }).points).toBe(88)
    expect(scoreOf({ ...whole, wrongCauses: 1, off: 2.5 })).toMatchObject({ points: 70, good: true })
    expect(scoreOf({ ...whole, wrongCauses: 1, wrongFixes: 1 }).good).toBe(false)
    expect(scoreOf({ ...whole, wrongCauses: 9 }).points).toBe(0)
    expect(scoreOf({ ...whole, shown: true })).toMatchObject({ points: 0, good: false })
    expect(scoreOf({ ...whole, off: null }).points).toBe(100)
  })
})

describe('drills', () => {
  it('every kind is made for every seed, and its answer is what the evaluation computes', () => {
    for (const kind of drillKinds)
      for (const seed of [1, 2, 3, 4, 5]) {
        const drill = drillOf(kind, seed)
        expect(drill).toEqual(drillOf(kind, seed))
        const strip = evaluateSession(drill.session).strips.find(({ id }) => id === drill.strip)
        const end = strip?.points.at(-1)
        if (kind === 'headroom') expect(drill.answer).toBe(strip?.tightest?.headroom)
        if (kind === 'floor') expect(drill.answer).toBe(end?.noise)
        if (kind === 'delay')
          expect(drill.answer).toBe(strip?.latency.find(({ route }) => route === 'software')?.milliseconds)
        if (kind === 'noise-source') {
          expect(drill.choices).toContain(drill.answer)
          expect(drill.choices.length).toBeGreaterThan(1)
        }
        if (kind === 'set-gain') {
          const to = Number(drill.answer)
          const set = applySettings(drill.session, [
            { strip: drill.strip, stage: drill.turns?.stage ?? '', setting: 'gain', to: to as never },
          ])
          expect(levelsOff(viewOf(set, drill.strip))).toBeLessThan(0.01)
          expect(Math.abs(to - (drill.turns?.from ?? 0))).toBeGreaterThan(5)
        }
        // The answer itself stands nowhere in what is given.
        expect(drill.given.join(' ')).not.toContain(String(drill.answer))
      }
  })
  it('the headroom can be worked out from what is given, and is not read off: the level at the place itself is left out', () => {
    const drills = Array.from({ length: 60 }, (_, i) => drillOf('headroom', i + 1))
    let worked = 0
    for (const { session, strip, given, answer } of drills) {
      const tight = evaluateSession(session).strips.find(({ id }) => id === strip)?.tightest
      const at = session.strips.find(({ id }) => id === strip)?.stages.find(({ id }) => id === tight?.stage)
      const place = session.gear.find(({ id }) => id === at?.gear)
      const levels = given.filter((each) => each.includes(': average '))
      expect(levels.filter((each) => each.startsWith(`"${place?.name}"`))).toEqual([])
      if (place?.kind !== 'interface') continue
      // Maximum input level less what the gain takes of it, less the peak before it.
      const figure = (name: string) =>
        Number(new RegExp(`${name} (−?[0-9.]+)`).exec(given.at(-1) ?? '')?.[1]?.replace('−', '-'))
      const peak = Number(/peak (−?[0-9.]+)/.exec(levels.at(-1) ?? '')?.[1]?.replace('−', '-'))
      if (given.at(-1)?.includes('Pad in') || Number.isNaN(peak)) continue
      const gain = figure('Gain')
      const left = figure('Maximum input level') - (gain - figure('Minimum gain')) - peak
      expect(Math.abs(left - Number(answer)), given.join('\n')).toBeLessThan(1.5)
      worked++
    }
    expect(worked).toBeGreaterThan(10)
  })
  it('who makes the noise: every choice that a figure tells of has its figure given', () => {
    const FIGURES = {
      'the self-noise': 'Self-noise',
      'the converter': 'Dynamic range',
      'the preamp': 'EIN',
      'the room': 'The room:',
    }
    const seen = new Set<string>()
    for (let seed = 1; seed <= 40; seed++) {
      const { given, choices } = drillOf('noise-source', seed)
      for (const choice of choices) {
        const [noise, figure] = Object.entries(FIGURES).find(([words]) => choice.startsWith(words)) ?? []
        const name = /“(.*)”/.exec(choice)?.[1]
        if (!noise || !figure) continue
        seen.add(noise)
        expect(
          given.some((each) => each.includes(figure) && (!name || each.startsWith(`“${name}”`))),
          `${choice}\n${given.join('\n')}`,
        ).toBe(true)
      }
    }
    expect([...seen].sort()).toEqual(Object.keys(FIGURES).sort())
  })
  it('is scored by the error', () => {
    const drill = drillOf('headroom', 3)
    const answer = Number(drill.answer)
    expect(scoreDrill(drill, answer)).toEqual({ error: 0, points: 100, good: true })
    expect(scoreDrill(drill, answer + 3)).toMatchObject({ points: 50, good: true })
    expect(scoreDrill(drill, answer - 6.5)).toMatchObject({ points: 0, good: false })
    const named = drillOf('noise-source', 3)
    expect(scoreDrill(named, named.answer).points).toBe(100)
    expect(scoreDrill(named, 'somebody').good).toBe(false)
  })
})

describe('spaced repetition', () => {
  it('what goes well comes later and later, what fails comes today', () => {
    let progress = after(undefined, 'hum', 90, true, 100)
    expect(progress).toMatchObject({ box: 1, due: 101, seen: 1, good: 1 })
    progress = after(progress, 'hum', 80, true, 101)
    expect(progress.due).toBe(104)
    for (let i = 0; i < 9; i++) progress = after(progress, 'hum', 80, true, progress.due)
    expect(progress.box).toBe(5)
    expect(after(progress, 'hum', 20, false, 300)).toMatchObject({ box: 0, due: 300, last: 20 })
  })
  it('what is due and worst comes first, then what is new; nothing twice in a row', () => {
    const random = seeded(2)
    const known = [
      { kind: 'a', box: 2, due: 10, seen: 3, good: 2, last: 80 },
      { kind: 'b', box: 0, due: 10, seen: 3, good: 0, last: 10 },
      { kind: 'c', box: 1, due: 40, seen: 3, good: 2, last: 80 },
    ]
    expect(nextKind(['a', 'b', 'c', 'd'], known, 10, null, random)).toBe('b')
    expect(nextKind(['a', 'b', 'c', 'd'], known, 10, 'b', random)).toBe('a')
    expect(nextKind(['c', 'd'], known, 10, null, random)).toBe('d')
    expect(nextKind(['c'], known, 10, 'c', random)).toBe('c')
  })
  it('over sixty days a kind that always fails comes more often than one that never does', () => {
    const random = seeded(9)
    const kinds = ['easy', 'hard', 'x', 'y', 'z']
    const known = new Map<string, ReturnType<typeof after>>()
    const counts: Record<string, number> = {}
    for (let day = 0; day < 60; day++) {
      let just: string | null = null
      for (let i = 0; i < 3; i++) {
        const kind = nextKind(kinds, [...known.values()], day, just, random)
        counts[kind] = (counts[kind] ?? 0) + 1
        known.set(kind, after(known.get(kind), kind, 0, kind !== 'hard', day))
        just = kind
      }
    }
    expect(counts.hard).toBeGreaterThan(1.5 * (counts.easy ?? 0))
  })
  it('days are counted by the clock on the wall, grades open one after the other', () => {
    expect(dayOf(new Date(2026, 10, 28, 0, 10)) - dayOf(new Date(2026, 10, 27, 23, 50))).toBe(1)
    expect(openGrade([0, 0, 0, 0])).toBe(1)
    expect(openGrade([4, 2, 0, 0])).toBe(2)
    expect(openGrade([9, 9, 9, 9])).toBe(4)
  })
})
