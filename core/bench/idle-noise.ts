import { fullScaleAt } from '../gear/interface/input-gain'
import { wordLengthNoise } from '../chain/noise'
import { EIN_RESISTANCE, einWeighted } from '../gear/equivalent-input-noise'
import { humWords } from '../diagnosis/hum-pattern'
import type { Hum } from '../measure/hum'
import type { Noise } from '../measure/noise'
import { powerSum } from '../numeric/power'
import { fields, inForce } from '../model'
import { formatDecimal } from '../units'
import { gainSaid } from '../simulated/simulated-interface'
import { idleNoise as trueIdleNoise } from '../simulated/truth'
import { onChannels } from './connect'
import { keepInNotes } from './keep'
import type { Bench, Figure, Procedure, Remark, Row } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { caution, disturbances, note } from './remarks'

const settings = fields({
  channel: { label: 'Channel of the file', unit: '', min: 1, max: 32, whole: true, help: 'Which one holds the input.' },
  gain: { label: 'Gain', unit: 'dB', min: -60, max: 100, help: 'The true gain, as you will use it.' },
})

/** 6. What the input makes by itself, and which of it is the mains. */
export const idleNoise: Procedure<'noise'> = {
  id: 'idle-noise',
  title: 'Idle noise and hum',
  purpose:
    'The noise of the whole path as set up, with nothing playing; the mains and its multiples are named with their levels.',
  needs: ['input'],
  guide: ({ input }) => ({
    cautions: [
      'Monitors and headphones down before the gain goes up.',
      'Mains and loudspeaker plugs only with the power off. Never lift a protective earth to cure hum: it is there for your life. Leave the inside of devices and walls to a qualified person; local rules come first.',
    ],
    connect: [
      `Everything as it will be used, up to input ${input.id}; the source silent, or the cable closed at its far end.`,
    ],
    set: [
      'The gain as it is to be used. Record twenty seconds of nothing, export as WAV.',
      'Change one thing (a cable, a socket, a lamp off) and record again.',
    ],
  }),
  signal: () => null,
  settings,
  initial: ({ input, voice }) => ({ channel: 1, gain: voice?.gain ?? inForce(input).gainMin }),
  each: {},
  initialEach: () => ({}),
  question: ({ channel = 1 }) => ({ kind: 'noise', channel }),
  rows: (found) => [found],
  summary: ({ weighted }: Noise) => `${formatDecimal(weighted, 1)} dBFS(A)`,
  outcome: (bench, typed, all) => {
    const rows = all as Row<Noise>[]
    const [first] = rows
    if (!first) return EMPTY
    const gain = typed.gain ?? inForce(bench.input).gainMin
    const { value, spread } = repeated(
      rows.map((row) => row.found.weighted),
      first.found.deviation,
    )
    const last = rows.at(-1) as Row<Noise>
    const truth =
      first.simulated &&
      trueIdleNoise(first.simulated, EIN_RESISTANCE, gainSaid(first.simulated, gain, inForce(bench.input).gainMax))
    const figures: Figure[] = [
      {
        name: 'Idle noise',
        unit: 'dBFS(A)',
        digits: 1,
        value,
        spread,
        printed: null,
        truth: null,
        judgement: `${formatDecimal(last.found.weighted - last.found.withoutHum, 1)} dB of it are hum.`,
      },
      // Hum is the place's and the cables'; what is left is what the maker answers for.
      judged({
        name: 'Without the hum',
        unit: 'dBFS(A)',
        digits: 1,
        value: last.found.withoutHum,
        spread: last.found.deviation,
        printed: expected(bench, gain),
        truth,
        within: 1,
        better: 'lower',
        more: 'noisier',
        less: 'quieter',
      }),
      {
        name: 'Unweighted',
        unit: 'dBFS',
        digits: 1,
        value: last.found.flat,
        spread: null,
        printed: null,
        truth: null,
        judgement: 'With what A-weighting does not hear, such as hum and rumble.',
      },
    ]
    const { hum } = last.found
    return {
      figures,
      remarks: [
        ...disturbances(rows),
        ...(hum ? humRemarks(hum) : [note('No multiple of 50 or 60 Hz stands out of the noise: no hum.')]),
        note('The data sheet noise is what its figures come to with 150 Ω at the input.'),
      ],
      tables: hum
        ? [
            {
              title: `Mains, ${formatDecimal(hum.frequency, 2)} Hz and its multiples`,
              head: ['Multiple', 'Frequency, Hz', 'Level, dBFS', 'Over the noise, dB'],
              rows: hum.lines.map((line) => [
                String(line.order),
                formatDecimal(line.frequency, 1),
                formatDecimal(line.level, 1),
                formatDecimal(line.over, 0),
              ]),
            },
          ]
        : [],
      keep: {
        label: 'Idle noise noted',
        where: 'in the session’s notes, on Path',
        apply: (session, on) =>
          keepInNotes(
            session,
            `${on}: idle noise of ${bench.unit.name}, ${bench.input.id}, at ${formatDecimal(gain, 1)} dB: ${formatDecimal(value, 1)} dBFS(A)${hum ? `; hum of ${hum.mains} Hz at ${formatDecimal(hum.level, 1)} dBFS` : ', no hum'}${first.simulated ? ' (on the simulated interface, for practice)' : ''}.`,
          ),
      },
    }
  },
  simulated: (bench, { channel, gain = 0 }, simulated) => [
    {
      take: {
        simulated,
        sampleRate: bench.session.system.sampleRate,
        channels: onChannels({
          channel,
          connection: {
            from: 'resistor',
            ohms: EIN_RESISTANCE,
            seconds: 12,
            gain: gainSaid(simulated, gain, inForce(bench.input).gainMax),
            humming: true,
          },
        }),
      },
      typed: {},
    },
  ],
  known: () => null,
}

/** What the printed values let one expect, dBFS(A), with 150 Ω at the input. */
function expected({ input, session }: Bench, gain: number): number {
  const { specs } = input
  const fullScale = fullScaleAt(specs, gain)
  const word = wordLengthNoise(session.system.bitDepth)
  return powerSum([
    { level: -specs.dynamicRange },
    ...(specs.ein === undefined ? [] : [{ level: einWeighted(specs.ein, specs.einWeighting) - fullScale }]),
    ...(word === null ? [] : [{ level: word }]),
  ]) as number
}

const humRemarks = (hum: Hum): Remark[] => [
  caution(`Hum of ${hum.mains} Hz, ${formatDecimal(hum.level, 1)} dBFS in all.`),
  note(humWords(hum)),
]
