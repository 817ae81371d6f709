import { readSession } from '../files/read'
import type { Session } from '../session/session'
import { SESSION_FORMAT, SESSION_VERSION } from '../session/session'

/** What an interface usually offers, and how long it takes (common practice, no source). */
export const usualTiming = {
  sampleRates: [44_100, 48_000, 96_000],
  bufferSizes: [32, 64, 128, 256, 512, 1024],
  latency: { converterIn: 20, converterOut: 20, safetyIn: 24, safetyOut: 24, buffersIn: 1, buffersOut: 1, fixed: 0.5 },
}

/**
 * A session to start from: one source, one microphone, one interface with two inputs, each with the middle of what is
 * usual for its kind (common practice, no source), to be overwritten with one's own figures.
 */
export function blankSession(id: string, name: string): Session {
  const input = {
    type: 'mic',
    phantom: true,
    phantomBank: 'A',
    specs: {
      gainMin: 0,
      gainMax: 60,
      gainStep: 1,
      fullScale: 12,
      ein: -127,
      dynamicRange: 110,
      impedance: 2000,
      pad: 0,
    },
  }
  const reading = readSession({
    format: SESSION_FORMAT,
    version: SESSION_VERSION,
    id,
    name,
    gear: [
      { id: 'source', kind: 'sound-source', name: 'My source', specs: { level: 70, distance: 1, crest: 14, surge: 6 } },
      {
        id: 'microphone',
        kind: 'microphone',
        name: 'My microphone',
        principle: 'condenser',
        phantom: 'needed',
        specs: { sensitivity: 12, impedance: 150, selfNoise: 14, maxSpl: 134 },
      },
      {
        id: 'interface',
        kind: 'interface',
        name: 'My interface',
        inputs: [
          { id: 'in1', ...input },
          { id: 'in2', ...input },
        ],
        outputs: [{ id: 'phones', type: 'headphone', specs: { fullScale: 10, impedance: 10 } }],
        ...usualTiming,
      },
    ],
    strips: [
      {
        id: 'strip-1',
        name: 'Strip 1',
        stages: [
          { id: 's1', gear: 'source', settings: { distance: 0.5 } },
          { id: 's2', gear: 'microphone' },
          { id: 's3', gear: 'interface', port: 'in1', settings: { gain: 30, phantom: true } },
        ],
        monitor: { output: 'phones' },
      },
    ],
  })
  if (!reading.ok) throw new Error(`The blank session is faulty: ${reading.faults[0]?.message}`)
  return reading.session
}
