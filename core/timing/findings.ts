import { LARGEST_RIFF, recordingBytes } from '../latency/disk'
import type { LoadModel } from '../latency/cpu-load'
import { MOST_LOAD, loadAt, loadWords } from '../latency/cpu-load'
import { rateMismatch } from '../latency/rate-mismatch'
import { measuredAt, roundTripsOf } from '../latency/round-trip'
import type { AudioInterface } from '../gear'
import type { RoundTrip } from '../model'
import type { Session } from '../session'
import type { Severity } from '../checks/finding'
import { channelsOf } from '../model'
import { formatDecimal, formatShort } from '../units'
import type { TimingFindingCode } from './finding-codes'

/** Something about the clock, the driver, the measurements or the disk that the engineer should know. */
export interface TimingFinding {
  code: TimingFindingCode
  severity: Severity
  message: string
  action: string
}

/** What the fit of the measurements has to say. */
export type FitRemark = { message: string } | { outlier: RoundTrip }

const kHz = (rate: number) => `${formatShort(rate / 1000)} kHz`
const GIGA = 1e9

export function findingsOf(
  session: Session,
  unit: AudioInterface | null,
  load: LoadModel | null,
  remarks: readonly FitRemark[],
): TimingFinding[] {
  if (!unit)
    return [
      {
        code: 'no-interface',
        severity: 'note',
        message: 'No strip reaches an interface yet.',
        action: 'Add an interface input to a strip: Timing is about its driver and buffers.',
      },
    ]
  return [...clock(session, unit), ...readings(session, unit, remarks), ...machine(session, load), ...disk(session)]
}

function clock({ system }: Session, unit: AudioInterface): TimingFinding[] {
  const found: TimingFinding[] = []
  if (unit.sampleRates && !unit.sampleRates.includes(system.sampleRate)) {
    found.push({
      code: 'rate-not-offered',
      severity: 'stop',
      message: `“${unit.name}” does not offer ${kHz(system.sampleRate)}.`,
      action: `Choose one of its rates: ${unit.sampleRates.map(kHz).join(', ')}.`,
    })
  }
  for (const device of system.devices ?? []) {
    if (device.sampleRate === system.sampleRate) continue
    const { longer, semitones } = rateMismatch(system.sampleRate, device.sampleRate)
    found.push({
      code: 'rate-mismatch',
      severity: 'stop',
      message: `“${device.name}” runs at ${kHz(device.sampleRate)}, the session at ${kHz(system.sampleRate)}: its material plays there ${formatDecimal(Math.abs(longer), 2)} % ${longer > 0 ? 'longer' : 'shorter'} and ${formatDecimal(Math.abs(semitones), 2)} semitones ${semitones < 0 ? 'flat' : 'sharp'}.`,
      action: 'Set the same rate in every device and program, and let one of them give the clock.',
    })
  }
  return found
}

