import { lastControl, stripControls } from '../chain/gain-control'
import { applyChanges, startSession } from '../edits'
import { evaluateSession } from '../evaluation/evaluate-session'
import { readSession } from '../files'
import { channelsOf } from '../model'
import { asChange } from '../plan/as-change'
import { planSession } from '../plan/plan-session'
import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import type { Lane } from '../watch/lane'
import { lanesOf } from '../watch/lane'
import type { LaneState } from '../watch/state'
import type { StrangerFault } from '../watch/strangers'
import { formatDecimal } from '../units'
import type { Score } from './score'

/** The exercise is to be done within so many seconds: four minutes. */
export const STRANGERS_SECONDS = 240
/** What is wrong among the six, besides how loud they are. */
export const STRANGERS_FAULTS: readonly StrangerFault[] = ['swapped', 'pad', 'dead']

export const strangersTitle = 'Set up six strangers in four minutes'
export const strangersTeaches =
  'Six performers whom nobody has heard before. Two cables are swapped, one pad is in, one microphone is dead.'

const NAMES = 'Guide, Cello, Harmonium, Fiddle, Choir, Reader'

/** Six microphones into an interface, every gain fully down: what stands there before anybody has played. */
export function strangersSession(): Session {
  const started = startSession('strangers', 'Six strangers', { what: 'voice', names: NAMES, distance: 0.3 })
  const reading = readSession(started)
  if (!reading.ok) throw new Error(`The six are faulty: ${reading.faults.map(({ message }) => message).join('; ')}`)
  const planned = applyChanges(reading.session, planSession(reading.session).settings.map(asChange))
  const down = channelsOf(planned).flatMap((strip) => {
    const control = lastControl(stripControls(stagesOf(planned, strip)))
    return control
      ? [{ strip: strip.id, stage: control.stage, setting: 'gain' as const, to: control.range.gainMin }]
      : []
  })
  return applyChanges(planned, down)
}

/** The inputs of the exercise, with the gains as they stand. */
export const strangersLanes = (session: Session): Lane[] => lanesOf(session, evaluateSession(session))

/** The gain of an input turned by so many dB, within its range. */
export function turnedBy(session: Session, stripId: string, by: number): Session {
  const strip = session.strips.find(({ id }) => id === stripId)
  const control = strip && lastControl(stripControls(stagesOf(session, strip)))
  if (!control) return session
  const { gainMin, gainMax } = control.range
  const to = Math.min(gainMax, Math.max(gainMin, control.value + by))
  return applyChanges(session, [
    { strip: stripId, stage: control.stage, setting: 'gain', to: to as typeof control.value },
  ])
}

/** How the exercise went. */
export interface StrangersAttempt {
  states: readonly LaneState[]
  /** Faults that were not found. */
  faultsLeft: number
  /** Looks at cables, pads or microphones that were right. */
  idleLooks: number
  seconds: number
}

/** Points taken off (common practice, no source); an input outside its window, a fault left, a look for nothing, three seconds more. */
const EACH = { input: 12, fault: 10, look: 4, late: 1 / 3 } as const
const GOOD = 70

/** 100 less what was left undone and what it took too long. */
export function scoreStrangers({ states, faultsLeft, idleLooks, seconds }: StrangersAttempt): Score {
  const outside = states.filter((state) => state !== 'in-window').length
  const late = Math.max(0, seconds - STRANGERS_SECONDS)
  const taken: [number, string][] = [
    [EACH.input * outside, `${outside} ${outside === 1 ? 'input' : 'inputs'} outside the window`],
    [EACH.fault * faultsLeft, `${faultsLeft} ${faultsLeft === 1 ? 'fault' : 'faults'} not found`],
    [EACH.look * idleLooks, `${idleLooks} ${idleLooks === 1 ? 'look' : 'looks'} for nothing`],
    [EACH.late * late, `${formatDecimal(late, 0)} s over four minutes`],
  ]
  const points = Math.max(0, Math.round(100 - taken.reduce((sum, [each]) => sum + each, 0)))
  return {
    points,
    good: points >= GOOD,
    because: taken.filter(([each]) => each >= 0.5).map(([each, words]) => `${words}: −${formatDecimal(each, 0)}`),
  }
}
