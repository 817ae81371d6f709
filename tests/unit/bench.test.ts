import { describe, expect, it } from 'vitest'
import { benchOf } from '#core/bench/bench'
import { channelBalance } from '#core/bench/channel-balance'
import type { ComparedRow } from '#core/bench/compare-units'
import { compareUnits, comparisonTable, differencesOf } from '#core/bench/compare-units'
import { equivalentInputNoise } from '#core/bench/equivalent-input-noise'
import { gainMarks } from '#core/bench/gain-marks'
import { inItsPlace } from '#core/bench/in-its-place'
import { inputFullScale } from '#core/bench/input-full-scale'
import { repeated } from '#core/bench/judgement'
import { outputFullScale } from '#core/bench/output-full-scale'
import type { Procedure, Row } from '#core/bench/procedure'
import { missingFor, procedures } from '#core/bench/procedures'
import { roundTrip } from '#core/bench/round-trip'
import { checkTake, keepTake } from '#core/bench/take-check'
import type { ChannelLevels } from '#core/measure/levels/measure-levels'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { inForce } from '#core/model'
import { readSession } from '#core/files'
import type { AudioInterface } from '#core/gear'
import type { Session } from '#core/session'
import { joined } from '#core/numeric/joined'
import { sine, whiteNoise } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { recordTake } from '#core/simulated/record'
import { simulatedFor } from '#core/simulated/simulated-interface'
import { demoSession } from '#demo/index'
import { shelfGear } from '#demo/shelf'
import { benchFor, fed, kept, tried } from '../support/bench'
import { example1, valid } from '../support/sessions'

const session = demoSession()
const bench = benchFor(session)
const simulated = simulatedFor(bench.unit, bench.input, bench.output, session.system, 4)
const reading = (volts: number): Row => ({
  name: 'read',
  typed: { volts },
  found: null,
  sampleRate: 0,
  simulated: null,
})
const said = (remarks: { text: string }[]) => remarks.map(({ text }) => text).join(' ')

describe('what stands on the bench', () => {
  it('the strip’s own unit and input, unless another is chosen', () => {
    expect(bench).toMatchObject({
      unit: { id: 'saltmarsh' },
      input: { id: 'mic1' },
      second: { id: 'mic2' },
      output: { id: 'main' },
    })
    expect(benchFor(session, 'narrator', { input: 'line5', output: 'phones' })).toMatchObject({
      input: { id: 'line5' },
      output: { id: 'phones' },
      voice: null,
    })
    expect(benchFor(session, 'cello').voice).toMatchObject({ distance: 0.8, microphone: { id: 'eelgrass' }, gain: 24 })
  })
  it('without an interface there is none', () => {
    const bare = {
      ...session,
      gear: session.gear.filter((gear) => gear.kind !== 'interface'),
      strips: session.strips.map((strip) => ({ ...strip, stages: strip.stages.slice(0, 1) })),
    }
    expect(benchOf(bare, 'narrator', {})).toBeNull()
  })
  it('what a procedure lacks is told in words', () => {
    const small = benchFor(valid(example1()))
    const missing = procedures.map((procedure) => missingFor(procedure, small))
    expect(missing.filter(Boolean)).toHaveLength(6)
    expect(said(missing.flatMap((text) => (text ? [{ text }] : [])))).toContain('has no output')
    expect(procedures.map((procedure) => missingFor(procedure, bench)).every((text) => text === null)).toBe(true)
  })
})

describe('output full scale', () => {
  const typed = outputFullScale.initial(bench)
  it('0.7746 V at −20 dBFS are +20 dBu (0 dBu is 0.7746 V)', () => {
    const { figures } = outputFullScale.outcome(bench, typed, [reading(0.7746)])
    expect(figures[0]?.value).toBeCloseTo(20, 3)
    expect(figures[0]?.judgement).toBe('2.00 dB hotter than the data sheet.')
  })
  it('three readings: their mean, and half their range with the meter’s 1 % (0.09 dB)', () => {
    const { figures } = outputFullScale.outcome(bench, typed, [0.6, 0.61, 0.605].map(reading))
    const [low, high] = [0.6, 0.61].map((volts) => 20 * Math.log10(volts / Math.sqrt(0.6)) + 20) as [number, number]
    expect(figures[0]?.spread).toBeCloseTo(Math.hypot((high - low) / 2, 20 * Math.log10(1.01)), 6)
  })
  it('6 dB too little: one leg was measured', () => {
    expect(
      said(outputFullScale.outcome(bench, typed, [reading(0.7746 * 10 ** ((18 - 6.02 - 20) / 20))]).remarks),
    ).toContain('one leg')
  })
})

