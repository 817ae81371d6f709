import { describe, expect, it } from 'vitest'
import { gainMap } from '#core/chain/gain-map'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { mixRows } from '#core/evaluation/mix'
import { verdict } from '#core/evaluation/verdict'
import { planSession } from '#core/plan/plan-session'
import { uncertaintyOf } from '#core/uncertainty/uncertainty'
import type { AudioInterface, GearKind } from '#core/gear'
import type { Strip } from '#core/model'
import type { Session } from '#core/session'
import type { Loudness, MicrophoneAnswer, Recordable, StartAnswers } from '#core/edits'
import {
  MOST_SOURCES,
  addBundle,
  applyChanges,
  applySettings,
  blankGear,
  bussesFor,
  chains,
  copyStrip,
  fitStrip,
  loudnesses,
  microphones,
  recordables,
  settleSettings,
  startSession,
  withSpec,
} from '#core/edits'
import { gearKinds, kinds, traitsOf, socketOf, originOf } from '#core/gear'
import { feedsOf, isBus } from '#core/model'
import { readSession } from '#core/files'
import { example1, valid } from '../support/sessions'

const readable = (session: Session) => {
  const reading = readSession(JSON.parse(JSON.stringify(session)))
  expect(reading.ok ? [] : reading.faults).toEqual([])
  return reading.ok ? reading.session : session
}

