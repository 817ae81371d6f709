import { circuitOf, inductanceOf } from '../chain/loading'
import { corner, trebleLoss } from '../chain/pickup'
import type { ResolvedStage } from '../resolved/resolve'

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
  if (source?.kind !== 'electric-source' || !next?.settings.cable) return null
  const circuit = circuitOf(source, next, inductanceOf(source) ?? 0)
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
