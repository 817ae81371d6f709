import { describe, expect, it } from 'vitest'
import { findCables } from '#core/cable-run/find-cables'
import { marksOf } from '#core/cable-run/gain-marks'
import { keepSheet, keptFigures } from '#core/cable-run/keep-sheet'
import { lockedTone } from '#core/cable-run/lock-in'
import { moveText } from '#core/cable-run/move-text'
import type { Part, Wanted } from '#core/cable-run/moves'
import { movesBetween, partsInOrder } from '#core/cable-run/moves'
import { responseOf, responseSignal } from '#core/cable-run/response'
import { runCable } from '#core/cable-run/run'
import { NoCable } from '#core/cable-run/search'
import { sheetTable, sheetsBeside } from '#core/cable-run/sheet-table'
import { readMeasuredSheet, readSession, writeMeasuredSheet } from '#core/files'
import { sine, whiteNoise } from '#core/signals/generate'
import type { Rig } from '#core/signals/rig'
import { filteredAt, simulatedRig } from '#core/simulated/rig'
import { simulatedFor } from '#core/simulated/simulated-interface'
import { ALL, ALONE, cableBench, cableTrial, figureOf, judgedFigures, wrongFigures } from '../support/cable'

const RATE = 48_000
const added = (...parts: Float64Array[]) =>
  Float64Array.from(parts[0] ?? [], (_, i) => parts.reduce((sum, part) => sum + (part[i] ?? 0), 0))

describe('a tone of known frequency', () => {
  it('has its level, in noise, beside hum and with an offset', () => {
    // AES17: a sine whose peak is full scale reads 0 dBFS.
    const tone = sine(RATE, 2, 970, -40)
    const beside = added(tone, sine(RATE, 2, 50, -45), sine(RATE, 2, 150, -50), whiteNoise(RATE, 2, -80, 3)).map(
      (x) => x + 0.01,
    )
    const found = lockedTone(beside, RATE, 970)
    expect(found?.level).toBeCloseTo(-40, 2)
    expect(found?.jumps).toBe(false)
  })

  it('says how far the noise lets it be off', () => {
    const errors = Array.from({ length: 60 }, (_, i) => {
      const found = lockedTone(added(sine(RATE, 0.6, 970, -60), whiteNoise(RATE, 0.6, -62, i + 1)), RATE, 970)
      return found ? [(found.level + 60) / found.error] : []
    }).flat()
    expect(errors.length).toBe(60)
    const spread = Math.sqrt(errors.reduce((sum, z) => sum + z * z, 0) / errors.length)
    expect(spread).toBeGreaterThan(0.6)
    expect(spread).toBeLessThan(1.7)
  })

  it('is none in noise alone, and none in too short a stretch', () => {
    for (let seed = 1; seed <= 40; seed++) expect(lockedTone(whiteNoise(RATE, 0.7, -60, seed), RATE, 970)).toBeNull()
    expect(lockedTone(sine(RATE, 0.2, 970, -20), RATE, 970)).toBeNull()
  })

  it('jumps where samples were lost, and scatters where a contact is loose', () => {
    const whole = sine(RATE, 1.5, 970, -20)
    const lost = new Float64Array(RATE)
    lost.set(whole.subarray(0, RATE / 2))
    lost.set(whole.subarray(RATE / 2 + 64, RATE + 64), RATE / 2)
    expect(lockedTone(lost, RATE, 970)?.jumps).toBe(true)
    const loose = whole.slice(0, RATE).map((x, i) => (i % 12_000 < 3000 ? 0.6 * x : x))
    const found = lockedTone(loose, RATE, 970)
    expect(found?.jumps).toBe(false)
    expect(found?.scatter).toBeGreaterThan(0.5)
    expect(found?.error).toBeLessThan(0.01)
  })
})

