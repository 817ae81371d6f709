import { z } from './z'
import { fields, number } from './field'
import { gear } from './gear'
import { settings } from './settings'
import { room, system } from './system'
import { DEFAULT_SCHOOL, target } from './target'
import { id, name, notes } from './text'

export const SESSION_FORMAT = 'remetra.session'
export const SESSION_VERSION = 1

export const monitorFields = fields({
  pluginFrames: { label: 'Plug-in delay', unit: 'frames', min: 0, max: 1_000_000, whole: true, initial: 0, help: 'What the plug-ins on the monitored path report.' },
})

export const monitor = z.strictObject({
  route: z.enum(['software', 'direct']).default('software').describe('What the performer listens to: through the host, or inside the interface.'),
  output: id.optional().describe('Output of the strip’s interface that feeds the performer.'),
  pluginFrames: number(monitorFields.pluginFrames).default(0 as never),
})
export type Monitor = z.infer<typeof monitor>

export const stage = z.strictObject({
  id,
  gear: id.describe('The gear that stands here.'),
  port: id.optional().describe('Which input of it, where it has several.'),
  settings: settings.default({}),
  locked: z.array(z.enum(['gain', 'fader'])).max(2).optional().describe('Gains that the planner leaves alone.'),
  driven: z.boolean().optional().describe('Overdriven on purpose: its clipping is no fault.'),
})
export type Stage = z.infer<typeof stage>

export const strip = z.strictObject({
  id,
  name,
  stages: z.array(stage).min(1).max(64),
  monitor: monitor.prefault({}),
})
export type Strip = z.infer<typeof strip>

/** Two strips that carry one stereo sound: set alike. */
export const pair = z.strictObject({
  left: id,
  right: id,
  monitoring: z.enum(['panned', 'mono']).default('panned').describe('How the performer hears the pair.'),
})
export type Pair = z.infer<typeof pair>

/** The session file, version 1. */
export const session = z.strictObject({
  format: z.literal(SESSION_FORMAT),
  version: z.literal(SESSION_VERSION),
  id,
  name,
  notes: notes.default(''),
  system: system.prefault({}),
  room: room.prefault({}),
  target: target.default(DEFAULT_SCHOOL),
  gear: z.array(gear).max(500),
  strips: z.array(strip).min(1).max(200),
  pairs: z.array(pair).max(100).optional(),
})
export type Session = z.infer<typeof session>
