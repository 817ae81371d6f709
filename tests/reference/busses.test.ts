import { describe, expect, it } from 'vitest'
import { amplifierSensitivity, powerLevel } from '#core/gear/amplifier/chain'
import type { Signal } from '#core/chain/signal'
import { copied } from '#core/chain/signal'
import { sumSignals } from '#core/chain/sum'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { estimatedLoudness } from '#core/evaluation/stream'
import { potentialAcousticGain } from '#core/monitoring/acoustic-gain'
import { ohms } from '#core/units'
import { arriving } from '../support/arriving'
import { twoMixes } from '../support/desk'
import { seeded } from '#core/numeric/random'
import { valid } from '../support/sessions'

const sumOf = (...signals: Signal[]) => sumSignals({ id: 'bus' }, signals).sum

describe('strips that meet (own simulation; adding levels: handbook acoustics)', () => {
  it('two of −20 average, −9 peak: −16.99, likely −6.79 by (b), bound −2.98', () => {
    const sum = sumOf(arriving('a', -20, -9), arriving('b', -20, -9))
    expect(sum.average).toBeCloseTo(-16.99, 2)
    expect(sum.likely).toBeCloseTo(-6.79, 2)
    expect(sum.bound).toBeCloseTo(-2.98, 2)
  })
  it('three of −20/−9, −26/−12, −30/−20: −18.69, likely −8.03 by (a), bound −3.02', () => {
    const sum = sumOf(arriving('a', -20, -9), arriving('b', -26, -12), arriving('c', -30, -20))
    expect(sum.average).toBeCloseTo(-18.69, 2)
    expect(sum.likely).toBeCloseTo(-8.03, 2)
    expect(sum.bound).toBeCloseTo(-3.02, 2)
  })
  it('one sound on two strips: +6.02 dB, average and peak', () => {
    const sum = sumOf(arriving('a', -20, -9, 0, 'one'), arriving('b', -20, -9, 0, 'one'))
    expect(sum.average).toBeCloseTo(-13.98, 2)
    expect(sum.likely).toBeCloseTo(-2.98, 2)
    expect(sum.bound).toBeCloseTo(-2.98, 2)
  })
  it('one strip alone is what it is', () => {
    const sum = sumOf(arriving('a', -20, -17, 4))
    expect([sum.average, sum.likely, sum.bound, sum.surge].map((each) => each.toFixed(2))).toEqual([
      '-20.00',
      '-17.00',
      '-17.00',
      '-13.00',
    ])
  })
  it('one strip at a time surges, the worst: not the sum of both', () => {
    const sum = sumOf(arriving('a', -20, -9, 6), arriving('b', -26, -15, 10))
    // By hand: a surging, −14/−3 with b at −26/−15: 20 lg(10^(−3/20) + 10^((−26 − 3.01)/20)) = −2.58.
    expect(sum.surges).toBe('a')
    expect(sum.surge).toBeCloseTo(-2.58, 2)
  })
})

