import type { Session } from '#core/session'
import { readSession } from '#core/files'

type Placed = { gear: Record<string, unknown>; settings?: object; port?: string; driven?: boolean; locked?: string[] }

/** A session with one strip of the given boxes in a row. */
export function chain(stages: Placed[], more: object = {}): Session {
  const reading = readSession({
    format: 'remetra.session',
    version: 1,
    id: 'chain',
    name: 'Chain',
    ...more,
    gear: stages.map(({ gear }, i) => ({ id: `g${i}`, name: `Box ${i}`, ...gear })),
    strips: [
      {
        id: 's',
        name: 'Strip',
        stages: stages.map(({ gear: _, ...rest }, i) => ({ id: `s${i}`, gear: `g${i}`, ...rest })),
      },
    ],
  })
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
  return reading.session
}

export const line = (specs: object = {}, more: object = {}) => ({
  kind: 'electric-source',
  output: 'line',
  ...more,
  specs: { level: 0, crest: 12, surge: 3, impedance: 100, noise: -100, ...specs },
})
export const preamp = (specs: object = {}, more: object = {}) => ({
  kind: 'preamp',
  phantom: true,
  ...more,
  specs: {
    gainMin: 0,
    gainMax: 60,
    maxOutput: 24,
    ein: -127,
    outputNoise: -95,
    inputImpedance: 2000,
    outputImpedance: 100,
    ...specs,
  },
})
export const interfaceWith = (...inputs: object[]) => ({
  kind: 'interface',
  inputs: inputs.map((each, i) => ({ id: `in${i + 1}`, ...each })),
})
export const lineInput = (specs: object = {}, more: object = {}) => ({
  type: 'line',
  ...more,
  specs: { gainMin: 0, gainMax: 20, fullScale: 18, dynamicRange: 112, impedance: 20_000, ...specs },
})
export const micInput = (specs: object = {}, more: object = {}) => ({
  type: 'mic',
  phantom: true,
  ...more,
  specs: { gainMin: 0, gainMax: 60, fullScale: 15, ein: -127, dynamicRange: 110, impedance: 2400, ...specs },
})
export const voice = (specs: object = {}) => ({
  kind: 'sound-source',
  specs: { level: 70, distance: 1, crest: 14, surge: 6, ...specs },
})
export const microphone = (specs: object = {}, more: object = {}) => ({
  kind: 'microphone',
  principle: 'moving-coil',
  phantom: 'harmless',
  ...more,
  specs: { sensitivity: 2, impedance: 200, maxSpl: 150, ...specs },
})
/** A microphone with a converter of its own. */
export const usbMicrophone = (specs: object = {}) => ({
  kind: 'microphone',
  principle: 'condenser',
  phantom: 'harmless',
  specs: { digitalSensitivity: -38, gainMin: 0, gainMax: 36, selfNoise: 18, maxSpl: 120, ...specs },
})
