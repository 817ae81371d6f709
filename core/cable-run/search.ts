import type { Conductor } from './conductor'
import type { FoundCable } from './findings'
import { findCables } from './find-cables'
import type { CableProblem } from './hand'

/** The run was given up: no cable was found, and none was brought. */
export class NoCable extends Error {
  override readonly name = 'NoCable'
}

/**
 * Finds the cable into an input, and a second one into another. Asks the hand to put right what is wrong with it; what is left as it
 * is, is measured and remembered.
 * @throws NoCable where none was found and none was brought
 */
export async function searchCable(
  conductor: Conductor,
  input: number,
): Promise<{ cable: FoundCable; second: FoundCable | null }> {
  for (let isAccepted = false; ;) {
    conductor.says('Looking for the cable')
    const { cables, otherSoundAt } = await findCables(conductor)
    const cable = cables.find((each) => each.input === input) ?? cables[0]
    const problem = cable ? problemOf(cable, input) : noCable(otherSoundAt)
    if (cable && (!problem || isAccepted)) {
      if (cable.isLoose) conductor.doubts.add('loose')
      if (cable.losesSamples) conductor.doubts.add('samples-lost')
      const second = cables.find((each) => each.input !== cable.input && each.output !== cable.output)
      return { cable, second: second ?? null }
    }
    const answer = await conductor.until({ do: 'cable', problem })
    if (problem?.code === 'samples-lost') conductor.hasLostSamples = true
    if (answer.done) continue
    if (!cable) throw new NoCable()
    isAccepted = true
  }
}

const noCable = (otherSoundAt: number | null): CableProblem =>
  otherSoundAt === null ? { code: 'none' } : { code: 'other-sound', input: otherSoundAt }

function problemOf({ output, input, isLoose, losesSamples }: FoundCable, wanted: number): CableProblem | null {
  if (losesSamples) return { code: 'samples-lost' }
  if (isLoose) return { code: 'loose', output, input }
  return input === wanted ? null : { code: 'wrong-input', output, input, wanted }
}