describe('the start', () => {
  const answers = Object.keys(recordables).flatMap((what) =>
    Object.keys(microphones).flatMap((microphone) =>
      Object.keys(chains).map((chain) => ({ what, microphone, chain }) as StartAnswers),
    ),
  )
  it.each(answers)(
    '$what, $microphone, $chain: a session that can be read, planned and evaluated without a stop',
    (given) => {
      const first = readable(startSession('mine', 'Mine', given))
      const planned = readable(applySettings(first, planSession(first).settings))
      const stops = evaluateSession(planned).strips.flatMap(({ findings }) =>
        findings.filter(({ severity }) => severity === 'stop').map(({ code }) => code),
      )
      expect(stops).toEqual([])
    },
  )
  it('with nothing answered: one voice, one microphone, one input, every figure assumed', () => {
    const session = startSession('mine', 'Mine', {})
    expect(session.strips.map(({ name, stages }) => [name, stages.length])).toEqual([['Voice', 3]])
    const microphone = session.gear.find(({ kind }) => kind === 'microphone')
    expect(microphone?.assumed).toEqual(['sensitivity', 'impedance', 'selfNoise', 'maxSpl'])
    const unit = session.gear.find(({ kind }) => kind === 'interface') as AudioInterface
    expect(unit.inputs.every((input) => input.type === 'digital' || input.assumed?.includes('fullScale'))).toBe(true)
  })
  it('names make strips, each with an input of its own; many without names are eight channels of a desk', () => {
    const session = startSession('mine', 'Mine', { names: 'Anna, Bo , ,Cy', what: 'voice' as Recordable })
    expect(session.strips.map(({ name }) => name)).toEqual(['Anna', 'Bo', 'Cy'])
    expect(new Set(session.strips.map(({ stages }) => stages.at(-1)?.port)).size).toBe(3)
    const many = startSession('mine', 'Mine', { what: 'many' })
    expect(many.strips).toHaveLength(8)
    expect(many.gear.filter(({ kind }) => kind === 'desk-channel')).toHaveLength(8)
  })
  describe('where it goes besides the recorder', () => {
    const begun = (answers: StartAnswers) => {
      const first = readable(startSession('mine', 'Mine', answers))
      return readable(applySettings(first, planSession(first).settings))
    }
    const feeds = ({ strips }: Session) =>
      strips.filter((strip) => !isBus(strip)).map((strip) => feedsOf(strip).map(({ to, from }) => [to, from]))

    it('behind a desk into all of them, each channel from its fader; the group alone comes into the host and feeds the stream; no stop', () => {
      const session = begun({ what: 'many', into: ['stream', 'sub-and-tops', 'group', 'room'] })
      const busses = session.strips.filter(isBus)
      expect(busses.map(({ name }) => name)).toEqual(['Group', 'Stream', 'Room', 'Subwoofer', 'Tops'])
      expect(feeds(session)[7]).toEqual([
        ['group', undefined],
        ['room', undefined],
        ['sub', undefined],
        ['tops', undefined],
      ])
      const [group, stream] = busses as [Strip, Strip]
      expect(group.stages.map(({ port }) => port)).toEqual([undefined, 'group'])
      expect(feedsOf(group).map(({ to }) => to)).toEqual([stream.id])
      expect(session.strips.flatMap(({ stages }) => stages.filter(({ gear }) => gear === 'interface'))).toHaveLength(1)
      const { strips } = evaluateSession(session)
      expect(strips.flatMap(({ findings }) => findings.filter(({ severity }) => severity === 'stop'))).toEqual([])
      expect(strips.slice(8).map(({ sum }) => sum?.brought.length)).toEqual([8, 1, 8, 8, 8])
      // A channel of the group is heard by the way that the group takes.
      expect(strips[0]?.latency.map(({ route }) => route)).toContain('software')
      const bands = session.gear.flatMap((box) => (box.kind === 'loudspeaker' ? [box.band] : []))
      expect(bands).toEqual(['full', 'sub', 'top'])
    })
    it('a direct input taken out: what left behind it goes over the group instead, nothing is refused', () => {
      const session = begun({ what: 'many', names: 'Alto, Bass', into: ['stream', 'group'] })
      const unit = session.gear.find(({ kind }) => kind === 'interface') as AudioInterface
      const direct = applyChanges(session, [
        { do: 'insert', strip: 'strip-1', index: 3, gear: unit, port: unit.inputs[1]?.id ?? '' },
        { do: 'feed', strip: 'strip-1', to: 'stream', set: {} },
      ])
      // The send into the group stays in front of the input that was put in.
      expect(feeds(readable(direct))[0]).toEqual([
        ['group', 'strip-1-3'],
        ['stream', undefined],
      ])
      const stage = direct.strips[0]?.stages.at(-1)?.id ?? ''
      const without = readable(applyChanges(direct, [{ do: 'remove', strip: 'strip-1', stage }]))
      expect(feeds(without)[0]?.map(([to]) => to)).toEqual(['group'])
      expect(without.strips.filter(isBus).map((bus) => feedsOf(bus).map(({ to }) => to))).toEqual([['stream'], []])
    })
    it('without a desk the stream alone can be fed; what cannot is not made', () => {
      expect(bussesFor({})).toEqual(['stream'])
      const session = begun({ into: ['room', 'stream'] })
      expect(session.strips.map(({ name }) => name)).toEqual(['Voice', 'Stream'])
      expect(feeds(session)).toEqual([[['stream', undefined]]])
    })
    it('as many sources as there are inputs: sixty-four', () => {
      const names = Array.from({ length: MOST_SOURCES }, (_, i) => `Voice ${i + 1}`)
      expect(begun({ names: names.join(', ') }).strips).toHaveLength(64)
    })
  })
  it('each name has its own kind: a laptop is no condenser microphone', () => {
    const mixed = (more: StartAnswers = {}) =>
      readable(
        startSession('mine', 'Mine', { names: 'Singer, Laptop, Cello, Electric guitar', what: 'voice', ...more }),
      )
    const kindsIn = (session: Session) =>
      session.strips.map(({ stages }) => stages.map(({ gear }) => session.gear.find(({ id }) => id === gear)?.kind))
    expect(kindsIn(mixed())).toEqual([
      ['sound-source', 'microphone', 'interface'],
      ['electric-source', 'interface'],
      ['sound-source', 'microphone', 'interface'],
      ['electric-source', 'interface'],
    ])
    expect(mixed().strips.map(({ stages }) => [stages.at(-1)?.port, stages.at(-1)?.settings.phantom ?? false])).toEqual(
      [
        ['mic1', true],
        ['line1', false],
        ['mic2', true],
        ['inst1', false],
      ],
    )
    // A line source at a desk goes into a line channel, without 48 V.
    const desk = mixed({ chain: 'desk' })
    const channels = desk.strips.map(({ stages }) => desk.gear.find(({ id }) => id === stages.at(-2)?.gear))
    expect(channels.map((box) => box?.kind === 'desk-channel' && [box.input, box.phantom])).toEqual([
      ['mic', true],
      ['line', false],
      ['mic', true],
      ['mic', true],
    ])
    // What is said of a name counts for more than what it tells.
    expect(kindsIn(mixed({ kinds: [undefined, 'voice'] }))[1]).toContain('microphone')
    expect(kindsIn(readable(startSession('mine', 'Mine', { names: 'Guitar', what: 'instrument-mic' })))[0]).toContain(
      'microphone',
    )
    for (const chain of Object.keys(chains) as (keyof typeof chains)[]) {
      const first = mixed({ chain })
      const planned = applySettings(first, planSession(first).settings)
      const stops = evaluateSession(planned).strips.flatMap(({ findings }) =>
        findings.filter(({ severity }) => severity === 'stop'),
      )
      expect(stops, chain).toEqual([])
      // Every channel of a desk comes to its mark at PFL, those at line level too, within the decibel that the recorder asks of them.
      for (const { pfl } of mixRows(planned, evaluateSession(planned)))
        if (chain === 'desk') expect(Math.abs(pfl?.peak ?? NaN)).toBeLessThan(1.2)
    }
  })
  it.each(['preamp', 'desk'] as const)(
    'a ribbon that needs more than one gain gets it early, through a %s: the later gain only tops it up',
    (chain) => {
      const first = startSession('mine', 'Mine', { microphone: 'ribbon', chain })
      const planned = applySettings(first, planSession(first).settings)
      const [early, late] = planned.strips[0]?.stages.slice(2).map(({ settings }) => settings.gain) ?? []
      expect(early).toBe(60)
      expect(late).toBeGreaterThan(0)
      expect(late).toBeLessThan(6)
    },
  )
  describe('how loud it is, as one says it', () => {
    const source = (session: Session, i = 0) =>
      session.gear.filter((item) => item.kind === 'sound-source')[i] ?? expect.fail('no source')

    it.each(Object.keys(loudnesses) as Loudness[])('%s: its level, crest factor and surge, all assumed', (loudness) => {
      const { of, level, crest, surge } = loudnesses[loudness]
      const own = source(startSession('mine', 'Mine', { what: of, loudness }))
      expect(own.specs).toMatchObject({ level, crest, surge, distance: 1 })
      for (const spec of ['level', 'distance', 'crest', 'surge'])
        expect(originOf('sound-source', own, spec)).toBe('assumed')
    })

    // DOMAIN part 13: speech soft 55, normal 60, raised 68, loud 75 (ANSI S3.5-1997, from memory); belted 90, trained 100.
    it('speech as in ANSI S3.5-1997 (from memory), song and instruments by common practice', () => {
      const levels = (['soft', 'normal', 'raised', 'loud', 'belted', 'full-voice', 'brass'] as const).map(
        (each) => loudnesses[each].level,
      )
      expect(levels).toEqual([55, 60, 68, 75, 90, 100, 95])
      expect(loudnesses.shouted.level).toBeGreaterThanOrEqual(82)
      expect(loudnesses.shouted.level).toBeLessThanOrEqual(88)
    })

    it('each name by itself, the others as all; what a voice does is not asked of an instrument', () => {
      const session = startSession('mine', 'Mine', {
        names: 'Ina, Cello, Bo',
        loudness: 'sung',
        loudnesses: ['belted', undefined, undefined],
      })
      expect([0, 2].map((i) => source(session, i).specs.level)).toEqual([90, 75])
      expect(source(session, 1).specs).toEqual(source(startSession('mine', 'Mine', { names: 'Cello, Bo' })).specs)
    })

    it('a voice that belts at 5 cm is not promised to be safe: its level is a guess', () => {
      const first = startSession('mine', 'Mine', { loudness: 'belted', distance: 0.05, microphone: 'moving-coil' })
      const session = applySettings(first, planSession(first).settings)
      const { strips } = evaluateSession(session)
      const [strip] = session.strips
      const evaluated = strips[0]
      if (!strip || !evaluated) return expect.fail('no strip')
      const sure = uncertaintyOf(session).strips[0] ?? null
      expect(verdict(session, strip, evaluated, null, sure).headroom.detail).not.toContain('under 0.01 %')
    })
  })
  describe('an inline preamp behind the microphone', () => {
    const first = (given: StartAnswers) => startSession('mine', 'Mine', { what: 'voice', inline: true, ...given })
    const kindsOf = (session: Session) =>
      session.strips[0]?.stages.map(({ gear }) => session.gear.find(({ id }) => id === gear)?.kind)
    it.each(
      (['moving-coil', 'ribbon'] as const).flatMap((microphone) =>
        (['interface', 'preamp', 'desk'] as const).map((chain) => ({ microphone, chain })),
      ),
    )('$microphone, $chain: it is there with its 48 V from behind, planned without a stop', (given) => {
      const session = first(given)
      expect(kindsOf(session)?.slice(0, 3)).toEqual(['sound-source', 'microphone', 'booster'])
      const planned = readable(applySettings(session, planSession(session).settings))
      expect(planned.strips[0]?.stages[3]?.settings.phantom).toBe(true)
      const [strip] = evaluateSession(planned).strips
      expect(strip?.findings.filter(({ severity }) => severity !== 'note').map(({ code }) => code)).toEqual([])
    })
    it('not behind a condenser, which needs the 48 V that it keeps, nor behind a USB microphone or a cable', () => {
      for (const given of [{ microphone: 'condenser' }, { microphone: 'usb' }, { what: 'keys' }] as StartAnswers[])
        expect(kindsOf(first(given))).not.toContain('booster')
    })
  })
  it('48 V where the microphone needs it and never where it harms', () => {
    const powered = (microphone: MicrophoneAnswer) =>
      startSession('mine', 'Mine', { microphone }).strips[0]?.stages.at(-1)?.settings.phantom ?? false
    expect((['condenser', 'moving-coil', 'ribbon'] as const).map(powered)).toEqual([true, false, false])
  })
})

