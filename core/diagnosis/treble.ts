import { USUAL_CAPACITANCE, cableCorner, outputImpedance } from '../chain/loading'
import type { ResolvedStage } from '../chain/resolve'

/** Where a lead cuts highs. */
export interface TrebleCut {
  /** The stage that the lead goes into. */
  stage: string
  /** What drives it. */
  name: string
  /** m */
  length: number
  /** Hz, where it has taken 3 dB. */
  corner: number
}

/** Driven from less than that no lead takes treble, Ω (common practice, no source). */
const HIGH = 5000

/** The lead in a strip that cuts deepest: a given length behind a high impedance, such as a pickup’s. */
export function trebleCut(stages: readonly ResolvedStage[]): TrebleCut | null {
  const cuts = stages.flatMap((stage, i): TrebleCut[] => {
    const before = stages[i - 1]
    const impedance = before && outputImpedance(before, stages[i - 2])
    const { cable, capacitance = USUAL_CAPACITANCE } = stage.settings
    if (!before || !impedance || impedance < HIGH || !cable) return []
    return [
      { stage: stage.id, name: before.gear.name, length: cable, corner: cableCorner(impedance, cable * capacitance) },
    ]
  })
  return cuts.sort((a, b) => a.corner - b.corner)[0] ?? null
}
