import { heldBuffers, modelRoundTrip, roundTripsOf } from '../latency/round-trip'
import type { Loopback } from '../measure/loopback'
import { halfRange, mean } from '../numeric/statistics'
import { fields } from '../model'
import { formatDecimal } from '../units'
import { onChannels } from './connect'
import { rounded } from './keep'
import type { Figure, Procedure, Row } from './procedure'
import { EMPTY } from './procedure'
import { judged } from './judgement'
import { LOOP_CAUTIONS, caution, note, stop } from './remarks'
import { trueRoundTrip } from '../simulated/truth'

const settings = fields({
  reference: {
    label: 'Played: channel',
    unit: '',
    min: 1,
    max: 32,
    whole: true,
    help: 'Of the recording, or of the file with the played signal where that is given.',
  },
  returned: { label: 'Came back: channel', unit: '', min: 1, max: 32, whole: true, help: 'Of the recording.' },
})
const each = fields({
  bufferFrames: {
    label: 'Buffer',
    unit: 'frames',
    min: 8,
    max: 16_384,
    whole: true,
    help: 'As it was set for this recording.',
  },
})

/** From here on the best fit stands far enough over the next to be believed. */
const SURE = 0.23

/** How many times the best fit is as high as the next. */
const timesOver = (confidence: number): number => Math.min(999, 1 / Math.max(1e-3, 1 - confidence))
/** Repeats that differ by more frames are no repeats. */
const STEADY = 2
/** A clock that is off by more is another clock, ppm. */
const DRIFTS = 3

