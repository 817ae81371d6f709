import { isFed, phantomSwitches, phantomUses } from '#core/chain/phantom'
import { cascadeStrip, arrivingAt } from '#core/chain/graph'
import { stagesOf } from '#core/resolved/resolve-session'
import { hasReserve } from '#core/chain/reserve'
import { SessionView } from '#core/diagnosis/view'
import { causeIds } from '#core/diagnosis/causes'
import { fixOf } from '#core/diagnosis/fixes'
import { applyFix } from '#core/diagnosis/fix-change'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { asChange } from '#core/plan/as-change'
import { planSession } from '#core/plan/plan-session'
import type { Finding } from '#core/checks/finding'
import type { Session } from '#core/session'
import { applyChanges, applySettings } from '#core/edits'
import { isBus } from '#core/model'
import { metres } from '#core/units'
import { instructions } from '#core/soundcheck/run-sheet'

/** What advice must hold to, on any session; every breach in words. */
export function breaches(session: Session): string[] {
  return [...planBreaches(session), ...findingBreaches(session), ...phantomBreaches(session)]
}

const EDGE = 0.051

const drivenIn = (session: Session): Set<string> =>
  new Set(session.strips.flatMap(({ stages }) => stages.flatMap(({ id, driven }) => (driven ? [id] : []))))

/** Stages at which the surge has less room than none, and less than it had. */
function surgeLost(
  before: readonly StripEvaluation[],
  after: readonly StripEvaluation[],
  driven: Set<string>,
): string[] {
  return after.flatMap(({ id, points }) => {
    const was = new Map(
      before.find((each) => each.id === id)?.points.map((point) => [point.stage, point.surgeHeadroom]),
    )
    return points.flatMap(({ stage, surgeHeadroom }) => {
      const known = was.get(stage)
      const lost = surgeHeadroom !== null && surgeHeadroom < -1e-3 && (known == null || surgeHeadroom < known - EDGE)
      return lost && !driven.has(stage) ? [`${stage}: ${known?.toFixed(2)} → ${surgeHeadroom.toFixed(2)}`] : []
    })
  })
}

/** No plan newly clips without saying so, and a plan of what is planned changes nothing. */
function planBreaches(session: Session): string[] {
  const found: string[] = []
  const plan = planSession(session)
  const driven = drivenIn(session)
  const before = evaluateSession(session)
  const planned = applySettings(session, plan.settings.map(asChange))
  const after = evaluateSession(planned)
  after.strips.forEach(({ id, points }, i) => {
    const own = plan.strips.find(({ strip }) => strip === id)
    const told = (own?.notes.length ?? 0) > 0 || own?.remedy != null
    points.forEach((point, k) => {
      const was = before.strips[i]?.points[k]
      if (point.clipped && !was?.clipped && !driven.has(point.stage) && !told)
        found.push(`plan clips ${point.stage} by ${(-(point.headroom ?? 0)).toFixed(2)} dB without a note`)
    })
  })
  const second = planSession(planned).settings
  if (second.length > 0)
    found.push(
      `second plan: ${second.map(({ stage, setting, from, to }) => `${stage} ${setting} ${from} → ${to}`).join(', ')}`,
    )
  for (const { strip, remedy } of plan.strips) {
    if (!remedy || remedy.changes.length === 0) continue
    const changed = applyChanges(planned, remedy.changes)
    const settled = applySettings(changed, planSession(changed).settings.map(asChange))
    // What the plan itself does to other strips is not the remedy's.
    const lost = surgeLost(
      after.strips.filter(({ id }) => id === strip),
      evaluateSession(settled).strips.filter(({ id }) => id === strip),
      driven,
    )
    if (lost.length > 0) found.push(`remedy "${remedy.message}" raises the surge: ${lost.join(', ')}`)
  }
  return found
}

/** Every fix keeps its word, and every number in a sentence does what it says. */
function findingBreaches(session: Session): string[] {
  const found: string[] = []
  const driven = drivenIn(session)
  const before = evaluateSession(session)
  for (const { id, findings } of before.strips)
    for (const finding of findings) {
      if (finding.changes) {
        const after = evaluateSession(applyChanges(session, finding.changes))
        const lost = surgeLost(before.strips, after.strips, driven)
        if (lost.length > 0) found.push(`fix "${finding.action}" raises the surge: ${lost.join(', ')}`)
        const left = /leaves (−?[\d.]+) dB at “([^”]*)”/.exec(finding.action)
        const strip = after.strips.find((each) => each.id === id)
        const at = strip?.points.find(({ stage }) => stage === finding.stage)
        if (left && Math.abs(numberIn(left[1]) - (at?.headroom ?? NaN)) > EDGE)
          found.push(`"${finding.action}" leaves ${at?.headroom?.toFixed(2)}`)
      } else found.push(...wordBreaches(session, id, finding))
    }
  return found
}

