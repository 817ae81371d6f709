import { isOtherwise } from '../chain/graph'
import { compileStage, compileStrip } from '../chain/compile'
import type { Curve } from '../gear/processor/curve'
import { gearById, stagesOf } from '../resolved/resolve-session'
import type { ResolvedStage } from '../gear/stage'
import type { NoiseSource, TwoPort } from '../gear/two-port'
import { powerSum } from '../numeric/power'
import type { Gear } from '../gear'
import { isFader, isSoundSource } from '../gear'
import type { Strip } from '../model'
import type { Session } from '../session'
import { feedsOf } from '../model'
import { addNoise } from './noise'
import type { PerformerKind } from './programme'
import { programmeOf } from './programme'

/** What is played through a chain. */
export interface Playing {
  sampleRate: number
  /** The programme, then a pause in which only the chain’s noise is heard. */
  programmeSeconds: number
  pauseSeconds: number
  seed: number
  /** Nothing is played: a source that gives nothing, a capsule without its voltage. */
  silent?: boolean
}

/**
 * A strip as sound: a simulated performer through the very two-ports that the cascade evaluations, each with its gain, its ceilings, its curve and
 * its noise, sample by sample. A bus is the sum of what feeds it. A sample’s size is a level’s in the unit of the stage – 0 dBFS or 0 dBu
 * is a sine with a peak of 1 –, so that in the end it is a recording.
 */
export function renderStrip(session: Session, stripId: string, playing: Playing): Float64Array {
  return new Renderer(session, playing).end(stripId)
}

const frames = ({ sampleRate, programmeSeconds, pauseSeconds }: Playing) =>
  Math.round((programmeSeconds + pauseSeconds) * sampleRate)

class Renderer {
  private readonly gear: ReadonlyMap<string, Gear>
  private readonly known = new Map<string, { end: Float64Array; leaving: Map<string, Float64Array[]> }>()

  constructor(
    private readonly session: Session,
    private readonly playing: Playing,
  ) {
    this.gear = gearById(session)
  }

  end(stripId: string): Float64Array {
    return this.strip(stripId).end
  }

  private strip(id: string) {
    const known = this.known.get(id)
    if (known) return known
    const strip = this.session.strips.find((each) => each.id === id) as Strip
    const walked = this.walk(strip)
    this.known.set(id, walked)
    return walked
  }

  private walk(strip: Strip) {
    const stages = stagesOf(this.session, strip)
    const { programme, twoPorts } = compileStrip(strip, stages, this.session)
    const seed = this.seedOf(strip.id)
    let signal: Float64Array
    // A microphone takes source and room each in its own way, so that they go apart as far as that.
    let room = new Float64Array(0)
    if (programme) {
      const length = frames(this.playing)
      signal = new Float64Array(length)
      if (!this.playing.silent)
        signal.set(
          programmeOf(this.kindOf(strip), this.playing.sampleRate, this.playing.programmeSeconds, programme, seed),
        )
      if (programme.unit !== 'dBSPL') cut(signal, programme.ceiling)
      room = new Float64Array(length)
      this.noise(room, programme.noise, seed)
    } else signal = this.arriving(strip.id)
    const leaving = new Map<string, Float64Array[]>()
    const last = strip.stages.at(-1)?.id
    stages.forEach((stage, i) => {
      const twoPort = twoPorts[programme ? i - 1 : i]
      const feeds = feedsOf(strip).filter(({ from }) => (from ?? last) === stage.id)
      const before = feeds.some(({ tap }) => isOtherwise(stage, tap)) ? signal.slice() : signal
      if (twoPort) {
        signal = this.pass(signal, room, twoPort, seed + i)
        room = new Float64Array(0)
      }
      for (const { to, tap, gain } of feeds) {
        const tapped = isOtherwise(stage, tap) ? this.otherwise(before, stages, i, tap, seed) : signal
        const size = 10 ** (gain / 20)
        leaving.set(to, [...(leaving.get(to) ?? []), tapped.map((x) => size * x)])
      }
    })
    return { end: signal, leaving }
  }

  /** What a stage would put out with its fader on the other side of the tap. */
  private otherwise(
    before: Float64Array,
    stages: readonly ResolvedStage[],
    i: number,
    tap: 'pre' | 'post',
    seed: number,
  ): Float64Array {
    const stage = stages[i] as ResolvedStage
    if (isFader(stage)) return before
    const twoPort = compileStage(stages, i, this.session, {
      ...stage,
      settings: { ...stage.settings, tap },
    } as ResolvedStage)
    return this.pass(before, new Float64Array(0), twoPort, seed + i)
  }

  private arriving(bus: string): Float64Array {
    const sum = new Float64Array(frames(this.playing))
    for (const { id, feeds } of this.session.strips)
      if (feeds?.some(({ to }) => to === bus))
        for (const part of this.strip(id).leaving.get(bus) ?? [])
          part.forEach((x, i) => (sum[i] = (sum[i] as number) + x))
    return sum
  }

  private pass(
    signal: Float64Array,
    room: Float64Array,
    { gain, pickup, curve, inputCeiling, outputCeiling, noise }: TwoPort,
    seed: number,
  ): Float64Array {
    const [source, around] = [10 ** ((pickup?.programme ?? 0) / 20), 10 ** ((pickup?.room ?? 0) / 20)]
    const out = signal.map((x, i) => source * x + around * (room[i] ?? 0))
    cut(out, inputCeiling)
    if (curve) applyCurve(out, curve, this.playing.sampleRate)
    const size = 10 ** (gain / 20)
    for (let i = 0; i < out.length; i++) out[i] = size * (out[i] as number)
    this.noise(out, noise, seed)
    cut(out, outputCeiling)
    return out
  }

  private noise(samples: Float64Array, sources: readonly NoiseSource[], seed: number): void {
    const level = powerSum(sources)
    if (level !== null) addNoise(samples, level, this.playing.sampleRate, 7919 * (seed + 1))
  }

  private seedOf(strip: string): number {
    return (
      1 +
      ((this.playing.seed + [...strip].reduce((sum, letter) => (31 * sum + letter.charCodeAt(0)) % 99_991, 0)) % 99_991)
    )
  }

  private kindOf({ performer, stages }: Strip): PerformerKind {
    const first = this.gear.get(stages[0]?.gear ?? '')
    const isVoice = performer ? performer.listensTo === 'own-voice' : isSoundSource(first)
    return isVoice ? 'voice' : 'instrument'
  }
}

/** Holds every sample under a ceiling, as a stage does that has no more. */
function cut(samples: Float64Array, ceiling: number | null): void {
  if (ceiling === null) return
  const limit = 10 ** (ceiling / 20)
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i] as number
    if (x > limit) samples[i] = limit
    else if (x < -limit) samples[i] = -limit
  }
}

/** A section reacts at once and lets go within that, s (common practice, no source). */
const RELEASE = 0.12

/** A static curve on a moving level: what it does is by the envelope of the peaks. */
function applyCurve(samples: Float64Array, curve: Curve, sampleRate: number): void {
  const kept = Math.exp(-1 / (RELEASE * sampleRate))
  let envelope = 0
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i] as number
    envelope = Math.max(Math.abs(x), envelope * kept)
    if (envelope <= 0) continue
    const level = 20 * Math.log10(envelope)
    samples[i] = x * 10 ** ((curve.level(level) - level) / 20)
  }
}
