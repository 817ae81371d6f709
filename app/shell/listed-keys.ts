import type { Shortcut } from '~/composables/use-shortcuts'

/** Keys that a control or a place takes for itself: told here, run there. */
export const listedKeys: readonly Omit<Shortcut, 'run'>[] = [
  { keys: ['Enter'], does: 'Enter what is typed; in Insert, the first match' },
  { keys: ['↑', '↓'], does: 'Gain, a step; Page keys 6 dB, Home and End to the ends', at: 'Path' },
  { keys: ['Alt+←', 'Alt+→'], does: 'Move the focused stage', at: 'Path' },
  { keys: ['Insert', 'Delete'], does: 'Insert a stage behind the focused one; remove it', at: 'Path' },
  { keys: ['←', '→', '↑', '↓'], does: 'In the table of buffers: to another cell; Enter sets it', at: 'Timing' },
  { keys: ['←', '→', '↑', '↓'], does: 'To another cell; Enter opens its field, Esc leaves it', at: 'Mix' },
  { keys: ['Enter', 'Space'], does: 'Tick the current step; take the reading', at: 'Soundcheck' },
  { keys: ['J', 'K', 'R'], does: 'Next step, previous step; restart the passage', at: 'Soundcheck' },
  {
    keys: ['L', 'Enter', 'Space', 'R'],
    does: 'All inputs; turn what is offered, take all readings, restart the peaks',
    at: 'Soundcheck',
  },
  { keys: ['Y', 'D', 'X'], does: 'The last take: keep, maybe, no', at: 'Log' },
  { keys: ['L', 'B'], does: 'Start or end a take; add a mark', at: 'Log' },
  { keys: ['Space', 'X'], does: 'Listen, or stop; the next exercise', at: 'Trainer' },
  { keys: ['C', 'Z'], does: 'Find a symptom; undo the last answer', at: 'Faults' },
  { keys: ['Esc'], does: 'Undo a drag or typing; close a dialog' },
]
