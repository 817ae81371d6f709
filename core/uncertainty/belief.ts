import { gearById, stagesOf } from '../resolved/resolve-session'
import { nearGain } from '../gear/sound-source/chain'
import type { Gear } from '../gear'
import { isSoundSource } from '../gear'
import type { Reading, Stage, Strip } from '../model'
import type { Session } from '../session'
import { moved } from '../model'
import type { UncertainInput } from './input'
import { Moved } from './input'
import { uncertainInputs } from './inputs'
import { KnownReadings, readAt } from './known-readings'
import { linearised } from './linear'
import { PerturbedEvaluations } from './perturbed-evaluations'

/**
 * What is believed of a session once its readings are known: every input where Bayes’ rule has it. The readings count as kept then, so
 * that nothing is taken twice; a belief of a belief is itself.
 */
interface Belief {
  readonly gear: Gear[]
  readonly readings: readonly Reading[]
  /** What a stage gives beyond what it is set to, dB: a knob keeps the figure that a hand sets. */
  readonly offsets: ReadonlyMap<string, number>
  readonly strips: WeakMap<Strip, Strip>
}

/** Shifts below this are none, in standard uncertainties. */
const NO_SHIFT = 1e-4

/** Beliefs by what they rest on: settings move no belief of readings that say what was expected when they were taken. */
const known = new WeakMap<readonly Reading[], WeakMap<readonly Gear[], { structure: string; belief: Belief }>>()

/** The session as it is believed to be, given the readings of its soundcheck; itself where there are none to take in. */
export function believed(session: Session): Session {
  const readings = session.soundcheck?.readings ?? []
  if (readings.every(({ kept }) => kept)) return session
  return applied(session, beliefOf(session, readings))
}

function beliefOf(session: Session, readings: readonly Reading[]): Belief {
  if (readings.some(({ expected, kept }) => !kept && expected === undefined)) return worked(session, readings)
  const structure = session.strips
    .map(({ id, stages }) => `${id}:${stages.map((stage) => `${stage.id} ${stage.gear} ${stage.port}`).join()}`)
    .join(';')
  const byGear = known.get(readings) ?? new WeakMap<readonly Gear[], { structure: string; belief: Belief }>()
  known.set(readings, byGear)
  const found = byGear.get(session.gear)
  if (found?.structure === structure) return found.belief
  const belief = worked(session, readings)
  byGear.set(session.gear, { structure, belief })
  return belief
}

function worked(session: Session, readings: readonly Reading[]): Belief {
  const inputs = uncertainInputs(session)
  const evaluations = new PerturbedEvaluations(session)
  const read = new Set(readings.map(({ strip }) => strip))
  const linear = linearised(
    evaluations,
    inputs.filter((input) => [...evaluations.reach(input)].some((strip) => read.has(strip))),
  )
  const told = KnownReadings.of(session, evaluations, linear)
  const boxes = new Moved(session, gearById(session))
  const offsets = new Map<string, number>()
  for (const input of inputs) {
    const { z } = told.ofInput(input.path)
    if (Math.abs(z) < NO_SHIFT) continue
    if (input.place.in === 'gear') boxes.move(input, z)
    else if (input.place.in === 'strip') {
      const { strip, stage } = input.place
      offsets.set(stage, (offsets.get(stage) ?? 0) + offsetOf(session, input, strip, stage, z))
    }
  }
  return {
    gear: session.gear.map((item) => boxes.get(item.id) ?? item),
    readings: readings.map((each) => ({
      ...each,
      expected: each.expected ?? readAt(evaluations, each)?.now ?? each.value,
      kept: true,
    })),
    offsets,
    strips: new WeakMap(),
  }
}

/** What a setting that is off by so much does at its stage, dB. */
function offsetOf(
  session: Session,
  { value, doubt, place }: UncertainInput,
  stripId: string,
  stageId: string,
  z: number,
) {
  const to = moved(value, doubt, z)
  if (place.in !== 'strip' || place.setting !== 'distance') return to - value
  const strip = session.strips.find(({ id }) => id === stripId)
  const stage = strip && stagesOf(session, strip).find(({ id }) => id === stageId)
  return isSoundSource(stage)
    ? nearGain(stage.specs.distance, to, stage.gear.size) - nearGain(stage.specs.distance, value, stage.gear.size)
    : -20 * Math.log10(to / value)
}

function applied(session: Session, { gear, readings, offsets, strips }: Belief): Session {
  const shifted = (strip: Strip): Strip => {
    if (!strip.stages.some(({ id }) => offsets.has(id))) return strip
    const before = strips.get(strip)
    if (before) return before
    const stages = strip.stages.map((stage): Stage => {
      const offset = offsets.get(stage.id)
      return offset === undefined ? stage : { ...stage, offset }
    })
    const after = { ...strip, stages }
    strips.set(strip, after)
    return after
  }
  return {
    ...session,
    gear,
    strips: session.strips.map(shifted),
    soundcheck: { ...session.soundcheck, readings: [...readings] },
  }
}