describe('what one reading cannot show', () => {
  it('alone it is worth no less than 0.1 dB; repeats show it themselves', () => {
    expect(repeated([3], 0).spread).toBeCloseTo(0.1, 9)
    expect(repeated([3], 0.2).spread).toBeCloseTo(Math.hypot(0.2 * Math.sqrt(3), 0.1), 9)
    expect(repeated([3, 3.1], 0.2).spread).toBeCloseTo(0.05, 9)
  })
  it('an input is known no better than the output that it was measured from: 0.5 dB where that is as printed', () => {
    const found = { frequency: 997, level: -32.38, deviation: 0.01, residual: -90, clipped: false, dc: 0, hum: null }
    const row = (name: string) => ({ name, typed: { gain: 0, pad: 0 }, found, sampleRate: 48_000, simulated: null })
    const spreadOf = (typed: Record<string, number>) =>
      inputFullScale.outcome(bench, { ...inputFullScale.initial(bench), ...typed }, [row('a'), row('b')] as never)
        .figures[0]?.spread
    expect(bench.output?.measured).toBeUndefined()
    expect(spreadOf({})).toBeCloseTo(0.5, 2)
    // From a voltage: the multimeter’s 1 %.
    expect(spreadOf({ voltage: 0.1 })).toBeCloseTo(0.086, 2)
  })
})

describe('input full scale', () => {
  it('a known voltage, by hand: 0.1 V (−17.78 dBu) reads −32.38 dBFS at 0 dB: 14.60 dBu', () => {
    const found = {
      frequency: 997,
      level: -32.38,
      deviation: 0.01,
      residual: -90,
      residualA: -92,
      thdN: -60,
      harmonics: [],
      seconds: 5,
      clipped: false,
    }
    const row = { name: 'a.wav', typed: { gain: 0, pad: 0 }, found, sampleRate: 48_000, simulated: null }
    const outcome = inputFullScale.outcome(bench, { ...inputFullScale.initial(bench), voltage: 0.1 }, [row])
    expect(outcome.figures[0]?.value).toBeCloseTo(14.6, 2)
    // 10 dB more gain reads 10 dB more, a pad of 20 dB 20 dB less: the same input.
    const other = { ...row, typed: { gain: 10, pad: 20 }, found: { ...found, level: -42.38 } }
    expect(
      inputFullScale.outcome(bench, { ...inputFullScale.initial(bench), voltage: 0.1 }, [other]).figures[0]?.value,
    ).toBeCloseTo(14.6, 2)
    expect(
      inForce(
        kept(session, outcome).gear.flatMap((gear) => (gear.kind === 'interface' ? gear.inputs : []))[0] as never,
      ),
    ).toMatchObject({ fullScale: 14.6 })
  })
  it('on the simulated interface with a known voltage, which needs no output that was measured', () => {
    const { outcome } = tried(inputFullScale as unknown as Procedure, bench, simulated, { voltage: 0.25 })
    expect(Math.abs((outcome.figures[0]?.value ?? 0) - simulated.input.fullScale)).toBeLessThan(0.05)
    expect(said(outcome.remarks)).not.toContain('Measure the output first')
  })
  it('a recording that clips is not kept', () => {
    const row = {
      name: 'a.wav',
      typed: { gain: 0, pad: 0 },
      found: {
        frequency: 997,
        level: -0.1,
        deviation: 0,
        residual: -20,
        residualA: -22,
        thdN: -20,
        harmonics: [],
        seconds: 5,
        clipped: true,
      },
      sampleRate: 48_000,
      simulated: null,
    }
    expect(inputFullScale.outcome(bench, inputFullScale.initial(bench), [row])).toMatchObject({ keep: null })
  })
})

