import { described, z } from './z'
import { fields, number, numberOrInitial, numbers, numbersAnd } from './field'
import { measurements } from './measurement'
import { id } from './text'

const systemFields = fields({
  sampleRate: {
    label: 'Sample rate',
    unit: 'Hz',
    min: 8000,
    max: 768_000,
    whole: true,
    initial: 48_000,
    help: 'The same in every device and program.',
  },
  bufferFrames: {
    label: 'Buffer',
    unit: 'frames',
    min: 8,
    max: 16_384,
    whole: true,
    initial: 128,
    help: 'Frames per buffer, as set in the host or the driver.',
  },
})
export const sampleRateField = systemFields.sampleRate
export const bufferFramesField = systemFields.bufferFrames

/** Bit depths of the recorded file. 32 stands for floating point, whose own noise is far below any converter's. */
export const bitDepths = [16, 24, 32] as const

const measuredFields = fields({
  milliseconds: {
    label: 'Round trip',
    unit: 'ms',
    min: 0.05,
    max: 2000,
    help: 'Measured by a loopback cable, output to input.',
  },
  inMs: { label: 'Reported in', unit: 'ms', min: 0, max: 2000, help: 'What the driver says of its input side.' },
  outMs: { label: 'Reported out', unit: 'ms', min: 0, max: 2000, help: 'What the driver says of its output side.' },
  percent: {
    label: 'Load',
    unit: '%',
    min: 0.1,
    max: 400,
    help: 'As the host’s meter reads, with the session playing.',
  },
  minutes: { label: 'Tried for', unit: 'min', min: 0, max: 10_000, initial: 1, help: 'How long it ran.' },
  dropouts: {
    label: 'Dropouts',
    unit: 'times',
    min: 0,
    max: 1_000_000,
    whole: true,
    help: 'Crackles, clicks and gaps heard or counted.',
  },
  sharedPeriod: {
    label: 'Engine period',
    unit: 'ms',
    min: 0,
    max: 500,
    optional: true,
    help: 'Of a shared driver’s mixer, each way.',
  },
  takeMinutes: {
    label: 'To record',
    unit: 'min',
    min: 0,
    max: 100_000,
    optional: true,
    help: 'Length of all takes of the session.',
  },
})
export const timingFields = measuredFields

const cell = { sampleRate: number(sampleRateField), bufferFrames: number(bufferFramesField) }
const remark = z.optional(z.string().check(z.maxLength(300)))
const day = z.optional(z.iso.date())

/** How the driver talks to the machine. */
export const drivers = ['exclusive', 'class', 'shared'] as const

export const system = z.strictObject({
  sampleRate: numberOrInitial(sampleRateField),
  bitDepth: z._default(z.literal([...bitDepths]), 24),
  bufferFrames: numberOrInitial(bufferFramesField),
  driver: described('Exclusive low-latency, the class driver, or the shared mixer path.', z.optional(z.enum(drivers))),
  sharedPeriod: z.optional(number(measuredFields.sharedPeriod)),
  takeMinutes: z.optional(number(measuredFields.takeMinutes)),
  devices: described(
    'Other devices and programs with a rate of their own.',
    z.optional(
      z
        .array(
          z.strictObject({
            name: z.string().check(z.trim(), z.minLength(1), z.maxLength(200)),
            sampleRate: number(sampleRateField),
          }),
        )
        .check(z.maxLength(64)),
    ),
  ),
  roundTrips: described(
    'Measured by loopback.',
    z.optional(
      z
        .array(
          z.strictObject({
            ...cell,
            milliseconds: number(measuredFields.milliseconds),
            unit: described('Of which interface; left out: of the one whose driver the host talks to.', z.optional(id)),
            on: day,
            note: remark,
          }),
        )
        .check(z.maxLength(500)),
    ),
  ),
  reported: described(
    'As the driver says.',
    z.optional(
      z
        .array(z.strictObject({ ...cell, inMs: number(measuredFields.inMs), outMs: number(measuredFields.outMs) }))
        .check(z.maxLength(500)),
    ),
  ),
  loads: described(
    'From the host’s load meter.',
    z.optional(z.array(z.strictObject({ ...cell, percent: number(measuredFields.percent) })).check(z.maxLength(500))),
  ),
  trials: described(
    'What was tried, and whether it crackled.',
    z.optional(
      z
        .array(
          z.strictObject({
            ...cell,
            minutes: numberOrInitial(measuredFields.minutes),
            dropouts: number(measuredFields.dropouts),
            note: remark,
          }),
        )
        .check(z.maxLength(500)),
    ),
  ),
})
export type System = z.infer<typeof system>
export type RoundTrip = NonNullable<System['roundTrips']>[number]
export type LoadReading = NonNullable<System['loads']>[number]
export type Trial = NonNullable<System['trials']>[number]

export const roomFields = fields({
  ambient: {
    label: 'Room noise',
    unit: 'dBA',
    min: -10,
    max: 130,
    optional: true,
    help: 'Of the empty room, A-weighted. Left out: the floor is that of the electronics only.',
    missing: 'Without it the floor is that of the electronics alone.',
  },
  temperature: {
    label: 'Temperature',
    unit: '°C',
    min: -40,
    max: 60,
    optional: true,
    help: 'For the speed of sound; 20 °C where it is left out.',
  },
})
export const layoutFields = fields({
  sourceToListener: {
    label: 'Source to listener',
    unit: 'm',
    min: 0.1,
    max: 500,
    help: 'D₀, to the farthest who must hear it.',
  },
  microphoneToLoudspeaker: {
    label: 'Microphone to loudspeaker',
    unit: 'm',
    min: 0.1,
    max: 500,
    help: 'D₁, the nearest loudspeaker.',
  },
  loudspeakerToListener: {
    label: 'Loudspeaker to listener',
    unit: 'm',
    min: 0.1,
    max: 500,
    help: 'D₂, to the farthest.',
  },
  wanted: {
    label: 'Gain wanted',
    unit: 'dB',
    min: 0,
    max: 60,
    initial: 6,
    help: 'How much louder than by itself the source is to arrive at the listener.',
  },
})
export const room = numbersAnd(roomFields, {
  measured: described(
    'What of the room was measured; it wins over what was assumed.',
    z.optional(measurements(roomFields)),
  ),
  layout: described('A room with loudspeakers: distances for the feedback margin.', z.optional(numbers(layoutFields))),
})
export type Room = z.infer<typeof room>

/** The room's figures in force: a measured one wins. */
export const roomInForce = (room: Room): Room => {
  if (!room.measured) return room
  const { ambient, temperature } = room.measured
  return { ...room, ...(ambient && { ambient: ambient.value }), ...(temperature && { temperature: temperature.value }) }
}