describe('the response', () => {
  it('is that of a filter in between: −3 dB at the corner of a high-pass of first order', () => {
    // Textbook: a first-order high-pass loses 3.01 dB at its corner; near 20 Hz at 48 kHz its sampled form is the same.
    expect(filteredAt({ highPass: 20, topLoss: 0 }, RATE, 20)).toBeCloseTo(-3.01, 1)
    expect(filteredAt({ highPass: 0.01, topLoss: 6 }, RATE, RATE / 2)).toBeCloseTo(-6, 2)
  })

  it('is flat where nothing is in between, also on two clocks', () => {
    const signal = responseSignal(RATE, -6)
    expect(signal.reduce((most, x) => Math.max(most, Math.abs(x)), 0)).toBeCloseTo(10 ** (-6 / 20), 6)
    for (const { level } of responseOf(signal, signal, RATE, 0)) expect(level).toBeCloseTo(0, 9)
  })
})

describe('the order of the moves', () => {
  const wants: Wanted[] = [true, false].flatMap((plug) =>
    [null, 256].flatMap((otherBuffer) =>
      [true, false].flatMap((meter) =>
        [null, { level: 94, give: 1 }].flatMap((microphone) =>
          [1, 5].map((marks) => ({ marks, plug, otherBuffer, meter, microphone })),
        ),
      ),
    ),
  )
  /** The loop is known before what rests on it; the top of the gain is found before the plug is read there. */
  const isPossible = (order: readonly Part[]) => {
    const at = (part: Part) => order.indexOf(part)
    return (
      (['meter', 'other-buffer', 'marks', 'plug'] as const).every((part) => at(part) < 0 || at(part) > at('loop')) &&
      (at('plug') < 0 || at('plug') > at('marks'))
    )
  }
  const permutations = (parts: readonly Part[]): Part[][] =>
    parts.length === 0
      ? [[]]
      : parts.flatMap((part) => permutations(parts.filter((each) => each !== part)).map((rest) => [part, ...rest]))

  it('has the fewest moves of all orders that are possible', () => {
    for (const wanted of wants) {
      const order = partsInOrder(wanted)
      expect(isPossible(order)).toBe(true)
      const fewest = Math.min(...permutations(order).filter(isPossible).map(movesBetween))
      expect(movesBetween(order), JSON.stringify(wanted)).toBe(fewest)
    }
  })

  it('has gain marks from the lowest to the highest, in steps where the gain has them', () => {
    const subject = { input: 0, gainMin: 0, gainMax: 60, gainStep: 0, bufferFrames: 128 }
    expect(marksOf(subject, 5)).toEqual([7, 9.5, 12, 14.5, 17].map((position) => ({ position })))
    expect(marksOf({ ...subject, gainStep: 3 }, 3)).toEqual([0, 30, 60].map((said) => ({ said })))
    expect(marksOf({ ...subject, gainMax: 0 }, 3)).toHaveLength(1)
  })
})