describe('what each brings to a sum, by hand', () => {
  const noisy = (signal: Signal, level: number, stage = signal.strip): Signal => ({
    ...signal,
    noise: [{ strip: signal.strip, stage, device: stage, name: 'preamp', below: level - signal.shift }],
    noisePower: 10 ** ((level - signal.shift) / 10),
  })
  it('shares of the powers, the loudest first; of the noise likewise', () => {
    // 10^−3, 10^−2.6 and 10^−2 of 0.0135119; noises −80, −86 and −70 dB: 10^−8, 10^−8.6 and 10^−7 of 1.12512 · 10^−7.
    const { brought, noise } = sumOf(
      noisy(arriving('c', -30, -20), -80),
      noisy(arriving('b', -26, -12), -86),
      noisy(arriving('a', -20, -9), -70),
    )
    expect(brought.map(({ strip }) => strip)).toEqual(['a', 'b', 'c'])
    expect(brought.map(({ share }) => share.toFixed(4))).toEqual(['0.7401', '0.1859', '0.0740'])
    expect(brought.map(({ noiseShare }) => noiseShare.toFixed(4))).toEqual(['0.8888', '0.0223', '0.0889'])
    expect(brought.map((each) => each.noise?.toFixed(2))).toEqual(['-70.00', '-86.00', '-80.00'])
    expect(noise).toBeCloseTo(-69.49, 2)
  })
  it('who makes no noise has no part of it, and nobody where nobody does', () => {
    const { brought } = sumOf(arriving('a', -20, -9), noisy(arriving('b', -26, -12), -80))
    expect(brought.map((each) => [each.noise, each.noiseShare])).toEqual([
      [null, 0],
      [expect.closeTo(-80, 9), 1],
    ])
    const silent = sumOf(arriving('a', -20, -9))
    expect([silent.noise, silent.brought[0]?.noiseShare]).toEqual([null, 0])
  })
  it('a surge raises the average with the peak: by 6 dB, three of −20/−12, −26/−12 and −30/−20 tend to −3.43', () => {
    // (10^−1.4 + 10^−2.6 + 10^−3) = 0.0433226, −13.63 dB, and 10.2 over it; the surging one alone: −5.30.
    const sum = sumOf(arriving('a', -20, -12, 6), arriving('b', -26, -12), arriving('c', -30, -20))
    expect(sum.surge).toBeCloseTo(-3.43, 2)
    expect(sum.surges).toBe('a')
  })
  it('where nobody surges the first is named, and the surge is the likely peak', () => {
    const sum = sumOf(arriving('a', -20, -9), arriving('b', -20, -9))
    expect([sum.surges, sum.surge]).toEqual(['a', sum.likely])
  })
  it('a sound that comes by a group and by itself: in amplitude with itself, in power with the others', () => {
    // In the group −20 and −26 dB make −19.03. With the first once more: (0.1 + 0.1)² + 10^−2.6 = 0.0425119.
    const group = sumSignals({ id: 'group' }, [arriving('a', -20, -9), arriving('b', -26, -12)]).signal
    expect(group.average).toBeCloseTo(-19.03, 2)
    expect(group.origins.map(({ average }) => average.toFixed(2))).toEqual(['0.97', '6.97'])
    expect(sumOf(group, arriving('a', -20, -9)).average).toBeCloseTo(-13.71, 2)
    // All three sounds twice, each with itself: +6.02 dB.
    const other = sumSignals({ id: 'other' }, [arriving('c', -20, -9)]).signal
    expect(
      sumOf(group, other, arriving('a', -20, -9), arriving('b', -26, -12), arriving('c', -20, -9)).average,
    ).toBeCloseTo(10 * Math.log10(4 * (0.01 + 10 ** -2.6 + 0.01)), 9)
  })
  it('one noise that comes on two ways is one: 6.02 dB up, beside another in power', () => {
    // (2 · 10^−4)² + 10^−8 = 5 · 10^−8.
    const one = (strip: string, stage: string) => noisy(arriving(strip, -20, -9, 0, 'one'), -80, stage)
    expect(sumOf(one('a', 'x'), one('b', 'x')).noise).toBeCloseTo(-73.98, 2)
    expect(sumOf(one('a', 'x'), one('b', 'x'), one('c', 'y')).noise).toBeCloseTo(-73.01, 2)
  })
})

/** Values from the trade's reference figures, worked out with the rules above. */
describe('one sound on several ways, and sounds that come in turn', () => {
  const direct = (name: string) => arriving(name, -30, -19, 0, name)
  const names = ['a', 'b', 'c', 'd']
  const lowered = (signal: Signal, by: number): Signal => copied(signal, -by)

  it('four of −30/−19, each direct and by an effects bus 12 dB lower: −22.03, likely −11.83, bound −5.01', () => {
    const effects = sumSignals({ id: 'effects' }, names.map(direct)).signal
    const { sum, signal } = sumSignals({ id: 'master' }, [...names.map(direct), lowered(effects, 12)])
    expect(sum.average).toBeCloseTo(-22.03, 2)
    expect(sum.likely).toBeCloseTo(-11.83, 2)
    expect(sum.bound).toBeCloseTo(-5.01, 2)
    // Each sound is 1.95 dB over its own −30 dB.
    expect(signal.average - (signal.origins[0]?.average ?? 0)).toBeCloseTo(-28.05, 2)
  })
  it('the highest possible peak goes on by the group: eight of −30/−17 have +1.06 there and at the master', () => {
    const eight = Array.from({ length: 8 }, (_, i) => arriving(`s${i}`, -30, -17))
    const group = sumSignals({ id: 'group' }, eight)
    const master = sumSignals({ id: 'master' }, [group.signal])
    expect(group.sum.bound).toBeCloseTo(1.06, 2)
    expect(master.sum.bound).toBeCloseTo(1.06, 2)
    expect(master.sum.likely).toBeCloseTo(group.sum.likely, 9)
  })
  it('four equal ones: all at once +6.02 dB, in turn 0, two at once +3.01', () => {
    const at = (together?: 'all' | 'in-turn' | number) => sumSignals({ id: 'panel', together }, names.map(direct)).sum
    expect(at().average).toBeCloseTo(-30 + 6.02, 2)
    expect(at('all').average).toBeCloseTo(-30 + 6.02, 2)
    expect(at('in-turn').average).toBeCloseTo(-30, 9)
    expect(at('in-turn').likely).toBeCloseTo(-19, 9)
    expect(at('in-turn').bound).toBeCloseTo(-19, 9)
    expect(at(2).average).toBeCloseTo(-30 + 3.01, 2)
  })
  it('who is silent on a panel leaves its noise: the loudest peak with the RMS of the noise', () => {
    const noisy = (name: string): Signal => ({
      ...direct(name),
      noise: [{ strip: name, stage: name, device: name, name: 'room', below: -40 }],
      noisePower: 1e-4,
    })
    const { sum } = sumSignals({ id: 'panel', together: 'in-turn' }, names.map(noisy))
    // Four noises of −40 dB: −33.98. 20 lg(10^(−19/20) + 10^((−33.98 − 3.01)/20)) = −17.97.
    expect(sum.noise).toBeCloseTo(-33.98, 2)
    expect(sum.likely).toBeCloseTo(-17.97, 2)
  })
})

