import { fullScaleAt } from '../chain/input-gain'
import { EIN_RESISTANCE, einWeighted, wordLengthNoise } from '../chain/noise'
import type { Hum } from '../measure/hum'
import type { Noise } from '../measure/noise'
import { powerSum } from '../numeric/power'
import { fields, inForce } from '../session'
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
  gain: { label: 'Gain', unit: 'dB', min: -60, max: 100, help: 'Truly given, as it is to be used.' },
})

/** 6. What the input makes by itself, and which of it is the mains. */
export const idleNoise: Procedure<'noise'> = {
  id: 'idle-noise',
  title: 'Idle noise and hum',
  purpose:
    'The noise of the whole path as it stands, with nothing playing; the mains and its multiples are named with their levels.',
  needs: ['input'],
  guide: ({ input }) => ({
    cautions: [
      'Monitors and headphones down before the gain goes up.',
      'Mains and loudspeaker plugs only with the power off. Never lift a protective earth to cure hum: it is there for your life. What is inside a box or a wall is for a qualified person; local rules come first.',
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
        note('The printed noise is what the printed values come to with 150 Ω at the input.'),
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

/** What the pattern of the lines hints at, and what to try. Common practice, no source. */
function humRemarks({ mains, lines, level }: Hum): Remark[] {
  const at = (order: number) => lines.find((line) => line.order === order)?.level ?? -Infinity
  const odd = Math.max(at(1), at(3), at(5))
  const even = Math.max(at(2), at(4))
  return [
    caution(`Hum of ${mains} Hz, ${formatDecimal(level, 1)} dBFS in all.`),
    even > odd
      ? note(
          `${2 * mains} Hz and its multiples lead: ripple of a power supply. Try another supply or battery for each box in turn, and move cables away from supplies.`,
        )
      : at(1) > Math.max(at(3), at(5)) + 10
        ? note(
            `${mains} Hz alone leads: a magnetic field. Turn or move the microphone, the pickup or the cable away from transformers and supplies, and cross mains cables at right angles.`,
          )
        : note(
            `${mains} Hz and its odd multiples lead: an earth loop, or a field from mains cables. Feed all boxes from one socket strip, take out cables one after the other until it goes, use balanced leads, or a transformer (DI box) in the line.`,
          ),
  ]
}
