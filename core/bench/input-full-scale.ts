import { statedFullScale } from '../gear/interface/input-gain'
import { fields, inForce, inputSpread } from '../model'
import { outputSpecs } from '../gear'
import { loadingGain } from '../gear/loading'
import type { Tone } from '../measure/tone'
import { formatDecimal, ohms, voltsToDbu, volts } from '../units'
import { loadedBy } from '../simulated/truth'
import { onChannels } from './connect'
import { keepForInput, knownOf, measurement, methodOf } from './keep'
import { outputInForce } from './output-full-scale'
import type { Bench, Procedure, Row, Typed } from './procedure'
import { EMPTY } from './procedure'
import { against, judged, repeated } from './judgement'
import { LOOP_CAUTIONS, caution, disturbances, gainFaults, note, stop } from './remarks'

const settings = fields({
  channel: {
    label: 'Channel of the file',
    unit: '',
    min: 1,
    max: 32,
    whole: true,
    help: 'Which one holds the recorded tone.',
  },
  frequency: { label: 'Frequency', unit: 'Hz', min: 20, max: 20_000, help: 'Of the tone.' },
  played: { label: 'Played at', unit: 'dBFS', min: -100, max: 0, help: 'Level of the tone.' },
  voltage: {
    label: 'Voltage at the input',
    unit: 'V',
    min: 0.00001,
    max: 60,
    optional: true,
    help: 'Where it is known, by a meter, with the cable plugged in. Left out: the output’s full scale says it.',
  },
})
const each = fields({
  gain: {
    label: 'Gain',
    unit: 'dB',
    min: -60,
    max: 100,
    help: 'The true gain of this recording: the measured one, if there is one.',
  },
  pad: { label: 'Pad', unit: 'dB', min: 0, max: 60, help: '0 where it is out.' },
})

/** A multimeter’s usual accuracy, 1 %, in dB (common practice, no source). */
const METER = 20 * Math.log10(1.01)

/** How well the level at the input is known: standard uncertainty, dB. */
const referenceSpread = ({ output }: Bench, { voltage }: Typed): number =>
  voltage !== undefined || !output
    ? METER / Math.sqrt(3)
    : (inputSpread(output, 'fullScale', outputSpecs.fullScale)?.u ?? 0)

/** The level at the input's socket while the tone plays, dBu; from the voltage, or from the output and what it loses into the input. */
function levelAtInput({ input, output }: Bench, { voltage, played = -20 }: Typed): number | null {
  if (voltage !== undefined) return voltsToDbu(volts(voltage))
  if (!output) return null
  const load = inForce(input).impedance
  const source = inForce(output).impedance
  return outputInForce(output).fullScale + played + loadingGain(source === undefined ? undefined : ohms(source), load)
}

