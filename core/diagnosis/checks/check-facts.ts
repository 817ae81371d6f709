/** Something to try or to look at, and what it can show. */
export interface CheckFacts {
  /** What to do, then the question. */
  readonly ask: string
  /** What can be seen, by a short key. */
  readonly outcomes: Readonly<Record<string, string>>
  /** What is to be expected where none of the causes that it asks for is there, 0…1 each (common practice, no source). */
  readonly usual: Readonly<Record<string, number>>
  /** How long it takes (common practice, no source). */
  readonly minutes: number
  readonly caution?: string
}

export const EARS = 'Headphones and loudspeakers down first: it may get loud.'
export const CURE = { goes: 'It goes', stays: 'It stays' } as const
export const STAYS = { goes: 0.04, stays: 0.96 } as const
