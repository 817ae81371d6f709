import type { WavFault, WavFormat } from '../wav/format'
import { WavStream, oddRemarks } from '../wav/wav-stream'
import { AWeightedMeter } from './a-weighted'
import type { ClippedRun } from './clipped-runs'
import { ChannelMeter } from './channel-meter'
import type { Loudness } from './loudness'
import { LoudnessHops, channelWeights, loudnessOf } from './loudness'
import type { Overview } from './overview'
import { TruePeakMeter } from './true-peak'

/** One channel of a recording. Levels in dBFS (AES17: a full-scale sine reads 0, RMS and peak alike), loudness in LUFS. */
export interface ChannelLevels extends Loudness {
  /** `null` for digital silence, as with every level here. */
  peak: number | null
  peakSeconds: number
  truePeak: number | null
  rms: number | null
  rmsA: number | null
  /** Peak over RMS, dB; a sine has 3.01. */
  crest: number | null
  /** Mean value as a level; negative means are told by `dcPolarity`. */
  dc: number | null
  dcPolarity: 1 | -1
  clippedRuns: { from: number; seconds: number; frames: number }[]
  clippedRunCount: number
  /** RMS of the quietest second. */
  floor: number | null
  /** The level over time; samples, 1 for full scale. */
  overview: Overview
}

export interface LevelsReport {
  format: WavFormat & { frames: number; seconds: number }
  channels: ChannelLevels[]
  /** Loudness of all channels together. */
  programme: Loudness
  remarks: string[]
}

export type LevelsResult = { ok: true; report: LevelsReport } | { ok: false; fault: WavFault }

const amplitude = (value: number) => (value > 0 ? 20 * Math.log10(value) : null)
/** AES17: a sine's mean square of ½ is 0 dBFS. */
const meanSquare = (value: number) => (value > 0 ? 10 * Math.log10(2 * value) : null)

/** Which of a file's channels one worker takes: every one whose number leaves `part` when divided by `of`. */
export interface Share {
  part: number
  of: number
}
const WHOLE: Share = { part: 0, of: 1 }

/** What one worker found of its channels, to be joined with what the others found. */
export interface LevelsPart {
  format: WavFormat
  frames: number
  remarks: string[]
  odd: number
  channels: { index: number; levels: ChannelLevels; hops: number[] }[]
}
export type LevelsPartResult = { ok: true; part: LevelsPart } | { ok: false; fault: WavFault }

type Meters = { time: ChannelMeter; weighted: AWeightedMeter; peak: TruePeakMeter; loudness: LoudnessHops }

/** Measures a share of a WAV file's channels as it comes, in bounded memory: a few numbers for every tenth of a second. */
export class LevelsPartMeter {
  private readonly stream: WavStream
  private readonly channels = new Map<number, Meters>()

  constructor({ part, of }: Share = WHOLE) {
    const wants = (channel: number) => channel % of === part
    this.stream = new WavStream({
      wants,
      begin: (format) => {
        for (let channel = 0; channel < format.channels; channel++)
          if (wants(channel)) this.channels.set(channel, metersFor(format))
      },
      frames: (blocks, count) => {
        for (const [channel, { time, weighted, peak, loudness }] of this.channels) {
          const block = blocks[channel] as Float64Array
          time.frames(block, count)
          weighted.frames(block, count)
          peak.frames(block, count)
          loudness.frames(block, count)
        }
      },
    })
  }

  push(bytes: Uint8Array): void {
    this.stream.push(bytes)
  }

  end(): LevelsPartResult {
    const { format, frames, fault, remarks, odd } = this.stream.end()
    if (fault || !format)
      return {
        ok: false,
        fault: fault ?? { code: 'no-format', message: 'The file has no format chunk. Export it again.' },
      }
    const told = new Set(oddRemarks(odd))
    return {
      ok: true,
      part: {
        format,
        frames,
        odd,
        remarks: remarks.filter((each) => !told.has(each)),
        channels: [...this.channels].map(([index, meters]) => ({
          index,
          levels: channelLevels(meters, format.sampleRate),
          hops: meters.loudness.hops,
        })),
      },
    }
  }
}

const metersFor = (format: WavFormat): Meters => ({
  time: new ChannelMeter(format),
  weighted: new AWeightedMeter(format.sampleRate),
  peak: new TruePeakMeter(),
  loudness: new LoudnessHops(format.sampleRate),
})

/** The levels of a whole file from all its parts. */
export function joinLevels(parts: readonly [LevelsPart, ...LevelsPart[]]): LevelsReport {
  const [{ format, frames }] = parts
  const channels = parts.flatMap((part) => part.channels).sort((a, b) => a.index - b.index)
  return {
    format: { ...format, frames, seconds: frames / format.sampleRate },
    channels: channels.map(({ levels }) => levels),
    programme: loudnessOf(
      channels.map(({ hops }) => hops),
      channelWeights(format),
    ),
    remarks: [
      ...new Set(parts.flatMap(({ remarks }) => remarks)),
      ...oddRemarks(parts.reduce((sum, { odd }) => sum + odd, 0)),
    ],
  }
}

/** Measures the levels of a whole WAV file as it comes. */
export class LevelsMeter {
  private readonly meter = new LevelsPartMeter()

  push(bytes: Uint8Array): void {
    this.meter.push(bytes)
  }

  end(): LevelsResult {
    const result = this.meter.end()
    return result.ok ? { ok: true, report: joinLevels([result.part]) } : result
  }
}

function channelLevels({ time, weighted, peak, loudness }: Meters, sampleRate: number): ChannelLevels {
  const found = time.end()
  const [level, rms] = [amplitude(found.peak), meanSquare(found.meanSquare)]
  const run = ({ from, frames }: ClippedRun) => ({ from, seconds: from / sampleRate, frames })
  return {
    peak: level,
    peakSeconds: found.peakAt / sampleRate,
    truePeak: amplitude(Math.max(peak.end(), found.peak)),
    rms,
    rmsA: meanSquare(weighted.end()),
    // AES17 levels of a sine are equal, so the sine's own crest factor comes back in.
    crest: level === null || rms === null ? null : level - rms + 10 * Math.log10(2),
    dc: amplitude(Math.abs(found.dc)),
    dcPolarity: found.dc < 0 ? -1 : 1,
    clippedRuns: found.clippedRuns.map(run),
    clippedRunCount: found.clippedRunCount,
    floor: meanSquare(found.quietest),
    overview: found.overview,
    ...loudnessOf([loudness.hops]),
  }
}