/** 2. The level at an input that reads 0 dBFS: a known level, less what the recording reads. */
export const inputFullScale: Procedure<'tone'> = {
  id: 'input-full-scale',
  title: 'Input full scale',
  purpose:
    'Which level at the input reads 0 dBFS at the lowest gain. It takes a known voltage, or a measured output and a loopback cable.',
  needs: ['input', 'output'],
  guide: ({ output, input }) => ({
    cautions: LOOP_CAUTIONS,
    connect: [`A cable from output ${output?.id ?? ''} to input ${input.id}.`],
    set: [
      'The output’s volume fully up; the input’s gain fully down, or what is typed below.',
      'Play the tone, record five seconds or more, export the recording as WAV.',
      'Unplug, plug in and record again for the spread.',
    ],
  }),
  signal: (_, typed) => ({ kind: 'sine', frequency: typed.frequency ?? 997, level: typed.played ?? -20, seconds: 20 }),
  settings,
  initial: () => ({ channel: 1, frequency: 997, played: -20 }),
  each,
  initialEach: ({ input }) => ({ gain: inForce(input).gainMin, pad: 0 }),
  question: ({ channel = 1 }) => ({ kind: 'tone', channel }),
  rows: (found) => [found],
  summary: ({ level, frequency }: Tone) => `${formatDecimal(level, 2)} dBFS, ${formatDecimal(frequency, 1)} Hz`,
  outcome: (bench, typed, all) => {
    const rows = all as Row<Tone>[]
    const level = levelAtInput(bench, typed)
    if (rows.length === 0 || level === null) return EMPTY
    const specs = inForce(bench.input)
    const faults = [
      ...(rows.some((row) => row.found.clipped)
        ? [stop('A recording clips: its level is not that of the tone. Turn the gain down and record again.')]
        : []),
      ...gainFaults(
        bench,
        rows.map((row) => row.typed.gain),
      ),
    ]
    const values = rows.map((row) =>
      statedFullScale(level - row.found.level, specs.gainMin, row.typed.gain ?? specs.gainMin, row.typed.pad),
    )
    const { value, spread: repeats } = repeated(values, rows[0]?.found.deviation ?? 0)
    const { spread, kept } = against(repeats, referenceSpread(bench, typed))
    const output = bench.output && outputInForce(bench.output)
    const off = Math.max(...rows.map((row) => Math.abs(row.found.frequency - (typed.frequency ?? 997))))
    return {
      figures: [
        judged({
          name: '0 dBFS at',
          unit: 'dBu',
          digits: 2,
          value,
          spread,
          printed: bench.input.specs.fullScale,
          truth: rows[0]?.simulated?.input.fullScale ?? null,
          within: 0.1,
          better: 'neither',
          more: 'less sensitive',
          less: 'more sensitive',
        }),
      ],
      remarks: [
        ...faults,
        ...disturbances(rows),
        ...(typed.voltage === undefined && output && !output.measured
          ? [
              caution(
                'The output’s full scale is from the data sheet: this result is no better than that. Measure the output first, or give the voltage.',
              ),
            ]
          : []),
        ...(off > 5
          ? [
              caution(
                `The recorded tone has ${formatDecimal(rows[0]?.found.frequency, 1)} Hz, not what was to be played. Check what was recorded.`,
              ),
            ]
          : []),
        note(
          `At the input there were ${formatDecimal(level, 2)} dBu${typed.voltage === undefined ? ', from the output less what it loses into the input' : ', from the voltage'}.`,
        ),
      ],
      tables: [],
      keep:
        faults.length > 0
          ? null
          : {
              label: 'Input full scale measured',
              where: 'beside the data sheet value of the input; every plan follows',
              apply: (session, on) =>
                keepForInput(
                  session,
                  bench,
                  bench.input.id,
                  'fullScale',
                  measurement(
                    value,
                    2,
                    kept,
                    methodOf(
                      rows,
                      typed.voltage === undefined ? 'Loopback cable from a known output' : 'Tone of a known voltage',
                    ),
                    on,
                  ),
                ),
            },
    }
  },
  simulated: (bench, typed, simulated) => {
    const specs = inForce(bench.input)
    // A known voltage is what is brought to the simulated interface's input, as far as its output goes.
    const lead = simulated.output.fullScale + loadedBy(simulated, simulated.output.impedance)
    const level =
      typed.voltage === undefined ? (typed.played ?? -20) : Math.min(0, voltsToDbu(volts(typed.voltage)) - lead)
    return [0, 1].map((repeat) => ({
      take: {
        repeat,
        simulated,
        sampleRate: bench.session.system.sampleRate,
        channels: onChannels({
          channel: typed.channel,
          connection: {
            from: 'output',
            signal: { kind: 'sine', frequency: typed.frequency ?? 997, level, seconds: 5 },
            gains: [specs.gainMin],
          },
        }),
      },
      typed: { gain: specs.gainMin, pad: 0 },
    }))
  },
  known: ({ input }) => knownOf(input.measured?.fullScale, 'dBu', 2),
}
