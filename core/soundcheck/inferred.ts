import type { SettingChange } from '../edits'
import type { Cause } from './cause'

/** What an input has to do with a reading: how much of the difference it likely makes, and how sure that is, dB. */
export interface Explained {
  input: string
  name: string
  cause: Cause
  shift: number
  /** Standard uncertainty of that part, once the readings are known. */
  u: number
}

/** A reading that another one, or the figures themselves, do not allow. */
export interface Contradiction {
  /** The other reading; `null` where it is the figures. */
  reading: string | null
  /** How many of its standard uncertainties it lies beside what it should read. */
  z: number
}

export interface InferredReading {
  id: string
  /** What was read beyond what was expected, dB; `null` where no meter there can have read it. */
  difference: number | null
  /** The greatest part first; empty once it was kept. */
  explains: Explained[]
  contradicts: Contradiction | null
  /** So far off that something is wrong: nothing is concluded from it, and nothing turned, until that is cleared. */
  fault: boolean
  /** What to turn now. */
  changes: SettingChange[]
  /** What is read there then, in the target’s terms; `null` where nothing is to be turned. */
  then: number | null
  /** That it is at least so much: the reading told a limit. */
  thenAtLeast: boolean
  /** That the take clips with the gains as they are, by what is known now, 0…1; `null` where no ceiling is known. */
  chance: number | null
  says: string
}
