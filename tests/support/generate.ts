import fc from 'fast-check'
import type { Session } from '#core/session'
import { traitsOf } from '#core/gear'
import { conventionIds } from '#core/model'
import { readSession } from '#core/files'

/** Sessions of every kind of gear, in every order that a signal can take, with every value anywhere in a usual range. */

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true, noDefaultInfinity: true })
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined })
const attitude = fc.constantFrom('needed', 'harmless', 'harmful')
const balance = maybe(fc.constantFrom('balanced', 'impedance-balanced', 'floating', 'one-leg'))
const connector = maybe(fc.constantFrom('xlr', 'jack', 'combo'))
const plug = fc.record({ balance, connector })
const step = fc.constantFrom(0, 0.5, 1, 3, 6)

interface Part {
  gear: Record<string, unknown>
  settings: Record<string, unknown>
  port?: string
  driven?: boolean
  locked?: string[]
}

/** A range and a place in it. */
const range = (min: number, max: number) =>
  fc.tuple(number(min, max), number(min, max), number(0, 1)).map(([a, b, part]) => {
    const [gainMin, gainMax] = [Math.min(a, b), Math.max(a, b)]
    return { gainMin, gainMax, gain: Math.min(gainMax, gainMin + part * (gainMax - gainMin)) }
  })

const voice: fc.Arbitrary<Part> = fc
  .record({
    level: number(30, 130),
    crest: number(3, 25),
    surge: number(0, 15),
    size: maybe(number(0.01, 3)),
    distance: number(0.02, 10),
  })
  .map(({ level, crest, surge, size, distance }) => ({
    gear: { kind: 'sound-source', size, specs: { level, distance: 1, crest, surge } },
    settings: { distance },
  }))
const electric: fc.Arbitrary<Part> = fc
  .record({
    level: number(-50, 20),
    crest: number(3, 20),
    surge: number(0, 10),
    impedance: maybe(number(0, 300_000)),
    maxOutput: maybe(number(0, 30)),
    noise: maybe(number(-120, -60)),
    output: fc.constantFrom('passive-pickup', 'active-pickup', 'line'),
    inductance: maybe(number(0, 10)),
    volumeLoss: maybe(number(0, 30)),
    volumePot: maybe(number(100_000, 1e6)),
    volumeAt: maybe(number(0.05, 1)),
    out: plug,
  })
  .map(({ output, out, inductance, volumeLoss, volumePot, volumeAt, ...specs }) => ({
    gear: {
      kind: 'electric-source',
      output,
      plugs: { out },
      specs: output === 'passive-pickup' ? { ...specs, inductance, volumeLoss, volumePot, volumeAt } : specs,
    },
    settings: {},
  }))
const playback: fc.Arbitrary<Part> = fc
  .record({ level: number(-60, 0), crest: number(0, 20), surge: number(0, 10), noise: maybe(number(-120, -40)) })
  .map((specs) => ({ gear: { kind: 'playback', specs }, settings: {} }))
const microphone: fc.Arbitrary<Part> = fc
  .record({
    sensitivity: number(0.5, 60),
    impedance: number(30, 1000),
    selfNoise: maybe(number(3, 30)),
    maxSpl: maybe(number(100, 150)),
    principle: fc.constantFrom('condenser', 'moving-coil', 'ribbon'),
    pattern: maybe(fc.constantFrom('omni', 'wide-cardioid', 'cardioid', 'supercardioid', 'hypercardioid', 'figure-8')),
    phantom: attitude,
    out: plug,
    angle: maybe(number(0, 180)),
  })
  .map(({ principle, pattern, phantom, out, angle, ...specs }) => ({
    gear: { kind: 'microphone', principle, pattern, phantom, plugs: { out }, specs },
    settings: { angle },
  }))
const usbMicrophone: fc.Arbitrary<Part> = fc
  .record({
    range: range(0, 60),
    gainStep: step,
    digitalSensitivity: number(-60, -10),
    selfNoise: maybe(number(3, 30)),
    maxSpl: maybe(number(100, 140)),
  })
  .map(({ range: { gain, ...span }, ...specs }) => ({
    gear: { kind: 'microphone', principle: 'condenser', phantom: 'harmless', specs: { ...span, ...specs } },
    settings: { gain },
  }))

const impedances = { inputImpedance: maybe(number(100, 1e6)), outputImpedance: maybe(number(0, 1000)) }
const sockets = fc.record({ in: plug, out: plug })
const pad: fc.Arbitrary<Part> = fc
  .record({ loss: number(0, 40), ...impedances, plugs: sockets })
  .map(({ plugs, ...specs }) => ({ gear: { kind: 'pad', plugs, specs }, settings: {} }))