describe('a run on a simulated interface', () => {
  it('gives every figure within its ±, with as few moves as there are', async () => {
    const { found, sheet, moves } = await cableTrial({ seed: 3 })
    expect(moves.map((move) => move.do)).toEqual([
      'microphone',
      'cable',
      'meter',
      'buffer',
      'gain',
      'gain',
      'gain',
      'gain',
      'plug',
    ])
    expect(judgedFigures(sheet).length).toBeGreaterThan(22)
    expect(wrongFigures(sheet)).toEqual([])
    expect(found.doubts).toEqual([])
    // Three minutes of signal are allowed for five gain marks.
    expect(found.seconds).toBeLessThan(180)
  })

  it('measures balance and crosstalk over a second cable', async () => {
    const { sheet } = await cableTrial({
      seed: 4,
      wanted: ALONE,
      cables: [
        { output: 0, input: 0, state: 'good' },
        { output: 1, input: 1, state: 'good' },
      ],
    })
    expect(wrongFigures(sheet)).toEqual([])
    for (const id of ['balance', 'crosstalk-1', 'crosstalk-2']) expect(figureOf(sheet, id)?.truth).not.toBeNull()
  })

  it('reads a knob at its positions', async () => {
    const { sheet } = await cableTrial({ seed: 6, hasKnob: true, wanted: { ...ALONE, marks: 4 } })
    expect(sheet.marks.map(({ position }) => position)).toEqual([7, 10.25, 13.75, 17])
    expect(wrongFigures(sheet)).toEqual([])
  })

  it('reads the plug at the lowest gain where there is no other, and tells no equivalent input noise from it', async () => {
    const { found, sheet, moves } = await cableTrial({
      seed: 6,
      wanted: { ...ALONE, meter: true, plug: true },
      leavesOut: (move) => move.do === 'gain',
    })
    expect(moves.map((move) => move.do)).toEqual(['meter', 'gain', 'plug'])
    expect(found.plug?.gain).toBe(0)
    expect(wrongFigures(sheet)).toEqual([])
    expect(figureOf(sheet, 'noise-plug')?.judgement).toContain('No equivalent input noise')
    expect(figureOf(sheet, 'ein')).toBeUndefined()
  })

  it('hears crossed legs, and a dead leg, which it marks', async () => {
    const crossed = await cableTrial({ seed: 2, wanted: ALONE, cables: [{ output: 0, input: 0, state: 'crossed' }] })
    expect(crossed.found.polarity).toBe(-1)
    expect(crossed.sheet.remarks.join(' ')).toContain('Polarity is inverted')
    const leg = await cableTrial({
      seed: 2,
      wanted: { ...ALONE, meter: true },
      cables: [{ output: 0, input: 0, state: 'one-leg' }],
    })
    expect(leg.sheet.remarks.join(' ')).toContain('one leg of a balanced cable')
    expect(figureOf(leg.sheet, 'output-full-scale')?.doubt).toContain('one leg')
    expect(wrongFigures(leg.sheet)).toEqual([])
  })

  it('asks for another cable where the contact is loose, and marks everything where it stays', async () => {
    const loose = [{ output: 0, input: 0, state: 'loose' as const }]
    const replaced = await cableTrial({ seed: 5, wanted: ALONE, cables: loose })
    expect(replaced.moves).toMatchObject([{ do: 'cable', problem: { code: 'loose' } }])
    expect(wrongFigures(replaced.sheet)).toEqual([])
    const kept = await cableTrial({ seed: 5, wanted: ALONE, cables: loose, leavesOut: () => true })
    expect(kept.sheet.figures.every(({ doubt }) => doubt !== null)).toBe(true)
    expect(keptFigures(kept.sheet, false)).toEqual([])
  })

  it('says that the cable is in another input, and measures that one where it stays', async () => {
    const wrong = [{ output: 1, input: 1, state: 'good' as const }]
    const moved = await cableTrial({ seed: 5, wanted: ALONE, cables: wrong })
    expect(moved.moves).toMatchObject([
      { do: 'cable', problem: { code: 'wrong-input', output: 1, input: 1, wanted: 0 } },
    ])
    expect(moved.found.cable).toMatchObject({ output: 0, input: 0 })
    const stays = await cableTrial({ seed: 5, wanted: ALONE, cables: wrong, leavesOut: () => true })
    expect(stays.found.cable).toMatchObject({ output: 1, input: 1 })
    expect(wrongFigures(stays.sheet)).toEqual([])
  })

  it('plugs 150 Ω into the input that is measured, and notices a cable that was left there', async () => {
    const wanted = { ...ALONE, marks: 2, plug: true, meter: true }
    const other = await cableTrial({
      seed: 5,
      wanted,
      cables: [{ output: 0, input: 1, state: 'good' }],
      leavesOut: (move) => move.do === 'cable',
    })
    expect(other.moves.at(-1)).toEqual({ do: 'plug', input: 1, isCableIn: false })
    expect(judgedFigures(other.sheet).map(({ id }) => id)).toContain('ein')
    expect(wrongFigures(other.sheet)).toEqual([])
    const forgotten = await cableTrial({ seed: 5, wanted, forgetsPlug: true })
    expect(forgotten.moves.slice(-2)).toEqual([
      { do: 'plug', input: 0, isCableIn: false },
      { do: 'plug', input: 0, isCableIn: true },
    ])
    expect(wrongFigures(forgotten.sheet)).toEqual([])
  })

  it('ends where no cable is found and none is brought', async () => {
    await expect(cableTrial({ seed: 5, wanted: ALONE, cables: [], leavesOut: () => true })).rejects.toThrow(NoCable)
    const brought = await cableTrial({ seed: 5, wanted: ALONE, cables: [] })
    expect(brought.moves).toMatchObject([{ do: 'cable', problem: { code: 'none' } }])
    expect(wrongFigures(brought.sheet)).toEqual([])
  })

  it('asks for a larger buffer where samples are lost, and keeps nothing that was measured so', async () => {
    const raised = await cableTrial({
      seed: 5,
      wanted: { ...ALONE, microphone: ALL.microphone },
      unit: { dropoutEvery: 0.7 },
    })
    expect(raised.moves.at(-1)).toMatchObject({ do: 'cable', problem: { code: 'samples-lost' } })
    expect(raised.found.microphone).toBeNull()
    expect(wrongFigures(raised.sheet)).toEqual([])
    const kept = await cableTrial({ seed: 5, wanted: ALONE, unit: { dropoutEvery: 0.7 }, leavesOut: () => true })
    expect(kept.found.doubts).toContain('samples-lost')
    expect(kept.found.roundTrips).toEqual([])
    expect(keptFigures(kept.sheet, false)).toEqual([])
  })

  it('marks the round trip where output and input run on two clocks', async () => {
    const { sheet } = await cableTrial({ seed: 5, wanted: ALONE, unit: { driftPpm: 14 } })
    expect(figureOf(sheet, 'round-trip-1')?.doubt).toContain('two clocks')
    expect(figureOf(sheet, 'response-high')?.doubt).toBeNull()
    expect(wrongFigures(sheet)).toEqual([])
  })

  it('waits for a hand that turns slowly, and for one that pauses on its way', async () => {
    const { unit, input, output, session } = cableBench
    const simulated = simulatedFor(unit, input, output, session.system, 3)
    const rig = simulatedRig(simulated, RATE, 128)
    /** Where the hand is going, and the takes that it still rests on its way. */
    let [target, rests] = [rig.gain, 0]
    const creeping: Rig = {
      sampleRate: RATE,
      outputs: 2,
      inputs: 2,
      take: (played, frames) => {
        if (rests > 0) rests--
        else if (rig.gain < target) {
          // The last decibel is found slowly.
          rig.gain = rig.gain < target - 1 ? Math.min(target - 1, rig.gain + 7) : Math.min(target, rig.gain + 0.2)
          if (rig.gain === simulated.input.gainMin + 21) rests = 2
        }
        return rig.take(played, frames)
      },
    }
    const subject = { input: 0, gainMin: 0, gainMax: 60, gainStep: 0, bufferFrames: 128 }
    const found = await runCable(
      creeping,
      subject,
      { ...ALONE, marks: 2 },
      {
        progress: () => undefined,
        settled: () => undefined,
        ask: () => {
          target = simulated.input.gainMax
          return () => null
        },
      },
    )
    expect(found.marks[0]?.gain.value).toBeCloseTo(simulated.input.gainMax - simulated.input.gainMin, 1)
  })

  it('begins at −60 dBFS and grows by 6 dB until a tone comes back, at most to −12 dBFS', async () => {
    const { unit, input, output, session } = cableBench
    const rig = simulatedRig(simulatedFor(unit, input, output, session.system, 1), RATE, 128)
    const peaks: number[] = []
    const heard = {
      rig,
      take: (played: readonly (Float64Array | null)[], frames: number) => {
        peaks.push(20 * Math.log10(Math.max(0, ...(played[0] ?? []).map(Math.abs))))
        return rig.take(played, frames)
      },
    }
    const { played } = await findCables(heard)
    // At last nothing is played, and then a step less: a tone that is the cable’s follows.
    expect(peaks.map(Math.round)).toEqual([-60, -54, -48, -42, -36, -30, -Infinity, -36])
    expect(played).toBe(-30)
    rig.truth.cables = []
    expect(await findCables(heard)).toMatchObject({ cables: [], otherSoundAt: null })
    expect(Math.max(...peaks)).toBeLessThan(-11.9)
  })
})

