/**
 * Sound exposure. These are cautions, not advice on a person's hearing: local rules and a qualified person decide.
 */

/** NIOSH (1998): 85 dBA for 8 h, halved for every 3 dB. 94 dBA: 1 h; 100 dBA: 15 min. */
export const nioshHours = (level: number): number => 8 / 2 ** ((level - 85) / 3)

/** Directive 2003/10/EC: lower and upper action value and limit, dB(A) over 8 h. */
export const EUROPEAN = { lower: 80, upper: 85, limit: 87 } as const

/** WHO and ITU-T H.870 (from memory): 80 dBA for 40 h a week, halved for every 3 dB. */
export const weeklyHours = (level: number): number => 40 / 2 ** ((level - 80) / 3)

/** No level above this is ever proposed, dBA. */
export const MOST_PROPOSED = 85

/** Where warning turns into danger: an hour or less by NIOSH. */
export const DANGEROUS = 94

export type ExposureGrade = 'calm' | 'caution' | 'danger'

/** What an average level, and the peaks over it, come to. */
export function exposureGrade(average: number, peak: number): ExposureGrade {
  if (average >= DANGEROUS || peak >= 120) return 'danger'
  return average >= EUROPEAN.lower || peak >= 105 ? 'caution' : 'calm'
}
