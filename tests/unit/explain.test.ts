import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
import { Context } from '#core/explain/context'
import type { Explanation, FigureRef } from '#core/explain/explanation'
import { explain, explainIn } from '#core/explain/explain'
import { formula, formulaGroups } from '#core/formula'
import { mathmlOf } from '#core/formula/mathml'
import { propagate } from '#core/uncertainty/uncertainty'
import { chain, interfaceWith, line, micInput } from '../support/chains'
import { example1, valid } from '../support/sessions'

const FIGURES = [
  'average',
  'peak',
  'surgePeak',
  'headroom',
  'surgeHeadroom',
  'noise',
  'snr',
  'gain',
  'ceiling',
  'chance',
]
const sessions = [demoSession(), ...templates.map(templateSession)]

/** Every figure of a session that there is, explained. */
function allOf(session: (typeof sessions)[number]): Explanation[] {
  const doubts = propagate(session)
  return session.strips.flatMap((strip) => {
    const context = new Context(session, strip, doubts)
    const refs: FigureRef[] = [
      ...strip.stages.flatMap(({ id }) => FIGURES.map((figure) => ({ strip: strip.id, stage: id, figure }))),
      ...['direct', 'software'].map((figure) => ({ strip: strip.id, stage: '', figure })),
    ]
    return refs.flatMap((ref) => explainIn(context, ref) ?? [])
  })
}

describe('a pickup by its volume control', () => {
  it.each([
    ['its pot and position', { volumePot: 250_000, volumeAt: 0.5 }, 'gear.g0.volumePot'],
    ['a stated loss', { volumeLoss: 6 }, 'gear.g0.volumeLoss'],
  ])('%s: the parts of its level add up to the level', (_, specs, path) => {
    const session = chain([
      { gear: line({ level: -18, impedance: 8000, ...specs }, { output: 'passive-pickup' }) },
      { gear: interfaceWith(micInput({ impedance: 1_000_000 }, { type: 'instrument' })), port: 'in1' },
    ])
    const found = explain(session, { strip: 's', stage: 's0', figure: 'average' })
    const sum = found?.parts.reduce((total, { adds }) => total + (adds ?? 0), 0)
    expect(sum).toBeCloseTo(found?.value ?? 0, 6)
    expect(found?.parts.at(-1)).toMatchObject({ path })
    expect(found?.parts.at(-1)?.adds).toBeLessThan(-5)
  })
})

describe('every figure of the demo and of every ready-made chain', () => {
  const all = sessions.map((session) => ({ session, explained: allOf(session) }))
  it('is the sum of its parts, where they add up', () => {
    let summed = 0
    for (const { explained } of all)
      for (const { parts, value, title } of explained) {
        if (parts.length === 0 || parts.some(({ adds }) => adds === null)) continue
        summed++
        expect(
          parts.reduce((sum, { adds }) => sum + (adds ?? 0), 0),
          title,
        ).toBeCloseTo(value, 6)
      }
    expect(summed).toBeGreaterThan(200)
  })
  it('is a power sum of its noises, whose shares make all of it', () => {
    for (const { explained } of all)
      for (const { of, parts, value } of explained)
        if (of.figure === 'noise' && parts.length > 0) {
          expect(10 * Math.log10(parts.reduce((sum, part) => sum + 10 ** (part.value / 10), 0))).toBeCloseTo(value, 6)
          expect(parts.reduce((sum, { share }) => sum + (share ?? 0), 0)).toBeCloseTo(1, 6)
        }
  })
  it('leads on: every figure in it can be opened, down to what is given', () => {
    for (const { session, explained } of all.slice(0, 6)) {
      const doubts = propagate(session)
      for (const { parts } of explained)
        for (const { figure, name } of parts) {
          if (!figure) continue
          const strip = session.strips.find(({ id }) => id === figure.strip)
          expect(
            strip && explainIn(new Context(session, strip, doubts), figure),
            `${name}: ${figure.figure}`,
          ).not.toBeNull()
        }
    }
  })
  it('has no NaN, and words', () => {
    for (const { explained } of all)
      for (const each of explained) {
        expect(JSON.stringify(each)).not.toMatch(/NaN|undefined|null dB/)
        expect(each.withNumbers.length).toBeGreaterThan(3)
        expect(each.title).toMatch(/^[A-Z]/)
      }
  })
})

describe('worked example 1', () => {
  const session = valid(example1())
  const at = (stage: string, figure: string) =>
    explain(session, { strip: 'narrator', stage: `narrator-${stage}`, figure })
  it('the recorded peak: what comes in, the gain, the full scale; the level is what is known least', () => {
    const peak = at('input', 'peak')
    expect(peak?.withNumbers).toBe('−39.5 + 35.0 − 15.0 = −19.5 dBFS')
    expect(peak?.doubts[0]).toMatchObject({ name: 'Average of Voice', origin: 'assumed', path: 'gear.voice.level' })
    expect(peak?.doubts[0]?.share).toBeCloseTo(0.734, 2)
    expect(formula(peak?.formula ?? 'levels-dbfs').source).toBe('definition')
  })
  it('two steps to the source: the level at the microphone, then the sound pressure', () => {
    const before = at('input', 'peak')?.parts.find(({ figure }) => figure)
    expect(before?.figure).toEqual({ strip: 'narrator', stage: 'narrator-mic', figure: 'peak' })
    const peak = explain(session, before?.figure as FigureRef)
    expect(peak?.parts.map(({ name }) => name)).toContain('Sensitivity')
  })
  it('headroom, chance and noise with the numbers in', () => {
    expect(at('input', 'headroom')?.withNumbers).toBe('0.0 − (−19.5) = 19.5 dB')
    expect(at('input', 'chance')?.withNumbers).toMatch(/^Φ\(−13\.49\/3\.79\) = Φ\(−3\.56\) = 0\.02 %$/)
    expect(at('input', 'noise')?.withNumbers).toMatch(/^10 lg\(10\^\(−80\.9\/10\) \+ /)
  })
  it('what is not there is null', () => {
    expect(at('input', 'colour')).toBeNull()
    expect(at('nowhere', 'peak')).toBeNull()
    expect(explain(session, { strip: 'nobody', stage: '', figure: 'peak' })).toBeNull()
    expect(at('source', 'gain')).toBeNull()
  })
})

it('every formula is MathML', () => {
  for (const { formulas } of formulaGroups)
    for (const each of formulas)
      expect(mathmlOf(each)).toMatch(/^<math xmlns="http:\/\/www\.w3\.org\/1998\/Math\/MathML">.+<\/math>$/s)
})
