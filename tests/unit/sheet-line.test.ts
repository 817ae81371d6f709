import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import type { Gear } from '#core/gear'
import { inputSpecs, sheetLine, traitsOf } from '#core/gear'

const demo = demoSession()
const named = <K extends Gear['kind']>(id: string, kind: K) =>
  demo.gear.find((item): item is Extract<Gear, { kind: K }> => item.id === id && item.kind === kind) ??
  expect.fail(`no ${id}`)

describe('what is known of a device, in a line', () => {
  const microphone = named('sandpiper', 'microphone')
  const fields = traitsOf(microphone).fields(microphone)

  it('its first figures with their units; a unit that says what it is of needs no name', () => {
    expect(sheetLine('microphone', microphone, fields)).toBe('Data sheet: 15 mV/Pa, 14 dBA, 134 dB SPL')
  })

  it('measured before printed before assumed, each where it is from', () => {
    const measured = named('eelgrass', 'microphone')
    expect(sheetLine('microphone', measured, fields)).toBe('Measured: 20.8 mV/Pa; data sheet: 9 dBA, 138 dB SPL')
    const assumed = { ...microphone, assumed: ['selfNoise'] }
    expect(sheetLine('microphone', assumed, fields)).toBe('Data sheet: 15 mV/Pa, 134 dB SPL; assumed: 14 dBA')
  })

  it('figures of one unit are told apart by their names, and an abbreviation keeps its capitals', () => {
    const [input] = named('saltmarsh', 'interface').inputs
    if (input?.type !== 'mic') return expect.fail('no microphone input')
    expect(sheetLine('interface', input, inputSpecs)).toBe(
      'Measured: maximum input level 14.6 dBu; data sheet: EIN −127 dBu, dynamic range 110 dB',
    )
  })

  it('how somebody plays is assumed, and so is the distance that it is stated at', () => {
    const voice = named('narrator-voice', 'sound-source')
    expect(sheetLine('sound-source', voice, traitsOf(voice).fields(voice))).toBe(
      'Assumed: 68 dB SPL, crest factor 14 dB, surge 6 dB',
    )
  })

  it('nothing entered is said', () => {
    expect(sheetLine('microphone', { specs: {} }, fields)).toBe('Data sheet: nothing entered yet')
  })
})
