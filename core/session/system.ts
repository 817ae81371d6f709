import { z } from './z'
import { fields, number, numbers } from './field'

const systemFields = fields({
  sampleRate: { label: 'Sample rate', unit: 'Hz', min: 8000, max: 768_000, whole: true, initial: 48_000, help: 'The same in every device and program.' },
  bufferFrames: { label: 'Buffer', unit: 'frames', min: 8, max: 16_384, whole: true, initial: 128, help: 'Frames per buffer, as set in the host or the driver.' },
})
export const sampleRateField = systemFields.sampleRate
export const bufferFramesField = systemFields.bufferFrames

/** Word lengths of the recorded file. 32 stands for floating point, whose own noise is far below any converter's. */
export const bitDepths = [16, 24, 32] as const

export const system = z.strictObject({
  sampleRate: number(sampleRateField).default(sampleRateField.initial as never),
  bitDepth: z.literal([...bitDepths]).default(24),
  bufferFrames: number(bufferFramesField).default(bufferFramesField.initial as never),
})
export type System = z.infer<typeof system>

export const roomFields = fields({
  ambient: { label: 'Room noise', unit: 'dBA', min: -10, max: 130, optional: true, help: 'Of the empty room, A-weighted. Left out: the floor is that of the electronics only.' },
  temperature: { label: 'Temperature', unit: '°C', min: -40, max: 60, optional: true, help: 'For the speed of sound; 20 °C where it is left out.' },
})
export const room = numbers(roomFields)
export type Room = z.infer<typeof room>
