import { channelBalance } from './channel-balance'
import { dynamicRange } from './dynamic-range'
import { equivalentInputNoise } from './equivalent-input-noise'
import { gainMarks } from './gain-marks'
import { idleNoise } from './idle-noise'
import { inputFullScale } from './input-full-scale'
import { microphoneLevel } from './microphone-level'
import { outputFullScale } from './output-full-scale'
import type { Bench, Procedure } from './procedure'
import { roundTrip } from './round-trip'

/** Every guided measurement, in the order in which one rests on the other. */
export const procedures = [
  outputFullScale,
  inputFullScale,
  gainMarks,
  equivalentInputNoise,
  dynamicRange,
  idleNoise,
  channelBalance,
  roundTrip,
  microphoneLevel,
] as unknown as readonly Procedure[]

/** Why a procedure cannot be done with what stands on the bench; `null` where it can. */
export function missingFor({ needs }: Procedure, bench: Bench): string | null {
  if (needs.includes('output') && !bench.output)
    return `${bench.unit.name} has no output. Add one in the unit’s dialog on Path, or take another unit.`
  if (needs.includes('second') && !bench.second)
    return `${bench.unit.name} has no second analogue input to compare with.`
  if (needs.includes('voice') && !bench.voice)
    return 'The selected strip has no sound source and microphone in front of this input. Select one that has, in the list of strips.'
  return null
}
