import { monitor, performer, sends } from './monitor'
import { settings } from './settings'
import { id, name } from './text'
import { z } from './z'

export const stage = z.strictObject({
  id,
  gear: id.describe('The gear that stands here.'),
  port: id.optional().describe('Which input of it, where it has several.'),
  settings: settings.default({}),
  locked: z
    .array(z.enum(['gain', 'fader']))
    .max(2)
    .optional()
    .describe('Gains that the planner leaves alone.'),
  driven: z.boolean().optional().describe('Overdriven on purpose: its clipping is no fault.'),
})
export type Stage = z.infer<typeof stage>

export const strip = z.strictObject({
  id,
  name,
  stages: z.array(stage).min(1).max(64),
  monitor: monitor.prefault({}),
  performer: performer.optional(),
  sends: sends.optional(),
})
export type Strip = z.infer<typeof strip>

/** Two strips that carry one stereo sound: set alike. */
export const pair = z.strictObject({
  left: id,
  right: id,
  monitoring: z.enum(['panned', 'mono']).default('panned').describe('How the performer hears the pair.'),
})
export type Pair = z.infer<typeof pair>
