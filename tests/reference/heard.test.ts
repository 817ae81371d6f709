import { describe, expect, it } from 'vitest'
import { answersOf } from '#core/diagnosis/recording'
import type { causeIds } from '#core/diagnosis/causes'
import { causeOf } from '#core/diagnosis/causes'
import { checkOf } from '#core/diagnosis/checks'
import type { CheckId } from '#core/diagnosis/checks'
import { diagnoseIn } from '#core/diagnosis/diagnose'
import { plant, outcomeOn } from '#core/trainer/planted/plant'
import { hearingOf } from '#core/trainer/planted/sound'
import { templateIds } from '#core/trainer/planted/templates'
import { SessionView } from '#core/diagnosis/view'
import { listenTo } from '#core/measure/heard/listen'
import type { Heard } from '#core/measure/heard/listen'
import { meterOf } from '#core/measure/question'
import { withEffects } from '#core/render/effects'
import { recorded } from '#core/render/hearing'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { runs } from '../support/runs'

const RATE = 48_000

/** A planted fault as a recording, and what it answers; each is rendered once, whichever tests ask. */
function recordingOf(cause: (typeof causeIds)[number], template: (typeof templateIds)[number]) {
  const key = `${cause} ${template}`
  const known = rendered.get(key) ?? render(cause, template)
  rendered.set(key, known)
  return known
}
const rendered = new Map<string, ReturnType<typeof render>>()

function render(cause: (typeof causeIds)[number], template: (typeof templateIds)[number]) {
  const seed = 31
  const planted = plant(cause, template, seed)
  if (!planted) throw new Error(`${cause} cannot be in ${template}`)
  const view = new SessionView(planted.session).strips.find(({ strip }) => strip.id === planted.strip)
  if (!view) throw new Error('no strip')
  const channels = recorded(hearingOf(view, planted.hidden ? cause : null, planted.symptom, seed), RATE)
  const heard = listenTo(channels, RATE)
  if ('code' in heard) throw new Error(heard.message)
  return { planted, view, heard, by: answersOf(heard, view) }
}