describe('against sounds that were made and added up', () => {
  const RATE = 8000
  const SECONDS = 30
  /** Noise in syllables of 50 to 250 ms with pauses between, at a level of its own: peaks about 11 dB over its average, as of speech. */
  function speechLike(next: () => number): Float64Array {
    const samples = new Float64Array(RATE * SECONDS)
    const gain = 0.05 + 0.1 * next()
    for (let i = 0; i < samples.length;) {
      const length = Math.floor(RATE * (0.05 + 0.2 * next()))
      const loud = next() < 0.1 ? 0 : (0.5 + 0.5 * next()) * gain
      for (let k = 0; k < length && i < samples.length; k++, i++) {
        const normal = Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next())
        samples[i] = loud * Math.sin((Math.PI * k) / length) * Math.max(-3, Math.min(3, normal))
      }
    }
    return samples
  }
  /** AES17: a full-scale sine reads 0 on both. */
  const averageOf = (samples: Float64Array) =>
    10 * Math.log10((2 * samples.reduce((sum, each) => sum + each * each, 0)) / samples.length)
  const peakOf = (samples: Float64Array) =>
    20 * Math.log10(samples.reduce((most, each) => Math.max(most, Math.abs(each)), 0))

  it.each([2, 3, 8, 16])(
    '%i unrelated ones: average within 0.3 dB, likely peak within 2.5 dB, never over the bound',
    (count) => {
      for (const seed of [1, 2, 3]) {
        const next = seeded(4711 + 100 * count + seed)
        const sounds = Array.from({ length: count }, () => speechLike(next))
        const together = new Float64Array(RATE * SECONDS)
        for (const sound of sounds)
          for (let i = 0; i < together.length; i++) together[i] = (together[i] as number) + (sound[i] as number)
        const sum = sumOf(...sounds.map((sound, i) => arriving(`s${i}`, averageOf(sound), peakOf(sound))))
        const why = `seed ${seed}`
        expect(Math.abs(sum.average - averageOf(together)), why).toBeLessThan(0.3)
        expect(Math.abs(sum.likely - peakOf(together)), why).toBeLessThan(2.5)
        expect(peakOf(together), why).toBeLessThanOrEqual(sum.bound)
      }
    },
  )
  it.each([[[0, -12]], [[0, -6, -12]], [[-3, 0, -20]]])(
    'sounds that come direct and over an effects bus at %j dB: likely peak within 2 dB on the average of ten draws, never over the bound',
    (sends) => {
      let beside = 0
      for (let seed = 1; seed <= 10; seed++) {
        const next = seeded(815 + 100 * sends.length + seed)
        const sounds = sends.map(() => speechLike(next))
        const together = new Float64Array(RATE * SECONDS)
        sounds.forEach((sound, s) => {
          const both = 1 + 10 ** ((sends[s] as number) / 20)
          for (let i = 0; i < together.length; i++) together[i] = (together[i] as number) + both * (sound[i] as number)
        })
        const levels = sounds.map((sound) => [averageOf(sound), peakOf(sound)] as const)
        const direct = levels.map(([average, peak], i) => arriving(`s${i}`, average, peak))
        const sent = levels.map(([average, peak], i) =>
          arriving(`s${i}`, average + (sends[i] as number), peak + (sends[i] as number)),
        )
        const sum = sumOf(...direct, sumSignals({ id: 'effects' }, sent).signal)
        expect(Math.abs(sum.average - averageOf(together)), `seed ${seed}`).toBeLessThan(0.3)
        expect(peakOf(together), `seed ${seed}`).toBeLessThanOrEqual(sum.bound + 1e-9)
        beside += (sum.likely - peakOf(together)) / 10
      }
      expect(Math.abs(beside)).toBeLessThan(2)
    },
  )
})

