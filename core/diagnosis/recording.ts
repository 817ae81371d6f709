import type { Heard, HeardChannel } from '../measure/heard/listen'
import { formatDecimal } from '../units'
import type { Answers } from './checks'
import { humPattern } from './hum-pattern'
import type { Point } from '../chain/cascade'

/** What a recording says: outcomes of checks, and in words what was heard. */
export interface ByRecording {
  answers: Answers
  says: string[]
}

/** The levels of the strip that was recorded, as the session has them. */
type Planned = Readonly<{ points: readonly Point[] }>

/** What was played into it, where that is known. */
export interface KnownSound {
  /** A tone of this frequency, Hz. */
  tone?: number | undefined
}

/** Off by more than that the floor is not as planned, dB (common practice, no source). */
const AS_PLANNED = 3
/** No clock is off by that much; two rates are. */
const DETUNED = 0.002
const TIMES = { hollow: 30, apart: 700 } as const

/** What a recording answers by itself; what it cannot tell stays open. */
export function answersOf(heard: Heard, planned: Planned | null, { tone }: KnownSound = {}): ByRecording {
  const answers: Answers = {}
  const says: string[] = []
  const loudest = heard.channels.reduce((most, each) => ((each.peak ?? -999) > (most.peak ?? -999) ? each : most))
  if (heard.silent.length > 0 && heard.channels.length > 1) {
    answers['file-channels'] = 'empty'
    says.push(`Channel ${heard.silent.join(' and ')} is empty.`)
  } else if (heard.channels.length > 1) answers['file-channels'] = 'both'
  clipping(loudest, answers, says)
  dropouts(loudest, answers, says)
  doubled(loudest, answers, says)
  noise(loudest, planned, answers, says)
  if (loudest.dc === null) answers['offset'] = 'none'
  else {
    answers['offset'] = 'off'
    says.push(`A constant offset of ${dBFS(loudest.dc)}.`)
  }
  if (tone !== undefined && loudest.tone) rate(loudest.tone.frequency, tone, answers, says)
  if (heard.polarity === 'opposite') {
    answers['flip-polarity'] = 'fuller'
    says.push('The two channels carry one sound with opposite polarity.')
  }
  return { answers, says }
}

const dBFS = (level: number | null) => `${formatDecimal(level, 1)} dBFS`
const FULL = -0.1

function clipping({ clipped, peak }: HeardChannel, answers: Answers, says: string[]) {
  if (peak !== null && peak > -100) answers['recorder-meter'] = peak > FULL ? 'top' : peak > -40 ? 'middle' : 'low'
  if (!clipped) {
    answers['flat-tops'] = 'none'
    return
  }
  const top = clipped.level > FULL
  answers['flat-tops'] = top ? 'top' : 'below'
  says.push(
    `Clipped in ${clipped.count} ${clipped.count === 1 ? 'place' : 'places'}, ${top ? 'at full scale' : `at ${dBFS(clipped.level)}: before the converter, or by a limiter`}.`,
  )
}

const ENOUGH = 5

function dropouts({ dropouts: { count, kinds, every } }: HeardChannel, answers: Answers, says: string[]) {
  if (count === 0) {
    answers['look-at-gaps'] = 'none'
    return
  }
  const most = (Object.keys(kinds) as (keyof typeof kinds)[]).reduce((a, b) => (kinds[b] > kinds[a] ? b : a))
  answers['look-at-gaps'] = most
  // A few tell nothing of how they come.
  if (count >= ENOUGH) answers['count-ticks'] = every === null ? 'random' : 'regular'
  const words = { gap: 'gaps', repeat: 'buffers played twice', jump: 'jumps' } as const
  says.push(
    `${Object.entries(kinds)
      .filter(([, number]) => number > 0)
      .map(([kind, number]) => `${number} ${words[kind as keyof typeof words]}`)
      .join(', ')}${every === null ? ', at no set time' : `, every ${formatDecimal(every, 2)} s`}.`,
  )
}

function doubled({ comb, tone }: HeardChannel, answers: Answers, says: string[]) {
  if (!comb) {
    if (!tone) answers['comb-in-file'] = 'clean'
    return
  }
  answers['comb-in-file'] = 'comb'
  answers['how-far-apart'] = comb.delayMs < TIMES.hollow ? 'hollow' : comb.delayMs < TIMES.apart ? 'apart' : 'seconds'
  says.push(
    `The sound is there twice, ${formatDecimal(comb.delayMs, 2)} ms apart, the second ${formatDecimal(-comb.difference, 0)} dB softer: first notch at ${formatDecimal(comb.notch, 0)} Hz.`,
  )
}

function noise({ hum, floor }: HeardChannel, planned: Planned | null, answers: Answers, says: string[]) {
  if (floor === null) return
  answers['hum-lines'] = hum ? humPattern(hum) : 'none'
  if (hum) says.push(`Hum of ${hum.mains} Hz, ${dBFS(hum.level)} in all, ${hum.lines.length} lines.`)
  const end = planned?.points.at(-1)
  if (end?.unit !== 'dBFS' || end.noise === null) return
  const more = floor - end.noise
  answers['floor-as-planned'] = more > AS_PLANNED ? 'higher' : more < -AS_PLANNED ? 'lower' : 'planned'
  says.push(
    `The floor is ${dBFS(floor)}(A); planned are ${dBFS(end.noise)}(A) (${formatDecimal(Math.abs(more), 1)} dB ${more > 0 ? 'higher' : 'lower'}).`,
  )
}

function rate(frequency: number, wanted: number, answers: Answers, says: string[]) {
  const ratio = frequency / wanted
  const differs = Math.abs(ratio - 1) > DETUNED
  answers['read-rates'] = differs ? 'differ' : 'same'
  says.push(
    differs
      ? `The tone of ${formatDecimal(wanted, 1)} Hz is at ${formatDecimal(frequency, 2)} Hz: ${formatDecimal(12 * Math.log2(ratio), 2)} semitones off${nearRates(ratio)}.`
      : `The tone of ${formatDecimal(wanted, 1)} Hz is where it belongs.`,
  )
}

/** Which two rates would do that. */
function nearRates(ratio: number): string {
  const rates = [44_100, 48_000, 88_200, 96_000]
  for (const clock of rates)
    for (const material of rates)
      if (clock !== material && Math.abs(clock / material / ratio - 1) < DETUNED / 4)
        return `, as ${formatDecimal(material / 1000, 1)} kHz material clocked at ${formatDecimal(clock / 1000, 1)} kHz`
  return ''
}
