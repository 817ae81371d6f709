import type { Shortcut } from '~/composables/use-shortcuts'

/** Keys that a control or a place takes for itself: told here, run there. */
export const listedKeys: readonly Omit<Shortcut, 'run'>[] = [
  { keys: ['Enter'], does: 'Take what is typed; in Insert, the first hit' },
  { keys: ['↑', '↓'], does: 'Gain, a step; Page keys 6 dB, Home and End to the ends', at: 'Path' },
  { keys: ['Alt+←', 'Alt+→'], does: 'Move the stage that has the focus', at: 'Path' },
  { keys: ['Insert', 'Delete'], does: 'Put a stage behind the one that has the focus; take it out', at: 'Path' },
  { keys: ['←', '→', '↑', '↓'], does: 'In the table of buffers: to another cell; Enter sets it', at: 'Timing' },
  { keys: ['←', '→', '↑', '↓'], does: 'To another cell; Enter goes into its field, Esc comes back', at: 'Mix' },
  { keys: ['Enter', 'Space'], does: 'Tick the step in hand; take the reading', at: 'Soundcheck' },
  { keys: ['J', 'K', 'R'], does: 'Next step, previous step; begin the passage anew', at: 'Soundcheck' },
  { keys: ['Y', 'D', 'X'], does: 'The last take: keep, maybe, no', at: 'Log' },
  { keys: ['L', 'B'], does: 'Begin or end a take; make a mark', at: 'Log' },
  { keys: ['Space', 'X'], does: 'Listen, or stop; the next exercise', at: 'Trainer' },
  { keys: ['C', 'Z'], does: 'Find a symptom; take the last answer back', at: 'Faults' },
  { keys: ['Esc'], does: 'Take back a drag or what is being typed; close a dialog' },
]