describe('loudspeakers and streams', () => {
  it('200 W into 8 Ω: 40 V, +34.26 dBu; with 32 dB of gain that takes +2.26 dBu', () => {
    expect(powerLevel(200, ohms(8))).toBeCloseTo(34.26, 2)
    const specs = { gain: 32, maxPower: 200, load: 8 } as Parameters<typeof amplifierSensitivity>[0]['specs']
    expect(amplifierSensitivity({ specs, gain: 0 as never })).toBeCloseTo(2.26, 2)
  })
  it('100 dB at 0 dBu, −6 dBu, 4 m, two: 84.97 dB SPL (free field, handbook acoustics)', () => {
    const session = {
      ...twoMixes(),
      gear: [
        {
          id: 'tone',
          kind: 'electric-source',
          name: 'Tone',
          output: 'line',
          specs: { level: -6, crest: 3.01, surge: 0 },
        },
        {
          id: 'box',
          kind: 'loudspeaker',
          name: 'Box',
          specs: { sensitivity: 100, maxSpl: 110, maxInput: 0, count: 2 },
        },
      ],
      strips: [
        { id: 'tone', name: 'Tone', stages: [{ id: 't', gear: 'tone' }], feeds: [{ to: 'room' }] },
        { id: 'room', name: 'Room', kind: 'bus', stages: [{ id: 'r', gear: 'box', settings: { distance: 4 } }] },
      ],
    }
    const end = evaluateSession(valid(session)).strips[1]?.points[0]
    expect(end?.average).toBeCloseTo(84.97, 2)
    // The nearer limit: 0 dBu, 6 dB away, before the maximum SPL of 110, 16 dB away.
    expect(end?.headroom).toBeCloseTo(6, 2)
  })
  it('a passive one takes 2.83 V for its figure, 1 W at 8 Ω: +11.25 dBu', () => {
    const session = twoMixes()
    session.gear = session.gear.map((item) => (item.id === 'boxes' ? { ...item, power: 'passive' } : item))
    const [active, passive] = [twoMixes(), session].map(
      (each) => evaluateSession(valid(each)).strips.at(-1)?.points.at(-1)?.average ?? 0,
    ) as [number, number]
    expect(active - passive).toBeCloseTo(11.25, 2)
  })
  it('997 Hz at −23 dBFS in both channels: −23.0 LUFS (ITU-R BS.1770)', () =>
    expect(estimatedLoudness(-23)).toBeCloseTo(-23, 2))
})

