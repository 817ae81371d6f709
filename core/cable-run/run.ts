import { measureTone } from '../measure/tone'
import { sine } from '../signals/generate'
import type { Rig } from '../signals/rig'
import { Conductor } from './conductor'
import type { CableFindings, FoundCable, FoundRoundTrip } from './findings'
import { gainMarks } from './gain-marks'
import type { Hand } from './hand'
import { CableLoop } from './loop'
import { LEAST_U, channels, distortion, linearity, response } from './loop-figures'
import type { Part, Wanted } from './moves'
import { partsInOrder } from './moves'
import { searchCable } from './search'
import type { Subject } from './subject'

/** For a hand multimeter: most read true to 400 Hz, and it is no multiple of the mains, Hz. */
const METER_TONE = 130
/** Seconds of signal in each part, and at each gain mark, as far as they are known before, so that the progress is true. */
const LASTS: Record<Part, number> = {
  'microphone': 4,
  'loop': 46,
  'meter': 8,
  'other-buffer': 7,
  'marks': 9,
  'plug': 8,
}

const marksWanted = ({ marks, plug }: Wanted) => Math.max(plug ? 2 : 1, Math.min(10, marks))

/**
 * Measures an interface by one cable from an output to an input: finds the cable, climbs from −60 dBFS, and then measures what the cable
 * tells by itself. Asks for a hand only where it must, in the order with the fewest moves.
 * @throws NoCable where none was found and none was brought
 */
export async function runCable(rig: Rig, subject: Subject, wanted: Wanted, hand: Hand): Promise<CableFindings> {
  const parts = partsInOrder(wanted)
  const lasts = parts.reduce((sum, part) => sum + LASTS[part] * (part === 'marks' ? marksWanted(wanted) : 1), 0)
  const conductor = new Conductor(rig, hand, lasts)
  const microphone = await microphoneLevel(conductor, subject, wanted)
  if (parts[0] === 'microphone') await conductor.until({ do: 'cable', problem: null })
  const { cable, second } = await searchCable(conductor, subject.input)
  const loop = new CableLoop(conductor, cable)
  const byItself = await overTheCable(loop, subject, second)
  const meter = wanted.meter ? await meterReading(loop) : null
  const other = await atOtherBuffer(loop, wanted)
  const marks = parts.includes('marks') ? await gainMarks(loop, subject, marksWanted(wanted)) : []
  // A gain that is fixed, or was left where it is, stands at the lowest.
  const plug = wanted.plug ? await withPlug(loop, marks.at(-1)?.gain.value ?? 0) : null
  conductor.ends()
  return {
    sampleRate: rig.sampleRate,
    cable,
    second,
    ...byItself,
    roundTrips: [...byItself.roundTrips, ...(other ? [other] : [])],
    marks,
    plug,
    meter,
    // What was read while samples were being lost is not to be trusted.
    microphone: conductor.hasLostSamples ? null : microphone,
    doubts: [...conductor.doubts],
    seconds: conductor.seconds,
  }
}

async function microphoneLevel(
  conductor: Conductor,
  { input }: Subject,
  { microphone: known }: Wanted,
): Promise<CableFindings['microphone']> {
  if (!known) return null
  conductor.says('Waiting for the microphone')
  const answer = await conductor.until({ do: 'microphone', level: known.level })
  if (!answer.done) return null
  conductor.says('The microphone’s level')
  const { sampleRate } = conductor.rig
  const frames = Math.round(3 * sampleRate)
  const recorded = (await conductor.take([], frames))[input] as Float64Array
  const found = measureTone(recorded.subarray(0, frames), sampleRate)
  if ('code' in found) return null
  return { value: found.level, u: Math.hypot(found.deviation, LEAST_U, known.give / Math.sqrt(3)), ...known }
}

/** All that needs no hand, at the lowest gain. */
async function overTheCable(loop: CableLoop, { bufferFrames }: Subject, second: FoundCable | null) {
  const { conductor } = loop
  const { found, value } = await firstRoundTrip(loop, bufferFrames)
  loop.lag = found?.lagFrames ?? 0
  conductor.says('Loop gain and linearity')
  const linear = await linearity(loop)
  loop.gain = linear.loopGain.value
  conductor.says('Dynamic range and distortion')
  const { driftPpm, ...distorted } = await distortion(loop)
  conductor.says('Frequency response')
  const points = await response(loop, driftPpm)
  conductor.says('Noise and hum with the cable plugged in')
  const idle = await loop.idle(5)
  conductor.says('Balance and crosstalk')
  const beside = second ? await channels(loop, second) : { balance: null, crosstalk: [] }
  return {
    ...linear,
    ...distorted,
    response: points,
    polarity: found?.polarity ?? 1,
    idle,
    roundTrips: value ? [value] : [],
    ...beside,
  }
}

/** Where samples are lost from the beginning, no figure would be worth anything: a hand is asked to put that right first. */
async function firstRoundTrip(loop: CableLoop, bufferFrames: number) {
  const { conductor } = loop
  for (;;) {
    conductor.says('Round trip')
    const { found, value } = await loop.roundTrip(bufferFrames)
    if (!conductor.doubts.has('samples-lost')) return { found, value }
    const answer = await conductor.until({ do: 'cable', problem: { code: 'samples-lost' } })
    conductor.hasLostSamples = true
    if (!answer.done) return { found, value }
    conductor.doubts.delete('samples-lost')
  }
}

async function meterReading(loop: CableLoop): Promise<CableFindings['meter']> {
  const { conductor, cable } = loop
  conductor.says('Tone for the multimeter')
  const played = Math.round(loop.levelFor(-6))
  const tone = sine(loop.sampleRate, 2, METER_TONE, played)
  const signals = conductor.onOutput(cable.output, tone)
  const answer = await conductor.until({ do: 'meter', played }, () => conductor.take(signals, tone.length, true))
  // A take of nothing ends the tone.
  await conductor.pause()
  return answer.done && answer.value !== undefined && answer.value > 0 ? { volts: answer.value, played } : null
}

async function atOtherBuffer(loop: CableLoop, { otherBuffer }: Wanted): Promise<FoundRoundTrip | null> {
  if (otherBuffer === null) return null
  const { conductor } = loop
  conductor.says('Waiting for the buffer')
  const answer = await conductor.until({ do: 'buffer', frames: otherBuffer })
  if (!answer.done) return null
  conductor.says('Round trip at the other buffer')
  const { found, value } = await loop.roundTrip(otherBuffer)
  if (found) loop.lag = found.lagFrames
  return value
}

/** At the highest gain that was measured. */
async function withPlug(loop: CableLoop, gain: number): Promise<CableFindings['plug']> {
  const { conductor } = loop
  conductor.says('Waiting for the 150 Ω plug')
  const { input } = loop.cable
  for (let isCableIn = false; ; isCableIn = true) {
    const answer = await conductor.until({ do: 'plug', input, isCableIn })
    if (!answer.done) return null
    // With the cable left in, the output's noise would be taken for the input's own.
    if (!(await loop.isHeard())) break
  }
  conductor.says('Noise with the 150 Ω plug')
  const noise = await loop.idle(5)
  return noise && { ...noise, gain }
}
