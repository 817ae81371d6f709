import { describe, expect, it } from 'vitest'
import { potentialAcousticGain } from '#core/monitoring/acoustic-gain'
import { combOf, combResponse } from '#core/monitoring/comb'
import { exposureGrade, nioshHours, weeklyHours } from '#core/monitoring/exposure'
import { headphoneLevel, perVolt } from '#core/monitoring/headphone-level'
import { monitorSession } from '#core/monitoring/monitor-session'
import { dbu, ohms } from '#core/units'
import { example1, valid } from '../support/sessions'

describe('hearing it twice (handbook acoustics)', () => {
  it.each([
    [1, 500],
    [3, 166.7],
    [7, 71.4],
  ])('%i ms: first notch at %d Hz', (delay, notch) => {
    expect(combOf(delay, -6).firstNotch).toBeCloseTo(notch, 1)
    // There it is as deep as the other path allows.
    expect(combResponse(delay, -6, combOf(delay, -6).firstNotch)).toBeCloseTo(20 * Math.log10(1 - 10 ** -0.3), 6)
  })
  it.each([
    [-6, 9.57],
    [-12, 4.46],
    [-20, 1.74],
  ])('%i dB: ripple %d dB, whichever is the louder', (difference, ripple) => {
    expect(combOf(1, difference).ripple).toBeCloseTo(ripple, 1)
    expect(combOf(1, -difference).ripple).toBeCloseTo(ripple, 1)
  })
  it('equal levels cancel altogether and sum to 6.02 dB', () => {
    expect(combOf(1, 0).ripple).toBe(Infinity)
    expect(combResponse(1, 0, 1000)).toBeCloseTo(6.02, 2)
  })
})

describe('headphones', () => {
  it('+10 dBu from 10 Ω into 32 Ω, 98 dB/mW: 1.866 V, 108.8 mW, 118.4 dB SPL', () => {
    const { volts, milliwatts, level } = headphoneLevel(dbu(10), ohms(10), { sensitivity: 98, impedance: 32 })
    expect(volts).toBeCloseTo(1.866, 3)
    expect(milliwatts).toBeCloseTo(108.8, 1)
    expect(level).toBeCloseTo(118.4, 1)
    expect(exposureGrade(level, level)).toBe('danger')
  })
  it('98 dB/mW at 32 Ω are 112.9 dB/V', () => expect(perVolt(98, 32)).toBeCloseTo(98 + 14.95, 2))
})

describe('exposure (NIOSH 1998; WHO and ITU-T H.870 from memory)', () => {
  it('85 dBA 8 h, 94 dBA 1 h, 100 dBA 15 min', () => {
    expect([85, 94, 100].map(nioshHours)).toEqual([8, 1, 0.25])
  })
  it('80 dBA 40 h a week, 83 dBA 20 h', () => expect([80, 83].map(weeklyHours)).toEqual([40, 20]))
})

it('potential acoustic gain: 6, 4, 7, 0.3 m: 15.16 dB; two microphones 3.01 dB less (Davis and Patronis, from memory)', () => {
  const layout = {
    sourceToListener: 6,
    microphoneToLoudspeaker: 4,
    loudspeakerToListener: 7,
    sourceToMicrophone: 0.3,
    openMicrophones: 1,
  }
  expect(potentialAcousticGain(layout)).toBeCloseTo(15.16, 2)
  expect(potentialAcousticGain({ ...layout, openMicrophones: 2 })).toBeCloseTo(12.15, 2)
})

describe('what a performer hears', () => {
  const session = (monitor: object, more: object = {}) => {
    const file = example1()
    const gear = structuredClone(file.gear) as Record<string, unknown>[]
    ;(gear[2] as Record<string, unknown>).outputs = [
      { id: 'phones', type: 'headphone', specs: { fullScale: 10, impedance: 10 } },
    ]
    return valid({
      ...file,
      ...more,
      gear: [...gear, { id: 'cans', kind: 'headphones', name: 'Cans', specs: { sensitivity: 98, impedance: 32 } }],
      strips: [
        {
          ...(file.strips as object[])[0],
          monitor: { output: 'phones', headphones: 'cans', ...monitor },
          sends: { room: true },
        },
      ],
    })
  }
  const heard = (monitor: object, more: object = {}) => monitorSession(session(monitor, more))[0]
  it('example 1, fully up: 118.4 dB at full scale, so −30.48 dBFS is 87.9 dBA', () => {
    expect(heard({ volume: 0 })?.ear?.average).toBeCloseTo(118.4 - 30.48, 1)
    expect(heard({ volume: 0 })?.ear?.grade).toBe('caution')
  })
  it('no volume set: none above 85 dBA is proposed, and the one for 80 dBA is told', () => {
    const monitor = heard({})
    expect(monitor?.ear?.average).toBeLessThanOrEqual(85)
    expect(monitor?.volumeIsProposed).toBe(true)
    expect(monitor?.ear?.volumeFor(80)).toBeCloseTo(80 - 87.94, 1)
    expect(monitor?.ear?.volumeFor(110)).toBeCloseTo(85 - 87.94, 1)
  })
  it('both paths heard: the comb of their difference, and which to switch off', () => {
    const doubling = heard({ alsoHeard: -6 })?.doubling
    expect(doubling?.delayMs).toBeCloseTo(7.667 - 40 / 48, 2)
    expect(doubling?.ripple).toBeCloseTo(9.57, 1)
    expect(doubling?.switchOff).toContain('direct monitoring')
    expect(heard({ route: 'direct', alsoHeard: -6 })?.doubling?.switchOff).toContain('host')
  })
  it('the room’s send has a feedback margin from four distances', () => {
    const room = {
      ambient: 28,
      layout: { sourceToListener: 6, microphoneToLoudspeaker: 4, loudspeakerToListener: 7, wanted: 18 },
    }
    expect(heard({}, { room })?.feedback?.potential).toBeCloseTo(15.16, 2)
    expect(heard({}, { room })?.feedback?.margin).toBeLessThan(0)
  })
  it('a loudspeaker’s air time counts on both routes', () => {
    const [near, far] = [heard({}), heard({ speakerDistance: 3.432 })]
    for (const i of [0, 1])
      expect((far?.routes[i]?.milliseconds ?? 0) - (near?.routes[i]?.milliseconds ?? 0)).toBeCloseTo(10, 1)
  })
  it('effects that direct monitoring loses are said', () => {
    expect(heard({ route: 'direct', pluginFrames: 64 })?.notes.join()).toContain('not heard on the direct sound')
  })
})
