/** Where a signal can be: in air, on a wire, in numbers. */
export type Domain = 'sound' | 'analogue' | 'digital'

export interface Domains {
  /** What it takes its signal from; `null` for a source. */
  takes: Domain | null
  gives: Domain
}

export const through = (domain: Domain): Domains => ({ takes: domain, gives: domain })