/** 8. The round trip through the driver and both converters. */
export const roundTrip: Procedure<'loopback'> = {
  id: 'round-trip',
  title: 'Round trip by loopback',
  purpose:
    'How long a signal takes out of the host, through both converters and back in: what a driver reports can miss converters and driver margins.',
  needs: ['input', 'output'],
  guide: ({ output, input }) => ({
    cautions: LOOP_CAUTIONS,
    connect: [`A cable from output ${output?.id ?? ''} to input ${input.id}.`],
    set: [
      'The host’s latency compensation for recordings off.',
      'Play the sequence, and record what comes back beside it. Export both channels as one file; or export the recording alone, and give the played file too.',
      'Again at other buffer sizes, so that the untested ones can be predicted.',
    ],
  }),
  signal: () => ({ kind: 'sequence', level: -12 }),
  settings,
  initial: () => ({ reference: 1, returned: 2 }),
  each,
  initialEach: ({ session }) => ({ bufferFrames: session.system.bufferFrames }),
  playedApart: { returned: 1 },
  question: ({ reference = 1, returned = 2 }) => ({ kind: 'loopback', reference, returned }),
  rows: (found) => [found],
  summary: ({ lagFrames, repeats }: Loopback) =>
    `${formatDecimal(lagFrames, 2)} frames, ${repeats.length} ${repeats.length === 1 ? 'pass' : 'passes'}`,
  outcome: (bench, _, all) => {
    const rows = all as Row<Loopback>[]
    if (rows.length === 0) return EMPTY
    const {
      unit,
      session: { system },
    } = bench
    const buffers = [...new Set(rows.map((row) => `${row.sampleRate} ${row.typed.bufferFrames}`))]
    const figures: Figure[] = buffers.map((cell) => {
      const own = rows.filter((row) => `${row.sampleRate} ${row.typed.bufferFrames}` === cell)
      const [first] = own as [Row<Loopback>]
      const frames = first.typed.bufferFrames ?? system.bufferFrames
      const lags = own.flatMap((row) => row.found.repeats).map((lag) => (1000 * lag) / first.sampleRate)
      return judged({
        name: `${frames} frames at ${first.sampleRate / 1000} kHz`,
        unit: 'ms',
        digits: 3,
        value: mean(lags),
        spread: lags.length > 1 ? halfRange(lags) : null,
        printed: unit.latency ? modelRoundTrip(unit, system, first.sampleRate, frames) : null,
        truth: first.simulated
          ? (1000 * trueRoundTrip(first.simulated, heldBuffers(unit), frames)) / first.sampleRate
          : null,
        within: 0.05,
        better: 'neither',
        more: 'later',
        less: 'sooner',
      })
    })
    const doubtful = rows.filter((row) => row.found.confidence < SURE)
    const backwards = rows.filter((row) => row.found.lagFrames <= 0)
    const jumping = rows.filter((row) => row.found.spreadFrames > STEADY)
    const drifting = rows.filter((row) => Math.abs(row.found.driftPpm ?? 0) > DRIFTS)
    const [last] = rows.slice(-1) as [Row<Loopback>]
    const keepable = doubtful.length + backwards.length + jumping.length === 0
    return {
      figures,
      remarks: [
        ...(doubtful.length > 0
          ? [
              stop(
                `In “${doubtful[0]?.name}” the best fit is only ${formatDecimal(timesOver(doubtful[0]?.found.confidence ?? 0), 1)} times the next. Raise the level, check the channels, or use the sequence.`,
              ),
            ]
          : []),
        ...(backwards.length > 0
          ? [
              stop(
                'The return comes before what was played: the host has shifted the recording. Turn its compensation off, or swap the channels.',
              ),
            ]
          : []),
        ...(jumping.length > 0
          ? [
              stop(
                `Within “${jumping[0]?.name}” the repeats differ by ${formatDecimal(2 * (jumping[0]?.found.spreadFrames ?? 0), 1)} frames: samples were lost. Raise the buffer and record again.`,
              ),
            ]
          : []),
        ...(drifting.length > 0
          ? [
              caution(
                `The two channels drift by ${formatDecimal(Math.abs(drifting[0]?.found.driftPpm ?? 0), 1)} ppm, the return ${(drifting[0]?.found.driftPpm ?? 0) > 0 ? 'falling behind' : 'gaining on it'}: they have two clocks. Let one unit be the clock of all.`,
              ),
            ]
          : []),
        note(
          `${formatDecimal(last.found.lagFrames, 2)} frames, ${last.found.polarity < 0 ? 'polarity inverted' : 'same polarity'}, return at ${formatDecimal(last.found.level, 1)} dB; the best fit is ${formatDecimal(timesOver(last.found.confidence), 1)} times the next; ${last.found.repeats.length} ${last.found.repeats.length === 1 ? 'pass' : 'passes'}.`,
        ),
      ],
      tables: [],
      keep: keepable
        ? {
            label: 'Round trip measured',
            where: 'among the measured round trips: see Timing',
            apply: (session, on) => ({
              ...session,
              system: {
                ...session.system,
                roundTrips: [
                  ...(session.system.roundTrips ?? []),
                  ...rows.map((row) => ({
                    sampleRate: row.sampleRate,
                    bufferFrames: row.typed.bufferFrames ?? system.bufferFrames,
                    milliseconds: rounded((1000 * row.found.lagFrames) / row.sampleRate, 3),
                    unit: unit.id,
                    on,
                    note: `loopback, ${row.name}${row.found.repeats.length > 1 ? `, ${row.found.repeats.length} passes ± ${formatDecimal(row.found.spreadFrames, 2)} frames` : ''}${row.simulated ? '; on the simulated interface, for practice' : ''}`.slice(
                      0,
                      300,
                    ),
                  })),
                ] as typeof session.system.roundTrips,
              },
            }),
          }
        : null,
    }
  },
  simulated: ({ session: { system }, unit }, { reference = 1, returned = 2 }, simulated) => {
    const signal = { kind: 'sequence', level: -12 } as const
    const connection = (frames: number) =>
      ({ from: 'output', signal, gains: [simulated.input.gainMin], bufferFrames: heldBuffers(unit) * frames }) as const
    return [system.bufferFrames, 2 * system.bufferFrames]
      .filter((frames) => frames <= 16_384)
      .map((frames) => ({
        take: {
          simulated,
          sampleRate: system.sampleRate,
          channels: onChannels(
            { channel: reference, connection: { from: 'host', signal } },
            { channel: returned, connection: connection(frames) },
          ),
        },
        typed: { bufferFrames: frames },
      }))
  },
  known: ({ session: { system }, unit }) => {
    const last = roundTripsOf(system, unit).at(-1)
    return last
      ? {
          words: `${formatDecimal(last.milliseconds, 2)} ms with ${last.bufferFrames} frames at ${last.sampleRate / 1000} kHz`,
          on: last.on,
          method: last.note,
        }
      : null
  },
}