it('takes no sound from elsewhere for a cable', async () => {
  const silence = (frames: number) => new Float64Array(frames + RATE / 2)
  const hears = (sound: (frames: number) => Float64Array) =>
    findCables({
      rig: { sampleRate: RATE, outputs: 2, inputs: 1, take: () => Promise.resolve([]) },
      take: (_, frames) => Promise.resolve([sound(frames)]),
    })
  // A tone that happens to be ours, from another program.
  const tone = await hears((frames) => sine(RATE, frames / RATE + 0.5, 970, -20))
  expect(tone).toMatchObject({ cables: [], otherSoundAt: 0 })
  // It may fade by as much as is played less; only the silence tells it then.
  const levels = [-20, -20, -26]
  const fading = await hears((frames) => sine(RATE, frames / RATE + 0.5, 970, levels.shift() ?? -26))
  expect(fading).toMatchObject({ cables: [], otherSoundAt: 0 })
  let take = 0
  const beeps = await hears((frames) =>
    take++ % 3 === 2 ? sine(RATE, frames / RATE + 0.5, 970, -20) : silence(frames),
  )
  expect(beeps.cables).toEqual([])
})

describe('the measured sheet', () => {
  const trial = cableTrial({ seed: 3, wanted: { ...ALL, marks: 3, microphone: null }, hasKnob: true })

  it('is kept beside the data sheet, and read again by the file', async () => {
    const { sheet } = await trial
    const next = keepSheet(cableBench.session, cableBench, sheet, [128, 256], false)
    const reading = readSession(next)
    expect(reading.ok).toBe(true)
    const unit = next.gear.find(({ id }) => id === cableBench.unit.id) as typeof cableBench.unit
    const input = unit.inputs.find(({ id }) => id === cableBench.input.id) as typeof cableBench.input
    for (const key of ['fullScale', 'gainMax', 'ein', 'dynamicRange'] as const) {
      expect(input.measured?.[key]?.on, key).toBe('2026-12-01')
      expect(input.measured?.[key]?.spread, key).toMatchObject({ is: 'sd' })
    }
    expect(input.measured?.fullScale?.value).toBeCloseTo(figureOf(sheet, 'input-full-scale')?.value ?? NaN, 2)
    expect(input.knob).toHaveLength(3)
    const trips = next.system.roundTrips
      ?.slice(-2)
      .map(({ bufferFrames, milliseconds }) => [bufferFrames, milliseconds])
    expect(trips?.map(([frames]) => frames)).toEqual([128, 256])
    expect(trips?.[0]?.[1]).toBeCloseTo(figureOf(sheet, 'round-trip-1')?.value ?? NaN, 3)
  })

  it('keeps no round trip of the browser as the host’s, and no doubtful figure', async () => {
    const { sheet } = await trial
    const before = cableBench.session.system.roundTrips
    expect(keepSheet(cableBench.session, cableBench, sheet, [128, 256], true).system.roundTrips).toEqual(before)
    const doubtful = { ...sheet, figures: sheet.figures.map((each) => ({ ...each, doubt: 'Not so.' })) }
    expect(keepSheet(cableBench.session, cableBench, doubtful, [128], false)).toEqual(cableBench.session)
  })

  it('tells nothing in dBu without a multimeter, and says so', async () => {
    const { sheet } = await cableTrial({ seed: 3, wanted: { ...ALONE, marks: 2, plug: true } })
    expect(sheet.figures.filter(({ unit }) => unit.startsWith('dBu'))).toEqual([])
    expect(sheet.remarks.join(' ')).toContain('relative to full scale')
  })

  it('comes back from its file byte for byte, and a broken one says where', async () => {
    const { sheet } = await trial
    const text = writeMeasuredSheet(sheet)
    const reading = readMeasuredSheet(text)
    expect(reading.ok && writeMeasuredSheet(reading.sheet)).toBe(text)
    const faultOf = (source: string) => {
      const found = readMeasuredSheet(source)
      return found.ok ? null : found.faults[0]
    }
    expect(faultOf('{')?.code).toBe('not-json')
    expect(faultOf('[]')?.message).toContain('a list of 0')
    expect(faultOf(text.replace('remetra.measured-sheet', 'other'))?.path).toBe('format')
    expect(faultOf(text.replace('"version": 1', '"version": 2'))?.message).toContain('knows 1')
    expect(faultOf(text.replace('"digits": 2', '"digits": "two"'))?.path).toContain('figures[0].digits')
  })

  it('stands as a table with every figure, mark and point of the response', async () => {
    const { sheet } = await trial
    const table = sheetTable(sheet)
    expect(table).toHaveLength(1 + sheet.figures.length + sheet.response.length + sheet.marks.length)
    expect(new Set(table.map(({ length }) => length)).size).toBe(1)
  })

  it('stands beside another one: only what both may not be off by differs', async () => {
    const { sheet } = await trial
    const other = {
      ...sheet,
      figures: sheet.figures.map((each) =>
        each.id === 'ein'
          ? { ...each, value: each.value + 3 * each.u }
          : each.id === 'loop-gain'
            ? { ...each, value: each.value + 2 * each.u }
            : each,
      ),
    }
    const pairs = sheetsBeside(sheet, other)
    expect(pairs.filter(({ differs }) => differs).map(({ first }) => first?.id)).toEqual(['ein'])
    expect(sheetsBeside(sheet, { ...sheet, figures: [] })[0]).toMatchObject({ second: null, by: null, differs: false })
  })
})

