import { describe, expect, it } from 'vitest'
import { potentialAcousticGain } from '#core/monitoring/acoustic-gain'
import { combOf, combResponse } from '#core/monitoring/comb'
import { combWords } from '#core/diagnosis/comb-words'
import { exposureGrade, nioshHours, weeklyHours } from '#core/monitoring/exposure'
import { headphoneLevel, perVolt } from '#core/monitoring/headphone-level'
import { blendGains, together } from '#core/monitoring/mix'
import { monitorSession } from '#core/monitoring/monitor-session'
import { heardTwice } from '#core/render/heard-twice'
import { toEars } from '#core/render/to-ears'
import { sine } from '#core/signals/generate'
import { syntheticVoice } from '#core/signals/voice'
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

describe('how a doubled sound is called, and how it is played', () => {
  it('from thin to an echo, hardly audible to clearly', () => {
    expect([0.5, 2, 7, 20, 60].map((delay) => combWords(delay, 10).sound.slice(0, 11))).toEqual([
      'thin and na',
      'hollow, as ',
      'hollow: the',
      'doubled and',
      'doubled, wi',
    ])
    expect([1.74, 4.46, 9.57].map((ripple) => combWords(5, ripple).strength)).toEqual([
      'hardly audible',
      'coloured',
      'clearly audible',
    ])
  })
  it('rendered, a sine at the notch loses 6.04 dB with the other path at −6 dB, one at twice that gains 3.53', () => {
    const rate = 48_000
    const rms = (samples: Float64Array) => Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length)
    const change = (frequency: number) => {
      const tone = sine(rate, 1, frequency, -20)
      const heard = heardTwice(tone, rate, 7.3, -6).subarray(2000, 46_000)
      return 20 * Math.log10(rms(heard) / rms(tone))
    }
    const notch = combOf(7.3, -6).firstNotch
    // Handbook: 20 lg(1 ∓ a), a = 10^(−6/20).
    expect(change(notch)).toBeCloseTo(20 * Math.log10(1 - 10 ** -0.3), 1)
    expect(change(2 * notch)).toBeCloseTo(20 * Math.log10(1 + 10 ** -0.3), 1)
  })
  it('whatever comes in is played no louder than −20 dBFS and −6 dBFS peak, all by one gain, without a click', () => {
    for (const sound of [
      sine(48_000, 1, 500, 0),
      Float64Array.from({ length: 48_000 }, (_, i) => (i === 24_000 ? 1 : 0)),
    ]) {
      for (const level of [-30, -20, 40]) {
        const [[loud], [soft]] = toEars([[sound], [sound.map((x) => x / 2)]], 48_000, level) as [
          [Float64Array],
          [Float64Array],
        ]
        const peak = Math.max(...loud.map(Math.abs))
        expect(20 * Math.log10(peak)).toBeLessThanOrEqual(-6 + 1e-9)
        expect(10 * Math.log10((2 * loud.reduce((sum, x) => sum + x * x, 0)) / loud.length)).toBeLessThanOrEqual(
          Math.min(level, -20) + 1e-9,
        )
        expect(soft[20_000]).toBeCloseTo((loud[20_000] as number) / 2, 12)
        expect([loud[0], loud.at(-1)].map((x) => Math.abs(x as number))).toEqual([0, 0])
      }
    }
    expect(toEars([[new Float64Array(10)]], 48_000)[0]?.[0]).toEqual(new Float64Array(10))
  })
  it('the synthetic voice has its pitch and its formants, and is the same every time', () => {
    const rate = 16_000
    const voice = syntheticVoice(rate, 2)
    expect(Math.max(...voice.map(Math.abs))).toBeCloseTo(1, 9)
    expect(syntheticVoice(rate, 2)).toEqual(voice)
    const vowel = voice.subarray(0, Math.round(0.34 * rate))
    const size = 4096
    const power = (from: number, to: number) => {
      let sum = 0
      for (let f = from; f < to; f += rate / size) {
        let [re, im] = [0, 0]
        for (let n = 0; n < vowel.length; n++) {
          re += (vowel[n] as number) * Math.cos((2 * Math.PI * f * n) / rate)
          im += (vowel[n] as number) * Math.sin((2 * Math.PI * f * n) / rate)
        }
        sum += re * re + im * im
      }
      return 10 * Math.log10(sum / (to - from))
    }
    // The first vowel's first formant, 700 Hz, stands out of what lies between it and the third, 2600 Hz.
    expect(power(620, 780) - power(1700, 2100)).toBeGreaterThan(10)
  })
})

