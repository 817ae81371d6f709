import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Finding } from '#core/checks/finding'
import type { SettingChange } from '#core/edits'
import { applyChanges } from '#core/edits'
import { readSession } from '#core/files'
import { example1, input, strip, valid, withAt } from '../support/sessions'

type Path = (string | number)[]
const settings: Path = ['strips', 0, 'stages', 2, 'settings']
const specs: Path = ['gear', 2, 'inputs', 0, 'specs']

const findings = (file: object, of = 0): Finding[] => evaluateSession(valid(file)).strips[of]?.findings ?? []
const find = (file: object, code: string, of = 0) => findings(file, of).find((each) => each.code === code)
const change = (...edits: [Path, unknown][]) =>
  edits.reduce((file, [path, value]) => withAt(file, path, value), example1())

describe('findings, each with what to do', () => {
  it('nothing but notes on worked example 1 with the planned gain', () => {
    expect(findings(change([[...settings, 'gain'], 39])).every((each) => each.severity === 'note')).toBe(true)
  })
  it('every finding says what to do', () => {
    const wild = change(
      [[...settings, 'gain'], 60],
      [[...settings, 'phantom'], false],
      [['gear', 0, 'specs', 'level'], 140],
    )
    expect(findings(wild).length).toBeGreaterThan(3)
    for (const each of findings(wild)) expect(each.action.length).toBeGreaterThan(10)
  })
  it('capsule overload names the distance that fixes it', () => {
    // 125 dB SPL at 1 m, at 0.3 m 135.46, peak 146.45: 12.45 dB over 134, with the surge 18.45, so 0.3 · 10^(18.45/20) = 2.51 m.
    const found = find(change([['gear', 0, 'specs', 'level'], 125]), 'capsule-overload')
    expect(found?.severity).toBe('stop')
    expect(found?.message).toContain('12.4')
    expect(found?.action).toContain('2.51 m')
  })
  it('a capsule that only the surge overloads is a caution', () => {
    expect(find(change([['gear', 0, 'specs', 'level'], 110]), 'capsule-overload-surge')?.severity).toBe('caution')
  })
  it('an overdriven capsule is marked at itself and carried by what follows, whose peak is the clipped one', () => {
    const points = evaluateSession(valid(change([['gear', 0, 'specs', 'level'], 125], [[...settings, 'gain'], 0])))
      .strips[0]?.points
    expect(points?.[1]?.clipped).toBe(true)
    expect(points?.[2]?.carriesClipping).toEqual({ strip: 'narrator', stage: 'narrator-mic' })
    expect(points?.[2]?.peak).toBeCloseTo((points?.[1]?.ceiling ?? 0) - 15, 6)
  })
  it.each([
    [60, 'clips', 'stop'], // peak −19.49 + 25 = +5.5
    [50, 'surge-clips', 'caution'], // −4.5, surge +1.5
    [45, 'target-missed', 'caution'], // −9.5 is over the window; one finding about the level
  ])('gain %i: %s', (gain, code, severity) => {
    expect(find(change([[...settings, 'gain'], gain]), code)?.severity).toBe(severity)
  })
  it('little headroom is a note where the target means it', () => {
    expect(
      find(
        change([[...settings, 'gain'], 51], [['target'], 'live-6-0'], [['gear', 0, 'specs', 'surge'], 0]),
        'little-headroom',
      )?.severity,
    ).toBe('note')
  })
  it('target missed: by how much, which way, what to turn', () => {
    const under = find(example1(), 'target-missed')
    expect(under?.message).toContain('1.5 dB under the window −18 … −12')
    expect(under?.action).toBe('Turn the gain up by 4.0 dB to 39.0 dB.')
    expect(under?.changes).toEqual([{ strip: 'narrator', stage: 'narrator-input', setting: 'gain', to: 39 }])
    expect(find(change([[...settings, 'gain'], 50]), 'surge-clips')?.action).toContain('down by 11.0 dB')
  })
  it('target missed because the step is coarser than the window says so', () => {
    // Peaks wanted at −13.5; a step of 12 dB gives −18.5 or −6.5.
    const file = change([['target'], 'peaks-15-12'], [[...specs, 'gainStep'], 12], [[...settings, 'gain'], 36])
    expect(find(file, 'target-missed')?.action).toContain('step of 12.0 dB')
  })
  it('gain range exhausted above: closer, in metres', () => {
    // Wanted 39.5, range to 30: 9.5 dB short, so 0.3 m · 10^(−9.5/20) = 0.10 m.
    const file = change([[...specs, 'gainMax'], 30], [[...settings, 'gain'], 30])
    const found = find(file, 'gain-range-exhausted')
    expect(found?.action).toBe('Go closer: 0.1 m instead of 0.3 m.')
    expect(
      evaluateSession(applyChanges(valid(file), found?.changes ?? [])).strips[0]?.findings.map((each) => each.code),
    ).not.toContain('gain-range-exhausted')
  })
  it('a surge that no gain brings down: its own pad with the gain set again; without one, a pad in the line', () => {
    const loud = change(
      [['gear', 0, 'specs', 'level'], 110],
      [[...settings, 'gain'], 0],
      [['gear', 1, 'specs', 'sensitivity'], 50],
    )
    // The peak is at −2.0 dBFS: 20 dB of pad and 7 dB of gain bring it to −15.
    expect(find(loud, 'surge-clips')?.changes).toEqual([
      { strip: 'narrator', stage: 'narrator-input', setting: 'pad', to: true },
      { strip: 'narrator', stage: 'narrator-input', setting: 'gain', to: 7 },
    ])
    const padless = withAt(loud, [...specs, 'pad'], 0)
    const found = find(padless, 'surge-clips')
    expect(found?.action).toMatch(/^Put a pad of 1\d dB before/)
    const fixed = applyChanges(valid(padless), found?.changes ?? [])
    const left = evaluateSession(fixed).strips[0]?.findings.filter((each) => each.severity !== 'note')
    // No pad helps the capsule.
    expect(left?.map((each) => each.code)).toEqual(['capsule-overload-surge'])
  })
  it('a pad that is not needed comes out with the gain set again to the same aim', () => {
    const found = find(change([[...settings, 'pad'], true]), 'pad-not-needed')
    expect(found?.changes?.map((each) => (each as SettingChange).to)).toEqual([false, 39])
    expect(find(example1(), 'pad-not-needed')).toBeUndefined()
  })
  it('a pad costs signal-to-noise where the preamp sets the floor: it stands before the preamp', () => {
    const quiet = (pad: boolean, gain: number) =>
      evaluateSession(valid(change([['room'], {}], [[...settings, 'pad'], pad], [[...settings, 'gain'], gain])))
        .strips[0]
    const preamp = (pad: boolean, gain: number) =>
      quiet(pad, gain)?.noise.find((each) => each.name === 'preamp')?.level ?? 0
    expect(preamp(true, 55) - preamp(false, 35)).toBeCloseTo(20, 9)
    expect(quiet(true, 55)?.points[2]?.peak).toBeCloseTo(quiet(false, 35)?.points[2]?.peak ?? 0, 9)
  })
  it('loading worse than 1:5 names the ratio and the loss', () => {
    const found = find(change([[...specs, 'impedance'], 600]), 'loading')
    expect(found?.message).toContain('3.0 times')
    expect(found?.message).toContain('2.5 dB') // 20 lg(1 + 200/600)
    expect(find(change([[...specs, 'impedance'], 1000]), 'loading')).toBeUndefined()
  })
  it('gain past the crossover is a note; below it there is none', () => {
    expect(find(change([[...settings, 'gain'], 34]), 'past-crossover')?.severity).toBe('note')
    expect(find(change([[...settings, 'gain'], 33]), 'past-crossover')).toBeUndefined()
  })
  it('an EIN below the thermal limit is called a misprint and counts nothing', () => {
    const file = change([[...specs, 'ein'], -134])
    expect(find(file, 'ein-below-thermal')?.severity).toBe('caution')
    expect(evaluateSession(valid(file)).strips[0]?.noise.map((each) => each.name)).not.toContain('preamp')
  })
  it('a rate or a buffer that the unit lacks, and a direct route that it lacks', () => {
    expect(find(change([['gear', 2, 'sampleRates'], [44100]]), 'rate-not-offered')?.action).toContain('44.1 kHz')
    expect(
      find(
        change([
          ['gear', 2, 'bufferSizes'],
          [64, 256],
        ]),
        'buffer-not-offered',
      )?.action,
    ).toContain('64, 256')
    expect(
      find(change([['gear', 2, 'direct'], 'none'], [['strips', 0, 'monitor'], { route: 'direct' }]), 'no-direct-route')
        ?.severity,
    ).toBe('stop')
  })
  it('a unit without latency figures says that the truth is later', () => {
    expect(find(change([['gear', 2, 'latency'], undefined]), 'latency-unprinted')?.severity).toBe('note')
  })
  it('the gravest comes first', () => {
    const order = findings(change([[...settings, 'gain'], 60], [[...settings, 'phantom'], false])).map(
      (each) => each.severity,
    )
    expect(order).toEqual(
      [...order].sort((a, b) => ['stop', 'caution', 'note'].indexOf(a) - ['stop', 'caution', 'note'].indexOf(b)),
    )
  })
})

