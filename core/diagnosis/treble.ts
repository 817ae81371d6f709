import { inputImpedance } from '../chain/impedance'
import { circuitOf, inductanceOf } from '../gear/electric-source/circuit'
import { isElectricSource } from '../gear'
import { corner, trebleLoss } from '../gear/electric-source/pickup'
import type { ResolvedStage } from '../gear/stage'

/** What a lead of a stated length takes of the treble of an electric source. */
export interface TrebleCut {
  /** The stage that the lead goes into. */
  stage: string
  /** What drives it. */
  name: string
  /** m */
  length: number
  /** What is lost at 5 kHz, dB. */
  loss: number
  /** Where 3 dB are lost, Hz; `null` where they are lost nowhere that is heard. */
  corner: number | null
}

/** The lead in a strip that takes most: coil, volume control, lead and input as one circuit. */
export function trebleCut(stages: readonly ResolvedStage[]): TrebleCut | null {
  const [source, next] = stages
  if (!isElectricSource(source) || !next?.settings.cable) return null
  const circuit = circuitOf(source, next, inputImpedance(next), inductanceOf(source) ?? 0)
  return (
    circuit && {
      stage: next.id,
      name: source.gear.name,
      length: next.settings.cable,
      loss: trebleLoss(circuit),
      corner: corner(circuit),
    }
  )
}
