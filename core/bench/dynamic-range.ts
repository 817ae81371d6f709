import type { Tone } from '../measure/tone'
import { fields, inForce } from '../model'
import { formatDecimal, formatShort } from '../units'
import { loopNoise, trueThdN } from '../simulated/truth'
import { onChannels } from './connect'
import { keepForInput, knownOf, measurement, methodOf } from './keep'
import type { Figure, Procedure, Row } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { LOOP_CAUTIONS, disturbances, note, stop } from './remarks'

const settings = fields({
  channel: {
    label: 'Channel of the file',
    unit: '',
    min: 1,
    max: 32,
    whole: true,
    help: 'Which one holds the recorded tone.',
  },
  quiet: {
    label: 'Quiet tone at',
    unit: 'dBFS',
    min: -80,
    max: -40,
    help: 'For the dynamic range; −60 dBFS by AES17.',
  },
})
/** AES17: dynamic range is read with a tone of −60 dBFS; all tones from here down are taken for that. */
const QUIET = -40

/** 5. Dynamic range with a tone of −60 dBFS, and distortion with loud ones. */
export const dynamicRange: Procedure<'tone'> = {
  id: 'dynamic-range',
  title: 'Dynamic range and THD+N',
  purpose:
    'The range between the converter’s noise and full scale, with a 997 Hz tone at −60 dBFS (AES17). Distortion with noise is measured with the tone near full scale.',
  needs: ['input', 'output'],
  guide: ({ output, input }, { quiet }) => ({
    cautions: LOOP_CAUTIONS,
    connect: [`A cable from output ${output?.id ?? ''} to input ${input.id}.`],
    set: [
      'Gain fully down, or where the recording reads what is played.',
      `Play 997 Hz so that the recording reads ${formatShort(quiet ?? -60)} dBFS; record ten seconds, export as WAV.`,
      'The same again at −1 and at −20 dBFS for THD+N. Which is which is seen from the file.',
    ],
  }),
  signal: (_, typed) => ({ kind: 'sine', frequency: 997, level: typed.quiet ?? -60, seconds: 20 }),
  settings,
  initial: () => ({ channel: 1, quiet: -60 }),
  each: {},
  initialEach: () => ({}),
  question: ({ channel = 1 }) => ({ kind: 'tone', channel }),
  rows: (found) => [found],
  summary: ({ level, frequency }: Tone) => `${formatDecimal(level, 2)} dBFS, ${formatDecimal(frequency, 1)} Hz`,
  outcome: (bench, _, all) => {
    const rows = all as Row<Tone>[]
    if (rows.length === 0) return EMPTY
    const quiet = rows.filter((row) => row.found.level < QUIET && row.found.residualA !== null)
    const loud = rows.filter((row) => row.found.level >= QUIET && row.found.thdN !== null)
    const ranges = quiet.map((row) => -(row.found.residualA as number))
    const range = ranges.length > 0 ? repeated(ranges, 0.1) : null
    const clipped = loud.filter((row) => row.found.clipped)
    const figures: Figure[] = [
      ...(range
        ? [
            judged({
              name: 'Dynamic range',
              unit: 'dB(A)',
              digits: 1,
              ...range,
              printed: bench.input.specs.dynamicRange,
              truth: quiet[0]?.simulated ? -loopNoise(quiet[0].simulated, inForce(bench.input).gainMin) : null,
              within: 0.5,
              better: 'higher',
              more: 'more',
              less: 'less',
            }),
          ]
        : []),
      ...loud.map((row) => ({
        name: `THD+N at ${formatDecimal(row.found.level, 1)} dBFS`,
        unit: 'dB',
        digits: 1,
        value: row.found.thdN as number,
        spread: null,
        printed: null,
        truth: row.simulated ? trueThdN(row.simulated, inForce(bench.input).gainMin, row.found.level) : null,
        judgement: `${percent(row.found.thdN as number)} % of the tone${row.found.clipped ? '; the recording clips' : ''}.`,
      })),
    ]
    return {
      figures,
      remarks: [
        ...disturbances(rows),
        ...(clipped.length > 0
          ? [stop('A loud recording clips: its distortion is that of the clipping. Play the tone a decibel lower.')]
          : []),
        ...(range
          ? [
              note(
                'Through a loopback cable the output’s converter counts too: the input’s own range is at least this.',
              ),
              note(
                'The tone is fitted and taken out. The notch filter of AES17 would take a band of noise with it, and read up to a few tenths of a dB better.',
              ),
            ]
          : [note('No tone under −40 dBFS is among the recordings: no dynamic range is given.')]),
      ],
      tables: loud.map((row) => ({
        title: `Harmonics at ${formatDecimal(row.found.level, 1)} dBFS`,
        head: ['Order', 'Frequency, Hz', 'Level, dBFS', 'Against the tone, dB'],
        rows: row.found.harmonics.map(({ order, level }) => [
          String(order),
          formatDecimal(order * row.found.frequency, 0),
          formatDecimal(level, 1),
          formatDecimal(level - row.found.level, 1),
        ]),
      })),
      keep: range
        ? {
            label: 'Dynamic range measured',
            where: 'beside the data sheet value of the input; every plan follows',
            apply: (session, on) =>
              keepForInput(
                session,
                bench,
                bench.input.id,
                'dynamicRange',
                measurement(
                  range.value,
                  1,
                  range.kept,
                  methodOf(
                    quiet,
                    `997 Hz at ${formatDecimal(quiet[0]?.found.level, 1)} dBFS taken out, A-weighted, by loopback${loud.map(({ found }) => `; THD+N ${formatDecimal(found.thdN, 1)} dB at ${formatDecimal(found.level, 1)} dBFS`).join('')}`,
                  ),
                  on,
                ),
              ),
          }
        : null,
    }
  },
  simulated: (bench, { channel, quiet = -60 }, simulated) => {
    const { gainMin } = inForce(bench.input)
    // Played so that the recording reads the wanted level, as one does by the meter.
    const lead = simulated.output.fullScale - simulated.input.fullScale
    return [quiet, -20, -1].map((level) => ({
      take: {
        simulated,
        sampleRate: bench.session.system.sampleRate,
        channels: onChannels({
          channel,
          connection: {
            from: 'output',
            signal: { kind: 'sine', frequency: 997, level: Math.min(0, level - lead), seconds: 8 },
            gains: [gainMin],
          },
        }),
      },
      typed: {},
    }))
  },
  known: ({ input }) => knownOf(input.measured?.dynamicRange, 'dB(A)', 1),
}

/** A ratio in dB as per cent, with two figures. */
const percent = (ratio: number) => formatShort(Number((100 * 10 ** (ratio / 20)).toPrecision(2)), 6)
