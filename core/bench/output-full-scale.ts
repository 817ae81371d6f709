import { fields, inForce } from '../model'
import { mean } from '../numeric/statistics'
import { formatDecimal, formatShort, voltsToDbu, volts } from '../units'
import { readVolts } from '../simulated/record'
import { keepForOutput, knownOf, measurement, methodOf } from './keep'
import type { Procedure, Typed } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { caution, note } from './remarks'

const settings = fields({
  frequency: {
    label: 'Frequency',
    unit: 'Hz',
    min: 40,
    max: 400,
    help: 'Of the tone that is played; a hand multimeter is right from 50 to 400 Hz.',
  },
  played: { label: 'Played at', unit: 'dBFS', min: -60, max: 0, help: 'Level of the tone.' },
  accuracy: { label: 'The meter’s accuracy', unit: '%', min: 0, max: 10, help: 'From its leaflet; often ±1 %.' },
})
const each = fields({
  volts: { label: 'It reads', unit: 'V', min: 0.0001, max: 60, help: 'RMS, alternating voltage.' },
})

const signal = (typed: Typed) =>
  ({ kind: 'sine', frequency: typed.frequency ?? 100, level: typed.played ?? -20, seconds: 60 }) as const

/** 1. The level at an output that 0 dBFS gives: a tone of −20 dBFS, its voltage, and 20 dB more. */
export const outputFullScale: Procedure = {
  id: 'output-full-scale',
  title: 'Output full scale',
  purpose:
    'How many dBu an output gives at 0 dBFS, by a hand multimeter. It is the known source of the measurements by loopback.',
  needs: ['output'],
  guide: ({ output }) => ({
    cautions: [
      'Monitors, headphones and amplifiers off this output. Line or headphone outputs only, never an amplifier’s loudspeaker output.',
      'The meter on alternating volts, and never near the mains with its probes in this use; leave the inside of devices to a qualified person.',
    ],
    connect: [
      `Nothing into output ${output?.id ?? ''} but a plug whose contacts can be reached. Balanced: probe between the two legs; one leg alone reads 6 dB less if both are driven.`,
    ],
    set: [
      'The output’s volume fully up, the host’s faders at their zero mark, nothing that changes the level in between.',
      'Play the tone, read the voltage, type it. Unplug and read again for the spread.',
    ],
  }),
  signal: (_, typed) => signal(typed),
  settings,
  initial: () => ({ frequency: 100, played: -20, accuracy: 1 }),
  each,
  initialEach: () => ({}),
  question: null,
  rows: () => [],
  summary: (_, typed) => `${formatDecimal(typed.volts === undefined ? null : voltsToDbu(volts(typed.volts)), 2)} dBu`,
  outcome: (bench, typed, rows) => {
    const { output } = bench
    const [played = -20, accuracy = 1] = [typed.played, typed.accuracy]
    const levels = rows.flatMap((row) =>
      row.typed.volts === undefined ? [] : [voltsToDbu(volts(row.typed.volts)) - played],
    )
    if (!output || levels.length === 0) return EMPTY
    const meter = 20 * Math.log10(1 + accuracy / 100)
    const { value, spread } = repeated(levels, 0)
    const whole = Math.hypot(spread, meter)
    const printed = output.specs.fullScale
    return {
      figures: [
        judged({
          name: 'Full scale gives',
          unit: 'dBu',
          digits: 2,
          value,
          spread: whole,
          printed,
          truth: rows[0]?.simulated?.output.fullScale ?? null,
          within: 0.1,
          better: 'neither',
          more: 'hotter',
          less: 'quieter',
        }),
      ],
      remarks: [
        ...(Math.abs(value - printed + 6.02) < 0.4
          ? [
              caution(
                'It is 6 dB under the data sheet: one leg of a balanced output was probably measured against earth. Probe between the two legs.',
              ),
            ]
          : []),
        note(`The meter’s ±${accuracy} % are ±${meter.toFixed(2)} dB of the spread.`),
      ],
      tables: [],
      keep: {
        label: 'Output full scale measured',
        where: 'beside the data sheet value of the output',
        apply: (session, on) =>
          keepForOutput(
            session,
            bench,
            'fullScale',
            measurement(
              value,
              2,
              { value: whole, is: 'half-range' },
              methodOf(
                rows,
                `${formatShort(typed.frequency ?? 100)} Hz at ${formatShort(played)} dBFS, hand multimeter, mean ${mean(rows.map((row) => row.typed.volts ?? 0)).toPrecision(4)} V`,
              ),
              on,
            ),
          ),
      },
    }
  },
  simulated: ({ session }, typed, simulated) => {
    const read = readVolts(simulated, { ...signal(typed), seconds: 2 }, session.system.sampleRate)
    // The last figure of a meter's display is never quite still.
    return [0, 1, -1].map((last) => ({ reading: { volts: Number((read * (1 + last * 0.0008)).toPrecision(4)) } }))
  },
  known: ({ output }) => knownOf(output?.measured?.fullScale, 'dBu', 2),
}

/** The output's full scale in force, and whether it was measured. */
export const outputInForce = (output: {
  specs: { fullScale: number }
  measured?: { fullScale?: unknown } | undefined
}): { fullScale: number; measured: boolean } => ({
  fullScale: inForce(output).fullScale,
  measured: output.measured?.fullScale !== undefined,
})