const diBox: fc.Arbitrary<Part> = fc
  .record({ ratio: number(1, 20), maxInput: maybe(number(5, 30)), ...impedances, phantom: attitude, plugs: sockets })
  .map(({ phantom, plugs, ...specs }) => ({ gear: { kind: 'di-box', phantom, plugs, specs }, settings: {} }))
const inlinePreamp: fc.Arbitrary<Part> = fc
  .record({
    gain: number(5, 30),
    ein: number(-135, -110),
    einSource: maybe(number(0, 600)),
    maxOutput: maybe(number(-5, 15)),
    ...impedances,
  })
  .map((specs) => ({ gear: { kind: 'booster', specs }, settings: {} }))

const amplifier = {
  range: range(0, 65),
  gainStep: step,
  maxInput: maybe(number(0, 26)),
  maxOutput: maybe(number(10, 28)),
  ein: number(-135, -100),
  einWeighting: fc.constantFrom('A', 'Z'),
  outputNoise: maybe(number(-110, -70)),
  pad: fc.constantFrom(0, 20),
  ...impedances,
}
const switches = { phantom: fc.boolean(), on: fc.boolean(), padIn: fc.boolean() }
const marks = { locked: fc.boolean(), driven: fc.integer({ min: 0, max: 9 }) }
const marked = ({ locked, driven }: { locked: boolean; driven: number }) => ({
  ...(locked && { locked: ['gain'] }),
  ...(driven === 0 && { driven: true }),
})
const preamp: fc.Arbitrary<Part> = fc
  .record({ ...amplifier, ...switches, ...marks, plugs: sockets })
  .map(({ range: { gain, ...span }, phantom, on, padIn, locked, driven, plugs, ...specs }) => ({
    gear: { kind: 'preamp', phantom, plugs, specs: { ...span, ...specs } },
    settings: { gain, phantom: phantom && on, pad: padIn && specs.pad > 0 },
    ...marked({ locked, driven }),
  }))
const desk: fc.Arbitrary<Part> = fc
  .record({
    ...amplifier,
    ...switches,
    input: fc.constantFrom('mic', 'line'),
    fader: number(-30, 10),
    tap: fc.constantFrom('pre', 'post'),
    zero: maybe(number(0, 8)),
    plugs: sockets,
  })
  .map(({ range: { gain, ...span }, phantom, on, padIn, input, fader, tap, plugs, ...specs }) => ({
    gear: { kind: 'desk-channel', input, phantom, plugs, specs: { ...span, ...specs } },
    settings: { gain, fader, tap, phantom: phantom && on, pad: padIn && specs.pad > 0 },
  }))

const block = fc.oneof(
  fc.record({
    type: fc.constant('compressor'),
    threshold: number(-40, 10),
    ratio: number(1, 20),
    makeUp: number(0, 10),
    takesOff: maybe(number(1, 8)),
    on: fc.boolean(),
  }),
  fc.record({
    type: fc.constant('expander'),
    threshold: number(-70, -20),
    ratio: number(1, 5),
    range: maybe(number(0, 40)),
    on: fc.boolean(),
  }),
  fc.record({ type: fc.constant('limiter'), ceiling: number(-30, 20), on: fc.boolean() }),
  fc.record({ type: fc.constant('equaliser'), change: number(-10, 10), on: fc.boolean() }),
  fc.record({ type: fc.constant('gain'), gain: number(-10, 10), on: fc.boolean() }),
)
const blocks = fc.array(block, { maxLength: 4 })
const analogueProcessor: fc.Arbitrary<Part> = fc
  .record({
    range: range(-20, 20),
    blocks,
    maxInput: maybe(number(10, 26)),
    maxOutput: maybe(number(10, 26)),
    outputNoise: maybe(number(-105, -75)),
    ...impedances,
    ...marks,
  })
  .map(({ range: { gain, ...span }, blocks, locked, driven, ...specs }) => ({
    gear: { kind: 'processor', domain: 'analogue', blocks, specs: { ...span, ...specs } },
    settings: { gain },
    ...marked({ locked, driven }),
  }))
const group: fc.Arbitrary<Part> = fc
  .record({
    gain: number(-40, 10),
    maxInput: maybe(number(10, 26)),
    maxOutput: maybe(number(10, 26)),
    outputNoise: maybe(number(-105, -75)),
    ...impedances,
  })
  .map(({ gain, ...specs }) => ({ gear: { kind: 'fader', place: 'desk', specs }, settings: { gain } }))