describe('own sound against playback (definition here)', () => {
  it('both full in the middle, −6.02 dB half way out, off at the end', () => {
    expect(blendGains(50)).toEqual({ own: 0, playback: 0 })
    expect(blendGains(75).own).toBeCloseTo(-6.02, 2)
    expect(blendGains(100)).toEqual({ own: -Infinity, playback: 0 })
    expect(blendGains(0)).toEqual({ own: 0, playback: -Infinity })
  })
  it('two equal programmes are 3.01 dB louder than one; one that is off adds nothing', () => {
    const one = { average: 70, peak: 82 }
    expect(together(one, one).average).toBeCloseTo(73.01, 2)
    expect(together(one, { average: -Infinity, peak: -Infinity })).toEqual(one)
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
      strips: [{ ...(file.strips as object[])[0], monitor: { output: 'phones', headphones: 'cans', ...monitor } }],
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
    expect(monitor?.ear?.fullyUp).toBeCloseTo(87.94, 1)
  })
  it('what is out of reach is said to be, not proposed as fully up', () => {
    // Playback alone at −60 dBFS: 118.4 − 60 = 58.4 dBA fully up.
    const monitor = heard({ blend: 100, playback: -60 })
    expect(monitor?.ear?.fullyUp).toBeCloseTo(58.4, 1)
    expect(monitor?.ear?.volumeFor(70)).toBeNull()
    expect(monitor?.ear?.volumeFor(50)).toBeCloseTo(-8.4, 1)
  })
  it('with a mix control both are counted: −30.48 and −20 dBFS at 118.4 dB full scale', () => {
    const monitor = heard({ blend: 50, volume: -20 })
    expect(monitor?.mix?.own).toBeCloseTo(118.4 - 30.48 - 20, 1)
    expect(monitor?.mix?.playback).toBeCloseTo(118.4 - 20 - 20, 1)
    expect(monitor?.ear?.average).toBeCloseTo(78.4 + 10 * Math.log10(1 + 10 ** (-10.48 / 10)), 1)
    expect(monitor?.heard.map(({ what }) => what)).toEqual(['own-host', 'playback'])
  })
  it('lists both ways where both are heard, the other one by its level; and the side', () => {
    const monitor = heard({ volume: -20, alsoHeard: -6, side: 'left' })
    expect(monitor?.heard.map(({ what, late }) => [what, late?.milliseconds.toFixed(2)])).toEqual([
      ['own-direct', '1.71'],
      ['own-host', '8.54'],
    ])
    const [direct, host] = monitor?.heard ?? []
    expect((direct?.level ?? 0) - (host?.level ?? 0)).toBeCloseTo(-6, 9)
    expect([monitor?.ears, monitor?.notes.join(' ')]).toEqual(['left', expect.stringContaining('in the middle')])
  })
  it('both paths heard: the comb of their difference, and which to switch off', () => {
    const doubling = heard({ alsoHeard: -6 })?.doubling
    expect(doubling?.delayMs).toBeCloseTo(7.667 - 40 / 48, 2)
    expect(doubling?.ripple).toBeCloseTo(9.57, 1)
    expect(doubling?.switchOff).toContain('direct monitoring')
    expect(heard({ route: 'direct', alsoHeard: -6 })?.doubling?.switchOff).toContain('host')
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
