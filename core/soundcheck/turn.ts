import { lastControl, stripControls } from '../chain/gain-control'
import { gearById, resolveStrip } from '../chain/resolve'
import { gainAtTarget } from '../chain/settable-gain'
import { readingPlace } from '../chain/target-window'
import type { Session, SettingChange, Strip, TargetReading } from '../session'
import { applyChanges, isBus } from '../session'
import type { PointFigure } from '../uncertainty/figures'
import { placeOf } from '../uncertainty/figures'
import type { KnownReadings } from '../uncertainty/known-readings'
import { slopesOf } from '../uncertainty/known-readings'
import type { SessionDoubts } from '../uncertainty/uncertainty'
import { Walks } from '../uncertainty/walks'
import { windowOf } from '../uncertainty/window'

const FIGURE: Record<TargetReading, PointFigure> = { 'average': 'average', 'peak': 'peak', 'surge-peak': 'surgePeak' }

/** Nearer than that to a gain is that gain, dB. */
const SAME = 0.001

/**
 * What to turn on a strip by what its readings say: the gain that is turned last, to where the target’s reading comes to its aim.
 * Nothing where it lies inside its window, or where turning would not bring it nearer or would overdrive a stage.
 */
export function changesFor(
  doubts: SessionDoubts,
  known: KnownReadings,
  stripId: string,
): { changes: SettingChange[]; then: number } | null {
  const { session, walks, linear } = doubts
  const strip = session.strips.find(({ id }) => id === stripId)
  if (!strip || isBus(strip)) return null
  const stages = resolveStrip(strip, gearById(session))
  const window = windowOf(session, strip, stages)
  const place = readingPlace(stages, window)
  const stage = place && stages[place.index]
  const point = stage ? walks.walkOf(stripId).points.findIndex((each) => each.stage === stage.id) : -1
  if (!place || point < 0) return null
  const at = placeOf(point, FIGURE[window.reads])
  const effects = linear.get(stripId)?.effects ?? []
  const reads = (walks.numbersAt(stripId)[at] as number) - place.zero + known.shift(slopesOf(effects, at))
  if (reads >= window.low && reads <= window.high) return null
  const control = lastControl(stripControls(stages.slice(0, place.index + 1)))
  if (!control || control.locked) return null
  const { gain } = gainAtTarget(control.range, control.value + window.aim - reads, {
    under: window.aim - window.low,
    over: window.high - window.aim,
  })
  const then = reads + gain - control.value
  if (Math.abs(gain - control.value) < SAME || offBy(then, window) >= offBy(reads, window)) return null
  const changes: SettingChange[] = [{ strip: stripId, stage: control.stage, setting: control.setting, to: gain }]
  return overdrives(session, strip, changes, doubts, known) ? null : { changes, then }
}

const offBy = (level: number, { low, high }: { low: number; high: number }): number =>
  Math.max(0, low - level, level - high)

/** Whether a stage clips with the change, as loud as is now known, that does not clip without it. */
function overdrives(
  session: Session,
  strip: Strip,
  changes: SettingChange[],
  { walks, linear }: SessionDoubts,
  known: KnownReadings,
): boolean {
  const effects = linear.get(strip.id)?.effects ?? []
  const after = new Walks(applyChanges(session, changes))
  return walks.walkOf(strip.id).points.some((_, i) => {
    const at = placeOf(i, 'headroom')
    const shift = known.shift(slopesOf(effects, at))
    const [was, is] = [walks.numbersAt(strip.id)[at] as number, after.numbersAt(strip.id)[at] as number]
    return !Number.isNaN(is) && is + shift < 0 && is < was
  })
}