const wireless: fc.Arbitrary<Part> = fc
  .record({
    gain: number(-10, 20),
    maxInput: maybe(number(-20, 10)),
    maxOutput: maybe(number(-10, 10)),
    dynamicRange: maybe(number(80, 120)),
    ...impedances,
  })
  .map((specs) => ({ gear: { kind: 'link', medium: 'wireless', specs }, settings: {} }))

const arithmetic = fc.constantFrom('fixed', 'float')
const plugIn: fc.Arbitrary<Part> = fc
  .record({ range: range(-20, 20), blocks, arithmetic })
  .map(({ range: { gain, ...span }, blocks, arithmetic }) => ({
    gear: { kind: 'processor', domain: 'digital', arithmetic, blocks, specs: span },
    settings: { gain },
  }))
const hostFader: fc.Arbitrary<Part> = fc
  .record({ gain: number(-40, 10), place: fc.constantFrom('system', 'host'), arithmetic })
  .map(({ gain, place, arithmetic }) => ({ gear: { kind: 'fader', place, arithmetic, specs: {} }, settings: { gain } }))
const optical: fc.Arbitrary<Part> = fc
  .record({ medium: fc.constantFrom('optical', 'network'), dynamicRange: maybe(number(90, 140)) })
  .map(({ medium, dynamicRange }) => ({ gear: { kind: 'link', medium, specs: { dynamicRange } }, settings: {} }))

const input = fc
  .record({
    range: range(-10, 65),
    gainStep: step,
    type: fc.constantFrom('mic', 'line', 'instrument'),
    phantom: fc.boolean(),
    bank: fc.constantFrom('A', 'B'),
    on: fc.boolean(),
    padIn: fc.boolean(),
    plug,
    specs: fc.record({
      fullScale: number(-10, 26),
      ein: number(-135, -100),
      einSource: maybe(fc.constantFrom(0, 150, 200)),
      dynamicRange: number(85, 130),
      impedance: maybe(number(500, 2e6)),
      pad: fc.constantFrom(0, 10, 20),
    }),
  })
  .map(({ range: { gain, ...span }, gainStep, type, phantom, bank, on, padIn, plug, specs }) => ({
    box: { type, phantom, phantomBank: bank, plug, specs: { ...span, gainStep, ...specs } },
    settings: { gain, phantom: phantom && on, pad: padIn && specs.pad > 0 },
  }))

const analogue = fc.oneof(pad, diBox, inlinePreamp, preamp, desk, analogueProcessor, group, wireless)
const digital = fc.oneof(plugIn, hostFader, optical)
const middle = fc.array(analogue, { maxLength: 4 })
const tail = fc.array(digital, { maxLength: 3 })
const taken = fc.record({ input, through: fc.integer({ min: 0, max: 9 }) })

interface DrawnStrip {
  parts: Part[]
  input: { box: object; settings: object } | null
  tail: Part[]
  second: boolean
}
/** A strip that meets no converter of a unit. */
const inNumbers = (parts: Part[]): DrawnStrip => ({ parts, input: null, tail: [], second: false })
const recorded = (source: fc.Arbitrary<Part[]>): fc.Arbitrary<DrawnStrip> =>
  fc.tuple(source, middle, taken, tail).map(([first, line, { input, through }, rest]) => ({
    parts: [...first, ...line],
    // One in ten strips ends on the wire.
    input: through === 0 ? null : input,
    tail: through === 0 ? [] : rest,
    second: through > 7,
  }))
const drawn = fc.oneof(
  recorded(fc.tuple(voice, microphone).map((both) => both)),
  recorded(electric.map((one) => [one])),
  fc.tuple(playback, tail).map(([source, rest]) => inNumbers([source, ...rest])),
  fc.tuple(voice, usbMicrophone, tail).map(([source, microphone, rest]) => inNumbers([source, microphone, ...rest])),
)

const target = fc.oneof(
  fc.constantFrom(...conventionIds),
  fc.tuple(number(-50, -10), number(2, 10)).map(([low, width]) => ({ low, high: low + width, reads: 'peak' })),
  number(0.1, 20).map((risk) => ({ risk })),
)