describe('a recording answers checks by itself', () => {
  it.each([
    ['earth-loop', 'keys', 'hum-lines', 'odd'],
    ['supply-ripple', 'keys', 'hum-lines', 'even'],
    ['hum-field', 'guitar', 'hum-lines', 'alone'],
    ['converter-over', 'condenser', 'flat-tops', 'top'],
    ['early-clip', 'desk', 'flat-tops', 'below'],
    ['usb-path', 'guitar', 'look-at-gaps', 'gap'],
    ['desk-return', 'desk', 'comb-in-file', 'comb'],
    ['two-microphones', 'two-heard', 'comb-in-file', 'comb'],
    ['one-input-stereo-track', 'condenser', 'file-channels', 'empty'],
    ['offset', 'condenser', 'offset', 'off'],
    ['muted', 'condenser', 'recorder-meter', 'low'],
  ] as const)('%s in %s: %s is “%s”', (cause, template, check, outcome) => {
    const { by } = recordingOf(cause, template)
    expect(by.answers[check], by.says.join(' ')).toBe(outcome)
  })

  it('a clean chain is heard as clean: floor as planned, no hum, no gaps, no comb, no offset', () => {
    for (const template of ['condenser', 'keys', 'guitar', 'desk'] as const) {
      const { view } = recordingOf('muted', template)
      const heard = listenTo(recorded(hearingOf(view, null, 'hiss', 5), RATE), RATE) as Heard
      const { answers } = answersOf(heard, view)
      expect(answers, template).toMatchObject({
        'hum-lines': 'none',
        'look-at-gaps': 'none',
        'comb-in-file': 'clean',
        'offset': 'none',
        'flat-tops': 'none',
        'floor-as-planned': 'planned',
        'file-channels': 'both',
      })
    }
  })

  it('what it answers never contradicts what a truthful hand would answer of the same fault', () => {
    // Sides and silence are what the performer hears; the others are in the recording.
    const quiet = new Set<CheckId>(['file-channels', 'recorder-meter', 'comb-in-file', 'how-far-apart'])
    for (const cause of [
      'earth-loop',
      'supply-ripple',
      'usb-path',
      'clocks-unlocked',
      'offset',
      'converter-over',
    ] as const)
      for (const template of templateIds.slice(0, runs(4))) {
        if (!plant(cause, template, 31)) continue
        const { planted, view, by } = recordingOf(cause, template)
        for (const [check, outcome] of Object.entries(by.answers)) {
          if (quiet.has(check as CheckId) || causeOf(cause).shows[check as CheckId] === undefined) continue
          expect(outcome, `${cause} in ${template}: ${check}`).toBe(outcomeOn(planted, view, check as CheckId))
        }
      }
  })

  it('and leads to the cause: hum from a supply is found by the recording alone', () => {
    const { planted, by } = recordingOf('supply-ripple', 'keys')
    const { causes } = diagnoseIn(new SessionView(planted.session), planted.strip, {
      symptoms: ['hum'],
      answers: by.answers,
    })
    expect(causes[0]?.id).toBe('supply-ripple')
    expect(causes[0]?.probability).toBeGreaterThan(0.5)
  })

  it('a known tone at the wrong pitch names the two rates', () => {
    const tone = (frequency: number) => listenTo([sine(RATE, 3, frequency, -12)], RATE) as Heard
    const off = answersOf(tone((1000 * 48_000) / 44_100), null, { tone: 1000 })
    expect(off.answers['read-rates']).toBe('differ')
    expect(off.says.join(' ')).toContain('44.1 kHz material clocked at 48.0 kHz')
    expect(off.says.join(' ')).toContain('1.47 semitones')
    expect(answersOf(tone(1000.4), null, { tone: 1000 }).answers['read-rates']).toBe('same')
    expect(answersOf(tone(1000), null).answers['read-rates']).toBeUndefined()
  })

  it('a tone over a link whose clocks are not locked: jumps, and that they come evenly', () => {
    const [ticking] = withEffects(
      sine(RATE, 6, 440, -12),
      RATE,
      { dropouts: { kind: 'jump', perSecond: 2, regular: true, frames: 40 } },
      3,
    )
    const { answers, says } = answersOf(listenTo([ticking], RATE) as Heard, null)
    expect(answers).toMatchObject({ 'look-at-gaps': 'jump', 'count-ticks': 'regular' })
    expect(says.join(' ')).toContain('every 0.50 s')
  })

  it('takes WAV files of one channel and of two, and says what is wrong with a short or a torn one', () => {
    const ask = (bytes: Uint8Array) => {
      const meter = meterOf({ kind: 'heard' })
      meter.push(bytes)
      return meter.end() as { ok: boolean; found?: Heard; fault?: { message: string } }
    }
    const tone = sine(RATE, 2, 400, -20)
    expect(ask(writeWav([tone], RATE, 24)).found?.channels).toHaveLength(1)
    expect(ask(writeWav([tone, new Float64Array(tone.length)], RATE, 24)).found?.silent).toEqual([2])
    expect(ask(writeWav([tone.subarray(0, 4000)], RATE, 24)).fault?.message).toContain('less than a second')
    expect(ask(Uint8Array.from([1, 2, 3])).ok).toBe(false)
  })

  it('every outcome that a recording gives is one of its check’s', () => {
    for (const cause of ['earth-loop', 'clocks-unlocked', 'desk-return', 'muted', 'rates-differ'] as const)
      for (const [check, outcome] of Object.entries(
        recordingOf(cause, cause === 'desk-return' ? 'desk' : 'keys').by.answers,
      ))
        expect(Object.keys(checkOf(check as CheckId).outcomes)).toContain(outcome)
  })
})
