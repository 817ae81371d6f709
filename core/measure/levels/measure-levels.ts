import type { WavFault, WavFormat } from '../wav/format'
import { WavStream } from '../wav/wav-stream'
import { AWeightedMeter } from './a-weighted'
import type { ClippedRun } from './channel-meter'
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

/** Measures the levels of a WAV file as it comes, in bounded memory: a few numbers for every tenth of a second. */
export class LevelsMeter {
  private readonly stream: WavStream
  channels: { time: ChannelMeter; weighted: AWeightedMeter; peak: TruePeakMeter; loudness: LoudnessHops }[] = []

  constructor() {
    this.stream = new WavStream({
      begin: (format) => {
        const { channels, sampleRate } = format
        this.channels = Array.from({ length: channels }, () => ({
          time: new ChannelMeter(format),
          weighted: new AWeightedMeter(sampleRate),
          peak: new TruePeakMeter(),
          loudness: new LoudnessHops(sampleRate),
        }))
      },
      frames: (blocks, count) => {
        blocks.forEach((block, i) => {
          const meters = this.channels[i]
          if (meters) for (const meter of Object.values(meters)) meter.frames(block, count)
        })
      },
    })
  }

  push(bytes: Uint8Array): void {
    this.stream.push(bytes)
  }

  end(): LevelsResult {
    const { format, frames, fault, remarks } = this.stream.end()
    if (fault || !format)
      return {
        ok: false,
        fault: fault ?? { code: 'no-format', message: 'The file has no format chunk. Export it again.' },
      }
    return {
      ok: true,
      report: {
        format: { ...format, frames, seconds: frames / format.sampleRate },
        channels: this.channels.map((meters) => channelLevels(meters, format.sampleRate)),
        programme: loudnessOf(
          this.channels.map((meters) => meters.loudness.hops),
          channelWeights(format),
        ),
        remarks,
      },
    }
  }
}

function channelLevels(
  { time, weighted, peak, loudness }: LevelsMeter['channels'][number],
  sampleRate: number,
): ChannelLevels {
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
