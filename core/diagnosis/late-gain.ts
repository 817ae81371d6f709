import type { GainControl } from '../chain/gain-control'
import { restingGain } from '../chain/gain-control'
import { leastStep, tried } from '../checks/trial'
import { hasReserve } from '../chain/reserve'
import type { SettingChange } from '../edits'
import { applyChanges } from '../edits'
import { electronicsSnr, turn } from './causes/common'
import { SessionView } from './view'
import type { DiagnosisView } from './view'

/** Gain moved from the later controls of a strip to its first. */
export interface Exchange {
  /** By how much the first is turned up and the others together down, dB. */
  by: number
  /** How much lower the electronics’ noise is then under the programme, dB. */
  quieter: number
  changes: readonly SettingChange[]
}

/** A level at the strip’s end that counts as the same, dB. */
const SAME_LEVEL = 0.5

const exchanges = new WeakMap<DiagnosisView, Exchange | null>()

/**
 * The most gain that can be made earlier with the level at the end as it is, and every stage with its reserve or no less room than
 * it has. It asks what a hand could set, whatever a plan would; `null` where nothing can be moved.
 */
export function exchanged(view: DiagnosisView): Exchange | null {
  const known = exchanges.get(view)
  if (known !== undefined) return known
  const found = findExchange(view)
  exchanges.set(view, found)
  return found
}

function findExchange(view: DiagnosisView): Exchange | null {
  const free = view.chain.controls.filter(({ locked }) => !locked)
  const first = free.find(({ isFader, domain }) => !isFader && domain === 'analogue')
  const before = electronicsSnr(view)
  if (!first || before === null) return null
  const later = free.slice(free.indexOf(first) + 1)
  const most = Math.floor(
    Math.min(
      first.range.gainMax - first.value,
      later.reduce((sum, control) => sum + roomBelow(control), 0),
    ),
  )
  if (most < 1) return null
  const less = leastStep(most, (step) => holds(view, moved(view, first, later, most - step)), 1) ?? most
  const by = most - less
  if (by < 1) return null
  const changes = moved(view, first, later, by)
  const after = electronicsSnr(seenWith(view, changes)) ?? before
  return { by, quieter: after - before, changes }
}

/** A strip as it would be after some changes. */
export const seenWith = (view: DiagnosisView, changes: readonly SettingChange[]): DiagnosisView =>
  new SessionView(applyChanges(view.session, changes)).strips.find(
    ({ strip }) => strip.id === view.strip.id,
  ) as DiagnosisView

/** How far a later gain can come down: a fader or slider to where it rests. */
const roomBelow = (control: GainControl): number => {
  const { isFader, isSystemSlider, value, range } = control
  return Math.max(0, value - (isFader || isSystemSlider ? restingGain(control) : range.gainMin))
}

/** The first gain up, the later ones down by as much together, the last of them first. */
function moved(view: DiagnosisView, first: GainControl, later: readonly GainControl[], by: number): SettingChange[] {
  const changes = [turn(view, first.stage, first.setting, first.value + by)]
  let left = by
  for (const control of [...later].reverse()) {
    const down = Math.min(left, roomBelow(control))
    if (down > 0) changes.push(turn(view, control.stage, control.setting, control.value - down))
    left -= down
  }
  return changes
}

function holds(view: DiagnosisView, changes: readonly SettingChange[]): boolean {
  const after = tried(view.chain, changes)?.points
  const [was, is] = [view.points.at(-1), after?.at(-1)]
  if (!after || !was || !is || Math.abs(is.average - was.average) > SAME_LEVEL) return false
  return after.every((point, i) => hasReserve(point) || (point.headroom ?? 0) >= (view.points[i]?.headroom ?? Infinity))
}