describe('two singers and a player, to a stream and into the room (docs/two-mixes.md, by hand)', () => {
  const { strips } = evaluateSession(valid(twoMixes()))
  const of = (id: string) => strips.find((each) => each.id === id) as (typeof strips)[number]
  it.each([
    ['alto', -11.95, -0.96],
    ['bass', -10.95, 0.04],
    ['player', -10.09, -1.1],
  ])('%s at its channel: average %d, peak %d dBu', (id, average, peak) => {
    expect(of(id).points.at(-1)?.average).toBeCloseTo(average, 2)
    expect(of(id).points.at(-1)?.peak).toBeCloseTo(peak, 2)
  })
  it('where they meet for the stream: −8.57, likely +1.63, bound +6.59, the alto surging +5.93', () => {
    const { sum } = of('stream')
    expect(sum?.average).toBeCloseTo(-8.57, 2)
    expect(sum?.likely).toBeCloseTo(1.63, 2)
    expect(sum?.bound).toBeCloseTo(6.585, 2)
    expect(sum?.surge).toBeCloseTo(5.93, 2)
    expect(sum?.surges).toBe('alto')
  })
  it('at the interface −22.63 dBFS, peak −12.43; −22.6 LUFS, 6.6 dB under what is wanted', () => {
    const at = of('stream').points[1]
    expect(at?.average).toBeCloseTo(-22.63, 2)
    expect(at?.peak).toBeCloseTo(-12.43, 2)
    expect(of('stream').stream?.loudness).toBeCloseTo(-22.63, 2)
    expect(of('stream').stream?.gain).toBeCloseTo(6.63, 1)
    expect(of('stream').stream?.reduction).toMatchObject({ average: 0, peak: 0, surge: 0 })
  })
  it('in the room: sum −9.49, likely +0.71; 79.51 dB SPL at 5 m, peak 89.71', () => {
    expect(of('room').sum?.average).toBeCloseTo(-9.49, 2)
    expect(of('room').sum?.likely).toBeCloseTo(0.71, 2)
    expect(of('room').points.at(-1)?.average).toBeCloseTo(79.51, 2)
    expect(of('room').points.at(-1)?.peak).toBeCloseTo(89.71, 2)
  })
  it('gain before feedback 17.35 dB by both loudspeakers; without the alto 23.54, without the bass 18.54', () => {
    const { feedback } = of('room')
    expect(feedback?.margin).toBeCloseTo(17.35, 2)
    expect(feedback?.microphones.map(({ strips: [id], without }) => [id, without?.toFixed(2)])).toEqual([
      ['alto', '23.54'],
      ['bass', '18.54'],
    ])
  })
  it('that margin is the potential acoustic gain less the gain that is set (Davis and Patronis, from memory)', () => {
    const file = twoMixes()
    // One singer in the room; source to listener and loudspeaker to listener both 5 m.
    file.strips[1] = { ...file.strips[1], feeds: [{ to: 'stream', gain: -2 }] }
    file.strips[2] = { ...file.strips[2], feeds: [{ to: 'stream', gain: -6 }] }
    const room = evaluateSession(valid(file)).strips.at(-1)
    const potential = potentialAcousticGain({
      sourceToListener: 5,
      microphoneToLoudspeaker: 6,
      loudspeakerToListener: 5,
      sourceToMicrophone: 0.1,
      openMicrophones: 1,
    })
    // Both loudspeakers are as near to the microphone as to the listener; unaided 70 dB at 1 m is 56.02 at 5 m.
    const gain = (room?.points.at(-1)?.average ?? 0) - (70 - 20 * Math.log10(5))
    expect(room?.feedback?.margin).toBeCloseTo(potential - gain, 2)
  })
})

describe('loudspeakers at distances of their own', () => {
  /** Two equal loudspeakers by two equal busses, so far from the microphone. */
  const marginAt = (first: number | undefined, second: number | undefined, room: object = {}) => {
    const file = twoMixes()
    const bus = file.strips.at(-1) as { id: string; stages: { id: string; settings?: object }[] }
    const at = (suffix: string, toMicrophone: number | undefined) => ({
      ...bus,
      id: `${bus.id}${suffix}`,
      name: `Loudspeaker ${suffix}`,
      stages: bus.stages.map((stage, i) => ({
        ...stage,
        id: `${stage.id}${suffix}`,
        ...(i === bus.stages.length - 1 && { settings: { ...stage.settings, toMicrophone } }),
      })),
    })
    const both = file.strips.slice(0, -1).map((strip) => ({
      ...strip,
      feeds: (strip.feeds as { to: string }[] | undefined)?.flatMap((feed) =>
        feed.to === bus.id
          ? [
              { ...feed, to: `${bus.id}a` },
              { ...feed, to: `${bus.id}b` },
            ]
          : [feed],
      ),
    }))
    const session = valid({ ...file, room, strips: [...both, at('a', first), at('b', second)] })
    return evaluateSession(session).strips.at(-1)?.feedback?.margin ?? null
  }
  const layout = { sourceToListener: 5, microphoneToLoudspeaker: 6, loudspeakerToListener: 5, wanted: 6 }
  it('add in power, each by its own: 6 and 6 m cost 3.01 dB, 6 and 12 m 0.97 dB', () => {
    const alone = marginAt(6, 200) as number
    expect((marginAt(6, 6) as number) - alone).toBeCloseTo(-3.01, 2)
    expect((marginAt(6, 12) as number) - alone).toBeCloseTo(-0.97 + 0.004, 2)
  })
  it('the room’s distance stands where a loudspeaker has none; without either the margin is not known', () => {
    expect(marginAt(undefined, undefined, { layout })).toBeCloseTo(marginAt(6, 6) as number, 9)
    expect(marginAt(6, undefined)).toBeNull()
    expect(marginAt(undefined, 6)).toBeNull()
  })
})