describe('what no longer fits', () => {
  const session = valid(example1())
  it('a gain beyond a changed range goes to its end, and it is told; what fits is left alone', () => {
    const narrower = (gainMax: number): Session => ({
      ...session,
      gear: session.gear.map((item) =>
        item.kind === 'interface'
          ? {
              ...item,
              inputs: item.inputs.map((each) => (each.type === 'digital' ? each : withSpec(each, 'gainMax', gainMax))),
            }
          : item,
      ),
    })
    const { session: settled, moved } = settleSettings(narrower(30))
    expect(readable(settled).strips[0]?.stages[2]?.settings.gain).toBe(30)
    expect(moved).toEqual([expect.stringContaining('from 35 to 30 dB')])
    expect(settleSettings(narrower(50))).toEqual({ session: narrower(50), moved: [] })
  })
  it('48 V goes off where the input can no longer give it', () => {
    const without: Session = {
      ...session,
      gear: session.gear.map((item) =>
        item.kind === 'interface'
          ? {
              ...item,
              inputs: item.inputs.map((each) => (each.type === 'digital' ? each : { ...each, phantom: false })),
            }
          : item,
      ),
    }
    const { session: settled, moved } = settleSettings(without)
    expect(readable(settled).strips[0]?.stages[2]?.settings.phantom).toBe(false)
    expect(moved.join()).toContain('48 V')
  })
  const replaced = (kind: GearKind) => {
    const [strip] = session.strips
    const change = {
      do: 'replace',
      strip: strip?.id ?? '',
      stage: strip?.stages[0]?.id ?? '',
      gear: blankGear(kind, 'new', 'New'),
    } as const
    return fitStrip(applyChanges(session, [change]), strip?.id ?? '')
  }
  it('another kind of source: a line source passes over the microphone, which is told', () => {
    const { session: fitted, told } = replaced('electric-source')
    const strip = readable(fitted).strips[0]
    expect(strip?.stages.map(({ gear }) => fitted.gear.find(({ id }) => id === gear)?.kind)).toEqual([
      'electric-source',
      'interface',
    ])
    expect(told).toEqual([expect.stringContaining('taken out')])
  })
  it('sound into a line: a microphone is put between', () => {
    const line = replaced('electric-source').session
    const strip = line.strips[0] as Session['strips'][number]
    const back = applyChanges(line, [
      {
        do: 'replace',
        strip: strip.id,
        stage: strip.stages[0]?.id ?? '',
        gear: blankGear('sound-source', 'voice-again', 'Voice'),
      },
    ])
    const { session: fitted, told } = fitStrip(back, strip.id)
    expect(readable(fitted).strips[0]?.stages).toHaveLength(3)
    expect(told).toEqual([expect.stringContaining('A microphone was put in')])
  })
  it('every source fits into every chain somehow', () => {
    for (const kind of gearKinds.filter(
      (each) => traitsOf(blankGear(each, 'x', 'X')).domains(blankGear(each, 'x', 'X')).takes === null,
    ))
      if (kinds[kind].inStrip) readable(replaced(kind).session)
  })
})