describe('equivalent input noise', () => {
  it('a shorted plug is found out, and not kept', () => {
    const silent = { ...simulated, input: { ...simulated.input, ein: -132.2 } }
    const { outcome } = tried(equivalentInputNoise as unknown as Procedure, bench, silent, { resistor: 0 })
    expect(outcome.keep).toBeNull()
    expect(said(outcome.remarks)).toContain('shorted plug')
  })
  it('less than the resistor’s own noise cannot be', () => {
    const row = (gain: number, level: number) => ({
      name: 'n',
      typed: { gain },
      found: {
        weighted: level,
        flat: level + 2,
        withoutHum: level,
        deviation: 0.1,
        peak: -70,
        seconds: 10,
        leftOut: 0,
        hum: null,
      },
      sampleRate: 48_000,
      simulated: null,
    })
    const outcome = equivalentInputNoise.outcome(bench, { channel: 1, resistor: 150 }, [row(60, -134 - (14.6 - 60))])
    expect(outcome.keep).toBeNull()
    expect(said(outcome.remarks)).toContain('that is impossible')
  })
  it('a highest gain of two decimals is no fault where it is prefilled with one', () => {
    const odd = { ...bench, input: { ...bench.input, specs: { ...bench.input.specs, gainMax: 58.85 as never } } }
    const found = {
      weighted: -80,
      flat: -78,
      withoutHum: -80,
      deviation: 0.1,
      peak: -70,
      seconds: 10,
      leftOut: 0,
      hum: null,
    }
    const typed = equivalentInputNoise.initialEach(odd, {}, 0)
    expect(typed.gain).toBe(58.9)
    expect(
      said(
        equivalentInputNoise.outcome(odd, { channel: 1, resistor: 150 }, [
          { name: 'n', typed, found, sampleRate: 48_000, simulated: null },
        ]).remarks,
      ),
    ).not.toContain('is no gain of')
  })
  it('says what of a recording was left out', () => {
    const found = {
      weighted: -80,
      flat: -78,
      withoutHum: -80,
      deviation: 0.1,
      peak: -70,
      seconds: 7,
      leftOut: 8,
      hum: null,
    }
    const outcome = equivalentInputNoise.outcome(bench, { channel: 1, resistor: 150 }, [
      { name: 'knock.wav', typed: { gain: 60 }, found, sampleRate: 48_000, simulated: null },
    ])
    expect(said(outcome.remarks)).toContain(
      '“knock.wav” is alike: it has a knock, a click, a gap or a dropout. 8.0 s are left out, and the longest calm stretch of 7.0 s measured.',
    )
  })
  it.each([
    [equivalentInputNoise, { gain: 61 }],
    [inputFullScale, { gain: 61, pad: 0 }],
  ])('a gain that the input does not have is refused, with those that it has', (procedure, typed) => {
    const found = {
      weighted: -80,
      flat: -78,
      withoutHum: -80,
      deviation: 0.1,
      peak: -70,
      seconds: 10,
      leftOut: 0,
      hum: null,
      level: -20,
      frequency: 997,
      clipped: false,
    }
    const outcome = (procedure as unknown as Procedure).outcome(
      bench,
      { channel: 1, resistor: 150, played: -20, frequency: 997 },
      [{ name: 'n', typed, found, sampleRate: 48_000, simulated: null }],
    )
    expect(outcome.keep).toBeNull()
    expect(said(outcome.remarks)).toContain('61.0 dB is no gain of mic1: it gives from 0.0 to 60.0 dB')
  })
})

describe('gain at the knob’s marks', () => {
  const plateau = (position: number, level: number, said_?: number): Row => ({
    name: 'k',
    typed: { position, played: -70, said: said_ },
    found: { at: 0, seconds: 3, level, deviation: 0.01, clipped: false },
    sampleRate: 48_000,
    simulated: null,
  })
  it('differences of the levels are differences of gain; the marks go into the session', () => {
    const outcome = gainMarks.outcome(bench, {}, [plateau(7, -68), plateau(12, -40.5), plateau(17, -9)])
    const after = kept(session, outcome)
    const [input] = (after.gear.find((gear) => gear.id === 'saltmarsh') as AudioInterface).inputs
    expect(input).toMatchObject({
      knob: [
        { position: 7, gain: 0 },
        { position: 12, gain: 27.5 },
        { position: 17, gain: 59 },
      ],
      measured: { gainMax: { value: 59 } },
    })
  })
  it('a scale whose decibels are too small', () => {
    expect(
      said(gainMarks.outcome(bench, {}, [plateau(7, -68, 0), plateau(12, -48, 21), plateau(17, -10, 60)]).remarks),
    ).toContain('at the worst it is −2.00 dB off')
  })
  it('a gain that falls while the knob rises is not kept', () => {
    expect(gainMarks.outcome(bench, {}, [plateau(7, -68), plateau(9, -70), plateau(17, -10)]).keep).toBeNull()
  })
})

