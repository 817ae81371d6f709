import type { Session } from '#core/session'
import { readSession } from '#core/files'

/** A session file as one writes it, before reading. */
export type SessionFile = Record<string, unknown>

/** Latency as a driver prints it: 88 frames and half a millisecond besides one buffer each way. */
export const printedLatency = {
  converterIn: 20,
  converterOut: 20,
  safetyIn: 24,
  safetyOut: 24,
  buffersIn: 1,
  buffersOut: 1,
  fixed: 0.5,
}

/** Worked example 1 of the reference figures: a voice at 0.30 m, a condenser, a live room. */
export const example1 = (): SessionFile => ({
  format: 'remetra.session',
  version: 1,
  id: 'example-1',
  name: 'Example 1',
  system: { sampleRate: 48000, bitDepth: 24, bufferFrames: 128 },
  room: { ambient: 28 },
  gear: [
    { id: 'voice', kind: 'sound-source', name: 'Voice', specs: { level: 68, distance: 1, crest: 14, surge: 6 } },
    {
      id: 'mic',
      kind: 'microphone',
      name: 'Condenser',
      principle: 'condenser',
      phantom: 'needed',
      specs: { sensitivity: 15, impedance: 200, selfNoise: 14, maxSpl: 134 },
    },
    { id: 'unit', kind: 'interface', name: 'Unit', inputs: [input('mic1')], latency: printedLatency },
  ],
  strips: [strip('narrator', 0.3, 35, true)],
})

/** Worked example 2: the same voice at 0.10 m into a moving-coil microphone, the room left out. */
export const example2 = (): SessionFile => ({
  ...example1(),
  id: 'example-2',
  name: 'Example 2',
  room: {},
  gear: (example1().gear as { id: string }[]).map((gear) =>
    gear.id === 'mic'
      ? {
          id: 'mic',
          kind: 'microphone',
          name: 'Moving coil',
          principle: 'moving-coil',
          phantom: 'harmless',
          specs: { sensitivity: 1.8, impedance: 300, maxSpl: 150 },
        }
      : gear,
  ),
  strips: [strip('narrator', 0.1, 52, false)],
})

export const input = (id: string, more: object = {}, specs: object = {}) => ({
  id,
  type: 'mic',
  phantom: true,
  ...more,
  specs: {
    gainMin: 0,
    gainMax: 60,
    gainStep: 1,
    fullScale: 15,
    ein: -127,
    einWeighting: 'A',
    dynamicRange: 110,
    impedance: 2400,
    pad: 20,
    ...specs,
  },
})

export const strip = (id: string, distance: number, gain: number, phantom: boolean, port = 'mic1', mic = 'mic') => ({
  id,
  name: id,
  stages: [
    { id: `${id}-source`, gear: 'voice', settings: { distance } },
    { id: `${id}-mic`, gear: mic },
    { id: `${id}-input`, gear: 'unit', port, settings: { gain, phantom } },
  ],
})

/** Reads a file that is meant to be valid. */
export function valid(file: unknown): Session {
  const reading = readSession(file)
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults, null, 1))
  return reading.session
}

/** A copy of a file with the value at a path replaced; `undefined` takes it out. */
export function withAt(file: SessionFile, path: (string | number)[], value: unknown): SessionFile {
  const copy = structuredClone(file)
  const last = path.at(-1) as string
  const owner = path.slice(0, -1).reduce((node: never, part) => node[part], copy as never) as Record<string, unknown>
  if (value === undefined) Reflect.deleteProperty(owner, last)
  else owner[last] = value
  return copy
}