describe('combined sockets', () => {
  const session = valid(example1())
  const unit = session.gear.find(({ kind }) => kind === 'interface') as AudioInterface
  const [first] = unit.inputs
  const ways = (['mic', 'line', 'instrument'] as const).map((type) => ({
    ...first,
    id: `${type}-a`,
    type,
    socket: 'a',
  }))
  const combined = {
    ...session,
    gear: session.gear.map((item) =>
      item === unit ? { ...unit, inputs: [...ways, { ...first, id: 'mic-b', socket: 'b' }] } : item,
    ),
    strips: session.strips.map((strip) => ({
      ...strip,
      stages: strip.stages.map((stage) => (stage.gear === unit.id ? { ...stage, port: 'mic-a' } : stage)),
    })),
  } as Session
  it('are read and written, and the ways into one are one socket', () => {
    const box = readable(combined).gear.find(({ kind }) => kind === 'interface') as AudioInterface
    expect(['mic-a', 'line-a', 'mic-b'].map((port) => socketOf(box, port))).toEqual([
      'socket a',
      'socket a',
      'socket b',
    ])
  })
  it('a second strip takes the other socket, not another way into the same; two in one are found', () => {
    const two = readable(copyStrip(readable(combined), combined.strips[0]?.id ?? ''))
    expect(two.strips.map(({ stages }) => stages.at(-1)?.port)).toEqual(['mic-a', 'mic-b'])
    const clash: Session = {
      ...two,
      strips: two.strips.map((strip, i) =>
        i === 0
          ? strip
          : { ...strip, stages: strip.stages.map((stage) => (stage.port ? { ...stage, port: 'line-a' } : stage)) },
      ),
    }
    const codes = evaluateSession(readable(settleSettings(clash).session)).strips[0]?.findings.map(({ code }) => code)
    expect(codes).toContain('input-shared')
  })
})