describe('feedback is a matter of small signals and of the loop', () => {
  /** The margin of two mixes with some of it otherwise. */
  const margin = (change: (file: ReturnType<typeof twoMixes>) => void = () => undefined) => {
    const file = twoMixes()
    change(file)
    return evaluateSession(valid(file)).strips.at(-1)?.feedback?.margin ?? NaN
  }
  const gear = (id: string, part: object) => (file: ReturnType<typeof twoMixes>) => {
    file.gear = file.gear.map((item) => (item.id === id ? { ...item, ...part } : item))
  }
  const boxes = twoMixes().gear.find(({ id }) => id === 'boxes') as { specs: object }

  it.each([60, 68, 90])('a voice of %i dB SPL: the same margin', (level) => {
    const voice = twoMixes().gear.find(({ kind }) => kind === 'sound-source') as { id: string; specs: object }
    expect(margin(gear(voice.id, { specs: { ...voice.specs, level } }))).toBeCloseTo(17.35, 2)
  })
  it('n loudspeakers cost 10 lg n: two 3.01 dB, four 6.02', () => {
    const one = margin(gear('boxes', { specs: { ...boxes.specs, count: 1 } }))
    expect(one - margin()).toBeCloseTo(3.01, 2)
    expect(one - margin(gear('boxes', { specs: { ...boxes.specs, count: 4 } }))).toBeCloseTo(6.02, 2)
  })
  it('a figure-8 that is turned from the talker gains nothing', () => {
    const turned = (file: ReturnType<typeof twoMixes>) => {
      const microphone = file.gear.find(({ kind }) => kind === 'microphone') as { id: string }
      gear(microphone.id, { pattern: 'figure-8' })(file)
      for (const strip of file.strips)
        for (const stage of strip.stages as { gear: string; settings?: object }[])
          if (stage.gear === microphone.id) stage.settings = { ...stage.settings, angle: 85 }
    }
    expect(margin(turned)).toBeCloseTo(17.35, 2)
  })
  it('a compressor with 12 dB make-up costs 12 dB for every voice, a gate counts as open', () => {
    const inserted = (blocks: object[]) => (file: ReturnType<typeof twoMixes>) => {
      file.gear.push({ id: 'comp', kind: 'processor', name: 'Compressor', blocks, specs: {} })
      const room = file.strips.find(({ id }) => id === 'room') as { stages: object[] }
      room.stages.splice(1, 0, { id: 'room-comp', gear: 'comp', settings: { gain: 0 } })
    }
    const flat = margin(inserted([]))
    expect(flat - margin(inserted([{ type: 'compressor', threshold: -40, ratio: 10, makeUp: 12 }]))).toBeCloseTo(12, 6)
    expect(flat - margin(inserted([{ type: 'expander', threshold: 0, ratio: 4 }]))).toBeCloseTo(0, 6)
  })
  it('another bus with loudspeakers of the room adds in power', () => {
    const twice = (file: ReturnType<typeof twoMixes>) => {
      const room = file.strips.find(({ id }) => id === 'room') as { stages: { id: string }[] }
      file.strips.push({
        ...room,
        id: 'room2',
        name: 'Second room bus',
        stages: room.stages.map((stage) => ({ ...stage, id: `${stage.id}-2` })),
      } as never)
      for (const strip of file.strips as { feeds?: { to: string }[] }[])
        strip.feeds = strip.feeds?.flatMap((feed) => (feed.to === 'room' ? [feed, { ...feed, to: 'room2' }] : [feed]))
    }
    expect(margin() - margin(twice)).toBeCloseTo(3.01, 2)
  })
  it('one microphone split into two strips improves no signal-to-noise ratio', () => {
    const file = twoMixes()
    const alto = file.strips[0] as { id: string; stages: { id: string }[] }
    file.strips.push({
      ...alto,
      id: 'alto-2',
      name: 'Alto again',
      stages: alto.stages.map((stage) => ({ ...stage, id: `${stage.id}-2` })),
    } as never)
    const only = (ids: string[]) => {
      const strips = file.strips.filter(({ id, kind }) => kind === 'bus' || ids.includes(id as string))
      return evaluateSession(valid({ ...file, strips })).strips.find(({ id }) => id === 'stream')?.points[0]?.snr ?? NaN
    }
    expect(only(['alto', 'alto-2'])).toBeCloseTo(only(['alto']), 6)
  })
})