const numberIn = (text: string | undefined): number => Number((text ?? '').replace('−', '-'))

function wordBreaches(session: Session, stripId: string, finding: Finding): string[] {
  const { action, code } = finding
  const less = /[Bb]ring at least ([\d.]+) dB less to “([^”]*)”/.exec(action)
  const move = /Move it to at least ([\d.]+) m/.exec(action)
  if (less) {
    const by = numberIn(less[1])
    const { at, points } = lowered(session, stripId, less[2] ?? '', by)
    const point = points[at]
    if (!point) return [`${action}: no such stage`]
    const enough =
      code === 'overdriven' || code === 'surge-overdrives'
        ? hasReserve({ headroom: plus(point.headroom), surgeHeadroom: plus(point.surgeHeadroom) })
        : (point.surgeHeadroom ?? 0) >= (code === 'clips' ? 6 : 0) - EDGE
    if (!enough) return [`${action} leaves ${point.headroom?.toFixed(2)}, ${point.surgeHeadroom?.toFixed(2)}`]
  }
  if (move) {
    const stage = session.strips.find(({ id }) => id === stripId)?.stages[0]?.id ?? ''
    const changes = [{ strip: stripId, stage, setting: 'distance' as const, to: metres(numberIn(move[1])) }]
    const after = evaluateSession(applySettings(session, changes)).strips.find(({ id }) => id === stripId)
    if ((after?.points[0]?.surgeHeadroom ?? 0) < -1e-6) return [`${action} leaves ${after?.points[0]?.surgeHeadroom}`]
  }
  return []
}

const plus = (value: number | null) => (value === null ? null : value + EDGE) as never

/** A strip's levels with so much less at the input of a box. */
function lowered(session: Session, stripId: string, name: string, by: number) {
  const strip = session.strips.find(({ id }) => id === stripId)
  if (!strip) throw new Error('no such strip')
  const stages = stagesOf(session, strip)
  const at = stages.findLastIndex((stage) => stage.gear.name === name)
  const { points } = cascadeStrip(strip, stages, session, isBus(strip) ? arrivingAt(session, strip) : [], { at, by })
  return { at, points }
}

/** Harmed uses that get 48 V. */
function harmed(session: Session): Set<string> {
  const uses = phantomUses(session)
  return new Set(
    phantomSwitches(uses)
      .filter(({ on }) => on)
      .flatMap((each) => each.harmed.map(({ user }) => user.id)),
  )
}

/** No step, fix or cause puts 48 V on what it harms. */
function phantomBreaches(session: Session): string[] {
  const found: string[] = []
  const evaluation = evaluateSession(session)
  const live = harmed(session)
  const newly = (after: Session) => [...harmed(after)].filter((id) => !live.has(id))
  const uses = phantomUses(session)
  const conflicted = phantomSwitches(uses).some(({ harmed: h }) => h.length > 0)
  for (const { title, detail } of instructions(session, evaluation))
    if (/48 V of .*: on$/.test(title) && /must not get it/.test(detail ?? '')) found.push(`step "${title}": ${detail}`)
  for (const { findings } of evaluation.strips)
    for (const { changes, action } of findings)
      if (changes && newly(applyChanges(session, changes)).length > 0) found.push(`fix "${action}" puts 48 V on it`)
  if (!conflicted) return found
  const view = new SessionView(session)
  for (const strip of view.strips)
    for (const id of causeIds) {
      const { says, changes } = fixOf(strip, id)
      if (changes && newly(applyFix(session, changes)).length > 0) found.push(`cause ${id} "${says}" puts 48 V on it`)
      const mine = strip.chain.own.filter(isFed)
      const on = /switch 48 V on for this input/.test(says)
      const shared = phantomSwitches(uses).filter((each) => mine.some(({ supply }) => supply.switchId === each.id))
      if (on && shared.some((each) => each.harmed.length > 0 && each.needing.length > 0))
        found.push(`cause ${id} says "${says}" on a shared switch`)
    }
  return found
}