describe('balance and polarity', () => {
  const row = (more: object): Row => ({
    name: 'b',
    typed: {},
    found: {
      difference: -0.3,
      deviation: 0.01,
      sameWay: true,
      keepsPolarity: [true, true],
      lagFrames: 0,
      likeness: 1,
      count: 9,
      ...more,
    },
    sampleRate: 48_000,
    simulated: null,
  })
  it('the second input’s full scale is the first’s less their difference', () => {
    const [first, second] = (
      kept(session, channelBalance.outcome(bench, {}, [row({})])).gear.find(
        (gear) => gear.id === 'saltmarsh',
      ) as AudioInterface
    ).inputs
    expect(second?.type !== 'digital' && second?.measured?.fullScale?.value).toBeCloseTo(14.6 + 0.3, 2)
    expect(first).toEqual(bench.input)
  })
  it.each([
    [{ likeness: 0.4 }, 'do not hold the same signal'],
    [{ difference: -6.02 }, 'no imbalance of two inputs that are set alike'],
  ])('%o is not kept', (more, words) => {
    const outcome = channelBalance.outcome(bench, {}, [row(more)])
    expect(outcome.keep).toBeNull()
    expect(said(outcome.remarks)).toContain(words)
  })
})

describe('round trip', () => {
  const row = (more: object): Row => ({
    name: 'l',
    typed: { bufferFrames: 128 },
    found: {
      lagFrames: 400,
      milliseconds: 8.333,
      polarity: 1,
      level: -3,
      confidence: 0.8,
      repeats: [400, 400.2, 399.8],
      spreadFrames: 0.2,
      driftPpm: 0,
      ...more,
    },
    sampleRate: 48_000,
    simulated: null,
  })
  it('its repeats give the spread; it goes into the system’s list', () => {
    const outcome = roundTrip.outcome(bench, {}, [row({})])
    expect(outcome.figures[0]?.value).toBeCloseTo(400 / 48, 6)
    expect(outcome.figures[0]?.spread).toBeCloseTo(0.2 / 48, 6)
    expect(kept(session, outcome).system.roundTrips?.at(-1)).toMatchObject({
      sampleRate: 48_000,
      bufferFrames: 128,
      milliseconds: 8.333,
      unit: 'saltmarsh',
      on: '2026-11-25',
    })
  })
  it.each([
    [{ confidence: 0.09 }, 'only 1.1 times'],
    [{ lagFrames: -20 }, 'before what was played'],
    [{ spreadFrames: 64 }, 'samples were lost'],
  ])('%o is not kept', (more, words) => {
    const outcome = roundTrip.outcome(bench, {}, [row(more)])
    expect(outcome.keep).toBeNull()
    expect(said(outcome.remarks)).toContain(words)
  })
  it('two clocks are told', () =>
    expect(said(roundTrip.outcome(bench, {}, [row({ driftPpm: 25 })]).remarks)).toContain('25.0 ppm'))
})