describe('what a hand is told', () => {
  it('is short, and names the input', () => {
    const moves = [
      { do: 'cable', problem: null },
      { do: 'cable', problem: { code: 'none' } },
      { do: 'cable', problem: { code: 'loose', output: 0, input: 1 } },
      { do: 'cable', problem: { code: 'samples-lost' } },
      { do: 'cable', problem: { code: 'other-sound', input: 0 } },
      { do: 'cable', problem: { code: 'wrong-input', output: 0, input: 1, wanted: 0 } },
      { do: 'gain', to: { position: 9.5 }, hint: null },
      { do: 'gain', to: { position: 17 }, hint: 'turned-down' },
      { do: 'gain', to: { said: 30 }, hint: 'cable-out' },
      { do: 'plug', input: 0, isCableIn: false },
      { do: 'plug', input: 1, isCableIn: true },
      { do: 'buffer', frames: 256 },
      { do: 'meter', played: -6 },
      { do: 'microphone', level: 94 },
    ] as const
    const texts = moves.map((move) => moveText(move, 'mic1', (channel) => `mic${channel + 1}`))
    for (const { title, detail } of texts)
      for (const sentence of `${title} ${detail}`.split(/(?<=[.:;]) /))
        expect(sentence.split(' ').length, sentence).toBeLessThan(21)
    expect(texts[6]?.title).toBe('Turn the gain up to half past nine.')
    expect(texts[7]?.title).toBe('Turn the gain up fully.')
    expect(texts[8]).toEqual({
      title: 'Turn the gain up to 30 dB on its scale.',
      detail: 'The tone is gone. Check the cable and mutes.',
    })
    expect(new Set(texts.map(({ title, detail }) => title + detail)).size).toBe(moves.length)
  })
})
