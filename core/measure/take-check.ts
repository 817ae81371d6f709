/** What a rehearsal showed at the recorder, dBFS. */
export interface RehearsalLevels {
  rms: number
  peak: number
}

/** What the model says of the same passage at the recorder. */
export interface ModelledLevels {
  average: number
}

/**
 * A source's level and crest factor as a rehearsal shows them. The chain between is taken as it is set: what the recorder
 * reads more or less than the model is the source's. Crest is peak over average in the recording, so it holds what
 * processors on the way did to it.
 */
export function takeCheck(printed: { level: number }, model: ModelledLevels, { rms, peak }: RehearsalLevels): { level: number, crest: number } {
  return { level: printed.level + rms - model.average, crest: peak - rms + 10 * Math.log10(2) }
}