describe('the simulated interface', () => {
  const loop = { from: 'output', signal: { kind: 'sine', frequency: 997, level: -10, seconds: 2 }, gains: [0] } as const
  const take = { simulated, sampleRate: 48_000, channels: [loop] }
  it('is the same for a seed, and another for another', () => {
    expect(recordTake(take)).toEqual(recordTake(take))
    expect(simulatedFor(bench.unit, bench.input, bench.output, session.system, 4)).toEqual(simulated)
    expect(simulatedFor(bench.unit, bench.input, bench.output, session.system, 5)).not.toEqual(simulated)
  })
  const channel = (change: object, gain = 0): ChannelLevels => {
    const result = fed(
      new LevelsMeter(),
      recordTake({ ...take, simulated: { ...simulated, ...change }, channels: [{ ...loop, gains: [gain] }] }),
    )
    if (!result.ok) throw new Error(result.fault.message)
    return result.report.channels[0] as ChannelLevels
  }
  it('clips at full scale', () => expect(channel({}, 40).clippedRunCount).toBeGreaterThan(1000))
  it('has the DC it is said to have', () =>
    expect(channel({ input: { ...simulated.input, dc: 0.01 } }).dc).toBeCloseTo(-40, 0))
  it('a short word is noisier: 16 bits against 24 in an idle input', () => {
    const idle = (wordLength: 16 | 24) =>
      fed(
        new LevelsMeter(),
        recordTake({
          simulated: { ...simulated, wordLength },
          sampleRate: 48_000,
          channels: [{ from: 'resistor', ohms: 150, seconds: 3, gain: 0 }],
        }),
      )
    const [long, short] = [idle(24), idle(16)]
    expect(
      short.ok && long.ok && (short.report.channels[0]?.rmsA ?? 0) - (long.report.channels[0]?.rmsA ?? 0),
    ).toBeGreaterThan(8)
  })
  it('No. 8 loses buffers, No. 7 has a clock of its own: both are found out in the round trip', () => {
    const remarks = (number: number) => {
      const { outcome } = tried(
        roundTrip as unknown as Procedure,
        bench,
        simulatedFor(bench.unit, bench.input, bench.output, session.system, number),
      )
      return { words: said(outcome.remarks), kept: outcome.keep !== null }
    }
    expect(remarks(8)).toMatchObject({ kept: false, words: expect.stringContaining('samples were lost') as string })
    expect(remarks(7).words).toMatch(/drift by 1[34]\.\d ppm/)
  })
})

describe('units side by side', () => {
  const shelf = shelfGear().filter((gear): gear is AudioInterface => gear.kind === 'interface')
  const shingle =
    shelf.find((gear) => gear.id === 'shingle') ??
    (shelf.find((gear) => gear.inputs.some((input) => input.type === 'mic')) as AudioInterface)
  const units = [bench.unit, shingle]
  const comparison = compareUnits(session, units, 'mic', 'saltmarsh')
  const row = (title: string) => comparison.rows.find((each) => each.title === title)
  it('printed and measured, by hand: EIN −127 and converter −110 dBFS at 15 dBu', () => {
    expect(row('0 dBFS in at')?.values[0]).toMatchObject({ printed: 15, measured: 14.6 })
    const together = (fullScale: number) => 10 * Math.log10(10 ** -12.7 + 10 ** ((fullScale - 40 - 110) / 10))
    expect(row('Input noise at 40 dB')?.values[0]?.printed).toBeCloseTo(together(15), 6)
    expect(row('Input noise at 40 dB')?.values[0]?.measured).toBeCloseTo(together(14.6), 6)
    expect(row('Noise crossover')?.values[0]?.printed).toBeCloseTo(33.3, 1)
    expect(row('Round trip, 128 frames')?.values[0]?.printed).toBeCloseTo(7.667, 3)
    expect(row('Round trip, 64 frames')?.values[0]?.measured).toBeCloseTo(5.12, 3)
    expect(row('Round trip, 64 frames')?.values[1]?.measured).toBeNull()
  })
  it('a difference counts where it is larger than both may be off: full scale ±0.1 here, ±0.58 printed there', () => {
    const [unit] = differencesOf(comparison, row('0 dBFS in at') as ComparedRow)
    const first = comparison.rows[0]?.values
    // Saltmarsh is measured ±0.1 (half range), the other printed: ±0.5; a/√3 each, twice the root of the sum of squares.
    expect(first?.[0]?.u).toBeCloseTo(0.1 / Math.sqrt(3), 6)
    expect(first?.[1]?.u).toBeCloseTo(0.5 / Math.sqrt(3), 6)
    expect(unit?.give).toBeCloseTo((2 * Math.hypot(0.1, 0.5)) / Math.sqrt(3), 6)
    expect(unit?.isLarger).toBe(Math.abs(unit?.by ?? 0) > (unit?.give ?? 0))
  })
  it('of two that are printed alike nothing is said to differ', () => {
    const twin = { ...shingle, id: 'twin', name: 'Twin' }
    const alike = compareUnits(session, [shingle, twin], 'mic', undefined)
    for (const each of alike.rows)
      for (const { by, isLarger } of differencesOf(alike, each)) {
        expect(by).toBe(0)
        expect(isLarger).toBe(false)
      }
  })
  it('a measured round trip is known by its repeats, a printed one by its delays', () => {
    const values = row('Round trip, 64 frames')?.values
    expect(values?.[0]?.u).toBeLessThan(values?.[1]?.u ?? 0)
  })
  it('as a table for a spreadsheet, with as many cells in each row', () => {
    const table = comparisonTable(comparison)
    expect(new Set(table.map((each) => each.length))).toEqual(new Set([6]))
    expect(table[0]?.[2]).toContain('Saltmarsh Four, mic1, data sheet')
  })
  it('in the strip’s place: the same as evaluating it there', () => {
    const noisy = {
      ...bench.unit,
      id: 'noisy',
      name: 'Noisy',
      latency: { ...bench.unit.latency, safetyIn: 24 + 480 },
      inputs: bench.unit.inputs.map((input) =>
        input.type === 'digital' ? input : { ...input, measured: undefined, specs: { ...input.specs, ein: -100 } },
      ),
    } as never as AudioInterface
    const [place] = inItsPlace(session, session.strips[0] as never, [bench.unit, noisy])
    const before = evaluateSession(session).strips[0]?.points.at(-1)?.snr as number
    expect(place?.quieter).toBeLessThan(-0.5)
    expect(place?.quieter).toBeGreaterThan(-before)
    // 480 frames are 10 ms; the measured difference of 0.11 ms belongs to the strip's own unit.
    expect(place?.sooner).toBeCloseTo(-9.89, 1)
    expect(place?.words).toMatch(/dB noisier here; 9\.9 ms later; at 3\d\.\d dB/)
  })
  it('each with the round trips that were measured of it', () => {
    const other = { ...bench.unit, id: 'other', name: 'Other' }
    const measured = {
      ...session,
      system: {
        ...session.system,
        roundTrips: [
          ...(session.system.roundTrips ?? []),
          { sampleRate: 48_000, bufferFrames: 128, milliseconds: 5, unit: 'other' },
        ],
      },
    } as Session
    const rows = compareUnits(measured, [bench.unit, other], 'mic', 'saltmarsh').rows.find(
      (each) => each.title === 'Round trip, 128 frames',
    )
    const own = evaluateSession(session).strips[0]?.latency.find((each) => each.route === 'software')
      ?.milliseconds as number
    const before = compareUnits(session, [bench.unit], 'mic', 'saltmarsh').rows.find(
      (each) => each.title === 'Round trip, 128 frames',
    )?.values[0]?.measured as number
    expect(rows?.values[1]?.measured).toBe(5)
    expect(rows?.values[0]?.measured).toBe(before)
    expect(evaluateSession(measured).strips[0]?.latency.find((each) => each.route === 'software')?.milliseconds).toBe(
      own,
    )
    expect(inItsPlace(measured, session.strips[0] as never, [other])[0]?.sooner).toBeCloseTo(before - 5, 9)
  })
})

