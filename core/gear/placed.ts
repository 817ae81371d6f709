import type { Settings, Stage } from '../model'

/** What every stage has once it is joined with its gear. */
export interface Placed {
  readonly id: string
  readonly settings: Settings
  /** Gains that the planner leaves alone. */
  readonly locked: readonly ('gain' | 'fader')[]
  /** Overdriven on purpose. */
  readonly driven: boolean
  /** What it gives beyond what it is set to, as readings say, dB. */
  readonly offset: number
}

const NONE: NonNullable<Stage['locked']> = []

/** A stage of the file as it stands, without its gear. */
export const placed = ({ id, settings, locked = NONE, driven = false, offset = 0 }: Stage): Placed => ({
  id,
  settings,
  locked,
  driven,
  offset,
})
