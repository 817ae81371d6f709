import { stagesOf } from '../resolved/resolve-session'
import type { AnalogueInput, AudioInterface } from '../gear'
import { isInterface, isMicrophone, isSoundSource } from '../gear'
import type { Session } from '../session'
import { inForce } from '../model'
import type { Bench } from './procedure'

/** What is chosen to stand on the bench; anything left out or gone is replaced by the first of its kind. */
export interface BenchChoice {
  unit?: string | undefined
  input?: string | undefined
  second?: string | undefined
  output?: string | undefined
}

const isAnalogue = (input: AudioInterface['inputs'][number]): input is AnalogueInput => input.type !== 'digital'

/** Interfaces that have something to measure. */
export const measurable = (session: Session): AudioInterface[] =>
  session.gear.filter((gear): gear is AudioInterface => isInterface(gear) && gear.inputs.some(isAnalogue))

export const analogueInputs = (unit: AudioInterface): AnalogueInput[] => unit.inputs.filter(isAnalogue)

/** The bench for a session and a strip; `null` where the session has no interface with an analogue input. */
export function benchOf(session: Session, stripId: string | undefined, choice: BenchChoice): Bench | null {
  const strip = session.strips.find((each) => each.id === stripId)
  const stages = strip ? stagesOf(session, strip) : []
  const stage = stages.find((each) => isInterface(each))
  const units = measurable(session)
  const unit =
    units.find((each) => each.id === choice.unit) ?? units.find((each) => each.id === stage?.gear.id) ?? units[0]
  if (!unit) return null
  const inputs = analogueInputs(unit)
  const input =
    inputs.find((each) => each.id === choice.input) ??
    inputs.find((each) => unit.id === stage?.gear.id && each.id === (stage as { input: { id: string } }).input.id) ??
    (inputs[0] as AnalogueInput)
  const others = inputs.filter((each) => each.id !== input.id)
  const second =
    others.find((each) => each.id === choice.second) ??
    others.find((each) => each.type === input.type) ??
    others[0] ??
    null
  const output =
    unit.outputs.find((each) => each.id === choice.output) ??
    unit.outputs.find((each) => each.type === 'line') ??
    unit.outputs[0] ??
    null
  const [source, microphone] = [stages[0], stages[1]]
  const inFront =
    isSoundSource(source) &&
    isMicrophone(microphone) &&
    isInterface(stage) &&
    stages[2] === stage &&
    stage.gear.id === unit.id &&
    stage.input.id === input.id
  return {
    session,
    unit,
    input,
    second,
    output,
    voice: inFront
      ? {
          source: source.gear,
          distance: source.distance,
          microphone: microphone.gear,
          gain: stage.gain ?? inForce(input).gainMin,
          pad: stage.pad ? stage.specs.pad : 0,
        }
      : null,
  }
}