function readings({ system }: Session, unit: AudioInterface, remarks: readonly FitRemark[]): TimingFinding[] {
  const found: TimingFinding[] = remarks.map((remark) =>
    'outlier' in remark
      ? {
          code: 'outlier',
          severity: 'caution' as const,
          message: `The measurement of ${formatDecimal(remark.outlier.milliseconds, 2)} ms at ${kHz(remark.outlier.sampleRate)} and ${remark.outlier.bufferFrames} frames does not fit the others. It is left out of the fit, and shown in its cell.`,
          action: 'Measure that cell again; correct or remove the figure.',
        }
      : {
          code: 'fit',
          severity: 'note' as const,
          message: remark.message,
          action: 'Fitted cells are no better than that; measured cells always show their measurement.',
        },
  )
  const offered = (each: { sampleRate: number }) =>
    !unit.sampleRates || unit.sampleRates.some((rate) => rate === each.sampleRate)
  const roundTrips = roundTripsOf(system, unit)
  const foreign = roundTrips.find((each) => !offered(each))
  if (foreign) {
    found.push({
      code: 'rate-lacking',
      severity: 'caution',
      message: `A round trip is entered for ${kHz(foreign.sampleRate)}, which “${unit.name}” does not offer.`,
      action: 'Correct the rate of the measurement, or add the rate to the unit.',
    })
  }
  const seen = new Set<string>()
  for (const each of roundTrips) {
    const cell = measuredAt(system, unit, each.sampleRate, each.bufferFrames).map((one) => one.milliseconds)
    const key = `${each.sampleRate} ${each.bufferFrames}`
    if (cell.length < 2 || seen.has(key)) continue
    seen.add(key)
    const range = Math.max(...cell) - Math.min(...cell)
    if (range > 0.5) {
      found.push({
        code: 'measurements-differ',
        severity: 'note',
        message: `${cell.length} measurements at ${kHz(each.sampleRate)} and ${each.bufferFrames} frames differ by ${formatDecimal(range, 2)} ms; their mean is shown with half of that as spread.`,
        action: 'Some drivers restart with another delay each time: restart, measure again, and compare.',
      })
    }
  }
  const tooShort = roundTrips.find((each) => each.milliseconds < (1000 * each.bufferFrames) / each.sampleRate)
  if (tooShort) {
    found.push({
      code: 'shorter-than-buffer',
      severity: 'caution',
      message: `${formatDecimal(tooShort.milliseconds, 2)} ms at ${kHz(tooShort.sampleRate)} and ${tooShort.bufferFrames} frames is shorter than one buffer: this cannot be a round trip through the host.`,
      action: 'Was the direct monitoring path measured? Switch it off and measure again.',
    })
  }
  return found
}

function machine({ system }: Session, load: LoadModel | null): TimingFinding[] {
  const found: TimingFinding[] = []
  if (load?.assumption)
    found.push({
      code: 'load-assumption',
      severity: 'note',
      message: load.assumption,
      action: 'Enter the meter’s reading at a second buffer size: then the load is known at all others.',
    })
  if (system.driver === 'shared' && system.sharedPeriod === undefined) {
    found.push({
      code: 'shared-period',
      severity: 'note',
      message: 'The driver is the shared mixer path; its own engine period, often 10 ms each way, is not entered.',
      action: 'Enter it, measure the round trip, or use an exclusive driver, as recording needs it.',
    })
  }
  const now = load ? loadAt(load, system.sampleRate, system.bufferFrames) : null
  const crackled = system.trials?.some(
    (each) => each.sampleRate === system.sampleRate && each.bufferFrames === system.bufferFrames && each.dropouts > 0,
  )
  if (crackled || (now && now.limit !== 'at most' && now.percent >= MOST_LOAD)) {
    found.push({
      code: 'not-sustained',
      severity: 'caution',
      message: crackled
        ? `It dropped out when ${system.bufferFrames} frames at ${kHz(system.sampleRate)} were tried.`
        : `The load at ${system.bufferFrames} frames is ${now ? loadWords(now) : 'not known'}; over ${MOST_LOAD} % expect dropouts.`,
      action: 'Work through the list against dropouts, from the top.',
    })
  }
  return found
}

function disk(session: Session): TimingFinding[] {
  const { system } = session
  if (system.takeMinutes === undefined) return []
  const channels = channelsOf(session).length
  const one = recordingBytes(system.sampleRate, system.bitDepth, 1, 60 * system.takeMinutes)
  const all = one * channels
  if (all <= LARGEST_RIFF) return []
  return [
    {
      code: 'wav-limit',
      severity: one > LARGEST_RIFF ? 'stop' : 'note',
      message:
        one > LARGEST_RIFF
          ? `One channel alone of ${formatShort(system.takeMinutes)} minutes is ${formatDecimal(one / GIGA, 2)} GB: a classic WAV file ends at 4 GiB.`
          : `All ${channels} channels in one file would be ${formatDecimal(all / GIGA, 2)} GB: a classic WAV file ends at 4 GiB. One file a channel fits.`,
      action:
        'Record one file a channel, split the take, or use a 64-bit file format that the recorder and the editor both know.',
    },
  ]
}