describe('phantom power', () => {
  const ribbon = {
    id: 'ribbon',
    kind: 'microphone',
    name: 'Ribbon',
    principle: 'ribbon',
    phantom: 'harmful',
    specs: { sensitivity: 2, impedance: 300 },
  }
  /** A condenser and a second microphone on one unit, on one bank or on two. */
  function pair(banks: [string, string], second: object = ribbon) {
    const file = example1() as { gear: Record<string, unknown>[] }
    const gear = [
      ...file.gear.slice(0, 2),
      { ...second, id: 'second' },
      { ...file.gear[2], inputs: [input('mic1', { phantomBank: banks[0] }), input('mic2', { phantomBank: banks[1] })] },
    ]
    return { ...file, gear, strips: [strip('one', 0.3, 35, true), strip('two', 0.3, 50, false, 'mic2', 'second')] }
  }

  it('missing where it is needed: a stop with the caution and the change', () => {
    const found = find(change([[...settings, 'phantom'], false]), 'phantom-missing')
    expect(found?.severity).toBe('stop')
    expect(found?.action).toMatch(/^Mute the outputs/)
    const fixed = applyChanges(valid(change([[...settings, 'phantom'], false])), found?.changes ?? [])
    expect(evaluateSession(fixed).strips[0]?.findings.map((each) => each.code)).not.toContain('phantom-missing')
  })
  it('an input that cannot give it says so instead of offering the switch', () => {
    const found = find(
      change([['gear', 2, 'inputs', 0, 'phantom'], false], [[...settings, 'phantom'], false]),
      'phantom-missing',
    )
    expect(found?.changes).toBeUndefined()
    expect(found?.action).toContain('cannot give 48 V')
  })
  it('on where it is harmful', () => {
    expect(find(change([['gear', 1], { ...ribbon, id: 'mic' }]), 'phantom-harmful')?.severity).toBe('stop')
  })
  it('reaches a neighbour of the same bank, and both strips say so', () => {
    expect(find(pair(['A', 'A']), 'phantom-neighbour', 0)?.message).toContain('“Ribbon” on the strip “two”')
    expect(find(pair(['A', 'A']), 'phantom-neighbour', 1)?.severity).toBe('stop')
  })
  it('does not reach another bank', () => {
    expect(find(pair(['A', 'B']), 'phantom-neighbour', 0)).toBeUndefined()
    expect(find(pair(['A', 'B']), 'phantom-neighbour', 1)).toBeUndefined()
  })
  it('the neighbour’s switch also feeds a microphone that needs it', () => {
    const condenser = (example1().gear as object[])[1] as object
    expect(find(pair(['A', 'A'], condenser), 'phantom-missing', 1)).toBeUndefined()
    expect(find(pair(['A', 'B'], condenser), 'phantom-missing', 1)).toBeDefined()
  })
  it('is not offered as a change where the bank would harm a neighbour; a bank is switched whole', () => {
    const off = (file: object) => withAt(file as never, ['strips', 0, 'stages', 2, 'settings', 'phantom'], false)
    const endangered = find(off(pair(['A', 'A'])), 'phantom-missing', 0)
    expect(endangered?.changes).toBeUndefined()
    expect(endangered?.action).toContain('“Ribbon”')
    const condenser = (example1().gear as object[])[1] as object
    expect(
      find(off(pair(['A', 'A'], condenser)), 'phantom-missing', 0)?.changes?.map(
        (each) => (each as SettingChange).stage,
      ),
    ).toEqual(['one-input', 'two-input'])
  })
  it('useless for one that does not mind it: a note', () => {
    expect(find(change([['gear', 1, 'phantom'], 'harmless']), 'phantom-unneeded')?.severity).toBe('note')
  })
})

it('the planned gain can always be read back: a finding’s change is a valid session', () => {
  const session = valid(example1())
  for (const each of evaluateSession(session).strips[0]?.findings ?? []) {
    expect(readSession(applyChanges(session, each.changes ?? [])).ok).toBe(true)
  }
})