describe('a take check', () => {
  const rehearsal = joined(Array.from({ length: 40 }, (_, i) => whiteNoise(48_000, 1, -32 + ((i * 7) % 5), i + 1)))
  const result = fed(new LevelsMeter(), writeWav([rehearsal, sine(48_000, 40, 500, -20)], 48_000, 24))
  const channels = result.ok ? result.report.channels : []
  it('level, crest, surge and signal-to-noise, and they go into the source', () => {
    const check = checkTake(channels[0] as ChannelLevels, 3600, { level: 68 }, { average: -30 })
    expect(check?.level).toBeCloseTo(68 + (channels[0]?.rms ?? 0) + 30, 9)
    expect(check?.surge).toBeGreaterThan(0)
    expect(check?.surge).toBeLessThan(12)
    const after = readSession(
      keepTake(
        session,
        { id: 'narrator-voice', kind: 'sound-source' },
        check as never,
        'Take check of a.wav',
        '2026-11-25',
      ),
    )
    expect(after.ok && after.session.gear.find((gear) => gear.id === 'narrator-voice')).toMatchObject({
      measured: {
        level: { on: '2026-11-25' },
        crest: {},
        surge: { value: expect.closeTo(check?.surge ?? 0, 1) as number },
      },
    })
  })
  it('a tone has level and crest, but no law of peaks: no surge is written', () => {
    const check = checkTake(channels[1] as ChannelLevels, 3600, { level: 68 }, { average: -30 })
    expect(check).toMatchObject({ surge: null, clipping: { why: 'too-even' } })
  })
})