export const anySession: fc.Arbitrary<Session> = fc
  .record({
    strips: fc.array(drawn, { minLength: 1, maxLength: 4 }),
    paired: fc.boolean(),
    ambient: maybe(number(10, 50)),
    bitDepth: fc.constantFrom(16, 24, 32),
    sampleRate: fc.constantFrom(44_100, 48_000, 96_000),
    target,
  })
  .map(({ strips, paired, ambient, target, ...system }) => {
    const gear: object[] = []
    const inputs: object[] = []
    const built = strips.map(({ parts, input, tail, second }, s) => {
      const place = (part: Part, i: number) => {
        const { gear: box, ...stage } = part
        gear.push({ id: `g${s}-${i}`, name: `Box ${s}-${i}`, ...box })
        return { id: `s${s}-${i}`, gear: `g${s}-${i}`, ...stage }
      }
      const stages: object[] = parts.map(place)
      if (input) {
        inputs.push({ id: `in${s}`, ...input.box })
        stages.push({ id: `s${s}-in`, gear: 'unit', port: `in${s}`, settings: input.settings })
      }
      stages.push(...tail.map((part, i) => place(part, 50 + i)))
      if (input && second) stages.push({ id: `s${s}-opt`, gear: 'host', port: `opt${s}` })
      return { id: `strip${s}`, name: `Strip ${s}`, stages }
    })
    gear.push({
      id: 'host',
      kind: 'interface',
      name: 'Host unit',
      inputs: strips.map((_, s) => ({ id: `opt${s}`, type: 'digital' })),
    })
    if (inputs.length > 0)
      gear.push({
        id: 'unit',
        kind: 'interface',
        name: 'Unit',
        inputs: [...inputs, { id: 'spare', type: 'line', specs: { fullScale: 18, dynamicRange: 110 } }],
      })
    const reading = readSession({
      format: 'remetra.session',
      version: 2,
      id: 'any',
      name: 'Generated',
      target,
      system,
      room: { ambient },
      gear,
      strips: built,
      pairs: paired && built.length > 1 ? [{ left: 'strip0', right: 'strip1' }] : undefined,
    })
    if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
    return reading.session
  })

/** Where strips meet: after their converters in the host, or on the wire; how many sound at once; what the bus goes through. */
const mixed = fc.record({
  base: anySession,
  digital: fc.boolean(),
  together: fc.constantFrom('all', 'in-turn', 2),
  sends: fc.array(fc.integer({ min: -12, max: 6 }), { minLength: 4, maxLength: 4 }),
  fader: number(-20, 10),
  arithmetic,
  limiter: fc.boolean(),
  input,
})

/** The same sessions with a bus that as many of their strips feed as give what it takes. */
export const anyMix: fc.Arbitrary<Session> = mixed.map((draw) => {
  const { base, digital, together, sends, fader, limiter } = draw
  const gear: object[] = [...base.gear]
  const place = digital ? 'host' : 'desk'
  const specs = digital ? {} : { maxInput: 20, maxOutput: 20, inputImpedance: 10_000, outputImpedance: 100 }
  gear.push({ id: 'bus-fader', kind: 'fader', name: 'Bus fader', place, arithmetic: draw.arithmetic, specs })
  const stages: object[] = [{ id: 'bus-1', gear: 'bus-fader', settings: { gain: fader } }]
  if (digital && limiter) {
    const blocks = [{ type: 'limiter', ceiling: -2 }]
    gear.push({
      id: 'bus-limiter',
      kind: 'processor',
      name: 'Bus limiter',
      domain: 'digital',
      arithmetic: draw.arithmetic,
      blocks,
      specs: {},
    })
    stages.push({ id: 'bus-2', gear: 'bus-limiter', settings: { gain: 0 } })
  }
  if (!digital) {
    gear.push({ id: 'bus-unit', kind: 'interface', name: 'Bus unit', inputs: [{ id: 'in', ...draw.input.box }] })
    stages.push({ id: 'bus-2', gear: 'bus-unit', port: 'in', settings: draw.input.settings })
  }
  const bus = { id: 'bus', name: 'Bus', kind: 'bus', together, stages }
  const gives = (id: string) => {
    const last = base.strips.find((strip) => strip.id === id)?.stages.at(-1)
    const box = base.gear.find((item) => item.id === last?.gear)
    return box && traitsOf(box).domains(box, last?.port).gives
  }
  const wanted = digital ? 'digital' : 'analogue'
  const strips = base.strips.map((strip, i) =>
    gives(strip.id) === wanted ? { ...strip, feeds: [{ to: 'bus', gain: sends[i] ?? 0 }] } : strip,
  )
  const reading = readSession(JSON.parse(JSON.stringify({ ...base, gear, strips: [...strips, bus] })))
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
  return reading.session
})
