/** AES17: a sine's mean square of ½ is 0 dBFS. `null` for silence. */
export const meanSquareToDbfs = (value: number): number | null => (value > 0 ? 10 * Math.log10(2 * value) : null)
/** An amplitude as the level of the sine that has it. */
export const amplitudeToDbfs = (value: number): number | null => (value > 0 ? 20 * Math.log10(value) : null)

/** Mean square of every block of so many samples; what is left at the end is no block. */
export function blockPowers(samples: Float64Array, length: number): number[] {
  const powers: number[] = []
  for (let from = 0; from + length <= samples.length; from += length) {
    let sum = 0
    for (let i = from; i < from + length; i++) sum += (samples[i] as number) ** 2
    powers.push(sum / length)
  }
  return powers
}
