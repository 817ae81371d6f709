import type { FindingCode } from '../checks/finding-titles'
import type { TimingFindingCode } from '../timing/finding-codes'
import type { CheckId } from './checks'
import type { FixChange } from './fix-change'
import type { SymptomId, When } from './symptom'
import type { DiagnosisView } from './view'

/** Something in the session that speaks for a cause or against it. */
export interface Evidence {
  says: string
  /**
   * How many times likelier it is to find this with the cause than without (a Bayes factor): over 1 speaks for it, under 1 against,
   * 0 rules it out. Common practice, no source, but the figure in the words is computed.
   */
  weight: number
}

/** A way to fix a cause, before it was tried. */
export interface FixDraft {
  says: string
  changes: readonly FixChange[]
}

/** What can be wrong, as data. */
export interface Cause {
  readonly title: string
  /** How often it is the cause of all there are, as a weight (common practice, no source). */
  readonly prior: number
  /** How often it shows so, 0…1 (common practice, no source). */
  readonly symptoms: Partial<Record<SymptomId, number>>
  /** How much likelier it is where it happens then; 1 where nothing is said. */
  readonly when?: Partial<Record<When, number>>
  /** Findings that are this cause, seen in the session. */
  readonly codes?: readonly (FindingCode | TimingFindingCode)[]
  /** What checks show where this is the cause, as far as it is not as usual. What is left over is shared by the other outcomes. */
  readonly shows: Partial<Record<CheckId, Readonly<Record<string, number>>>>
  /** Which way a reading of the soundcheck would be off with it. */
  readonly readings?: 'lower' | 'higher'
  /** What the session says of it, for what is complained of. */
  readonly evidence?: (view: DiagnosisView, symptoms: readonly SymptomId[]) => readonly Evidence[]
  /** Whether the session as it is set has this cause; left out for what no session can show. */
  readonly present?: (view: DiagnosisView) => boolean
  /** Whether it is cured, where that takes more than that it is no longer present. */
  readonly cured?: (view: DiagnosisView) => boolean
  readonly fixes?: (view: DiagnosisView) => readonly FixDraft[]
  /** What a hand does; where that depends on the chain, what it does in this one. */
  readonly byHand: string
  readonly byHandIn?: (view: DiagnosisView) => string
  /** What to look at once more afterwards. */
  readonly after: string
  /** Where the fix can hurt somebody or something. */
  readonly caution?: string
}

/** Speaks for or against by a figure. */
export const says = (words: string, weight: number): Evidence => ({ says: words, weight })