describe('copies', () => {
  it('strips, stages and devices get the next names and ids of their families', () => {
    const session = valid(example1())
    const once = copyStrip(session, 'narrator')
    const twice = readable(copyStrip(once, 'narrator-2'))
    expect(twice.strips.map(({ id }) => id)).toEqual(['narrator', 'narrator-2', 'narrator-3'])
    expect(twice.strips[1]?.stages.map(({ id }) => id)).toEqual(['narrator-2-1', 'narrator-2-2', 'narrator-2-3'])
    expect(addBundle(session, { gear: [], strips: [] })).toEqual(session)
  })
})

describe('the gain map (FS − (G − G_min); 10 lg(10^(EIN/10) + 10^((FS_G − DR)/10)))', () => {
  const unit = valid(example1()).gear.find(({ kind }) => kind === 'interface') as AudioInterface
  const input = unit.inputs[0] as Extract<AudioInterface['inputs'][number], { specs: object }>
  it('0 dBFS at +15 dBu, EIN −127, DR 110: +15 and −95.0 at 0 dB, −45 and −126.97 at 60 dB; crossover 33.3 dB', () => {
    const { points, crossover } = gainMap({
      ...input,
      measured: undefined,
      specs: { ...input.specs, fullScale: 15 } as never,
    })
    expect(points[0]?.maximumInput).toBeCloseTo(15, 9)
    expect(points[0]?.noise).toBeCloseTo(10 * Math.log10(10 ** -12.7 + 10 ** -9.5), 6)
    expect(points.at(-1)?.maximumInput).toBeCloseTo(-45, 9)
    expect(points.at(-1)?.noise).toBeCloseTo(10 * Math.log10(10 ** -12.7 + 10 ** -15.5), 6)
    expect(crossover).toBeCloseTo(33.3, 1)
    expect(
      points.every(
        ({ range, maximumInput, noise }) =>
          range !== null && noise !== null && Math.abs(maximumInput - noise - range) < 1e-9,
      ),
    ).toBe(true)
  })
  it('without an EIN the converter alone; a fixed gain is one point', () => {
    const { ein: _, ...specs } = input.specs
    const map = gainMap({ ...input, measured: undefined, specs: { ...specs, gainMax: specs.gainMin } as never })
    expect(map.points).toHaveLength(1)
    expect(map.crossover).toBeNull()
    expect(map.points[0]?.noise).toBeCloseTo(specs.fullScale - specs.dynamicRange, 9)
  })
})
