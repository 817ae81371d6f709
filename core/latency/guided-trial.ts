/** What a performer says of one buffer size. */
export type TrialAnswer = 'crackles' | 'late' | 'fine'

/** Two ways of choosing: as small as the machine sustains, or as large as one cannot feel. */
export type TrialPreference = 'smallest' | 'largest'

export interface AnsweredTrial {
  bufferFrames: number
  answer: TrialAnswer
}

export type TrialState =
  | { state: 'try'; bufferFrames: number; again: boolean; tries: number }
  | { state: 'found'; bufferFrames: number; tries: number }
  /** What does not crackle is felt late. */
  | { state: 'none'; tries: number }

/**
 * Finds a buffer size in the fewest tries, by halving: crackles rule out what is smaller, "late" what is larger, and "fine"
 * keeps one side by the preference. An answer that an earlier one contradicts – crackling although a smaller buffer ran, late
 * although a larger one did not feel so – is not believed, and the size is tried once more.
 */
export function guidedTrial(
  sizes: readonly number[],
  answers: readonly AnsweredTrial[],
  preference: TrialPreference,
): TrialState {
  const sorted = [...new Set(sizes)].sort((a, b) => a - b)
  let [low, high] = [0, sorted.length - 1]
  const fine = new Set<number>()
  const bounds = { crackles: false, late: false }
  let doubted: number | null = null
  for (const { bufferFrames, answer } of answers) {
    const i = sorted.indexOf(bufferFrames)
    if (i < 0) continue
    const contradicted =
      (answer === 'crackles' && [...fine].some((each) => each <= i)) ||
      (answer === 'late' && [...fine].some((each) => each >= i))
    // Said twice, it holds: then it was the earlier answer that was wrong.
    if (contradicted && doubted !== i) {
      doubted = i
      continue
    }
    doubted = null
    if (answer === 'crackles') {
      low = Math.max(low, i + 1)
      bounds.crackles = true
    } else if (answer === 'late') {
      high = Math.min(high, i - 1)
      bounds.late = true
    } else {
      fine.add(i)
      if (preference === 'largest') low = Math.max(low, i)
      else high = Math.min(high, i)
    }
  }
  const tries = answers.length
  if (doubted !== null) return { state: 'try', bufferFrames: sorted[doubted] as number, again: true, tries }
  if (low > high || sorted.length === 0) return { state: 'none', tries }
  // Squeezed in between crackles and lateness, the last size left may be either: it is tried.
  const unsure = low === high && bounds.crackles && bounds.late && !fine.has(low)
  if (low === high && !unsure) return { state: 'found', bufferFrames: sorted[low] as number, tries }
  const middle = preference === 'largest' ? Math.ceil((low + high) / 2) : Math.floor((low + high) / 2)
  return { state: 'try', bufferFrames: sorted[middle] as number, again: false, tries }
}
