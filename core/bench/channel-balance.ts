import type { Balance } from '../measure/balance'
import { mean } from '../numeric/statistics'
import { fields, inForce } from '../model'
import { formatDecimal } from '../units'
import { onChannels } from './connect'
import { keepForInput, knownOf, measurement, methodOf } from './keep'
import type { Procedure, Row } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { LOOP_CAUTIONS, caution, note, stop } from './remarks'

const settings = fields({
  channelA: { label: 'First input is channel', unit: '', min: 1, max: 32, whole: true, help: 'Of the file.' },
  channelB: { label: 'Second input is channel', unit: '', min: 1, max: 32, whole: true, help: 'Of the file.' },
  level: { label: 'Played at', unit: 'dBFS', min: -60, max: -1, help: 'Peak of the pulses.' },
})

/** Two channels that are less alike were not given the same signal (common practice, no source). */
const ALIKE = 0.9
/** Two inputs of one unit that differ by more than this from what is printed are not set alike (common practice, no source), dB. */
const SET_ALIKE = 3

/** 7. Two inputs that are given the same: their difference in level, and whether either turns polarity over. */
export const channelBalance: Procedure<'balance'> = {
  id: 'channel-balance',
  title: 'Balance and polarity',
  purpose:
    'Whether two inputs at the same setting read the same, as a stereo pair must, and whether one inverts the signal.',
  needs: ['input', 'output', 'second'],
  guide: ({ output, input, second }) => ({
    cautions: LOOP_CAUTIONS,
    connect: [
      `One cable from output ${output?.id ?? ''}, split to inputs ${input.id} and ${second?.id ?? ''}. Or connect the same cable to one input, then to the other, and put the two recordings side by side.`,
    ],
    set: [
      'Both inputs at the same gain, pads and low cuts alike.',
      'Play the polarity pulses, record both inputs for ten seconds, export as one file of two channels.',
    ],
  }),
  signal: (_, { level }) => ({ kind: 'polarity', level: level ?? -12, seconds: 15 }),
  settings,
  initial: () => ({ channelA: 1, channelB: 2, level: -12 }),
  each: {},
  initialEach: () => ({}),
  question: ({ channelA = 1, channelB = 2 }) => ({ kind: 'balance', first: channelA, second: channelB }),
  rows: (found) => [found],
  summary: ({ difference, count }: Balance) => `${formatDecimal(difference, 2)} dB, ${count} times`,
  outcome: (bench, _, all) => {
    const rows = all as Row<Balance>[]
    const [first] = rows
    const { input, second } = bench
    if (!first || !second) return EMPTY
    const { value, spread, kept } = repeated(
      rows.map((row) => row.found.difference),
      first.found.deviation,
    )
    const ownDifference = input.specs.fullScale - second.specs.fullScale
    const fullScale = inForce(input).fullScale - value
    const lag = mean(rows.map((row) => row.found.lagFrames))
    const { keepsPolarity } = first.found
    const faults = [
      ...(rows.some((row) => row.found.likeness < ALIKE)
        ? [
            stop(
              'The two channels do not hold the same signal. Check the cables, and which channels of the file are compared.',
            ),
          ]
        : []),
      ...(Math.abs(value - ownDifference) > SET_ALIKE
        ? [
            stop(
              `${formatDecimal(Math.abs(value), 1)} dB is no imbalance of two inputs that are set alike. Check gains and pads, and that both are fed the same way: one leg of a balanced cable gives 6 dB less.`,
            ),
          ]
        : []),
    ]
    return {
      figures: [
        judged({
          name: `${second.id} over ${input.id}`,
          unit: 'dB',
          digits: 2,
          value,
          spread,
          printed: ownDifference,
          truth: first.simulated?.imbalance ?? null,
          within: 0.1,
          better: 'neither',
          more: 'louder',
          less: 'quieter',
        }),
      ],
      remarks: [
        ...faults,
        first.found.sameWay
          ? note('Both have the same polarity.')
          : stop(
              `The two have opposite polarity: one cable or input inverts the signal${keepsPolarity ? `; it is ${keepsPolarity[0] ? second.id : input.id}, for the other goes up first as the pulse does` : ''}. Repair the cable, or use the polarity switch of one of them.`,
            ),
        ...(first.found.sameWay && keepsPolarity && !keepsPolarity[0]
          ? [caution('Both invert the pulse: the output or both cables do it.')]
          : []),
        ...(keepsPolarity === null
          ? [note('A tone shows only their difference; the polarity pulses show each one.')]
          : []),
        ...(Math.abs(lag) > 0.5
          ? [
              caution(
                `The second lags by ${formatDecimal(lag, 2)} frames: they were recorded one after the other, or do not come from the same converter.`,
              ),
            ]
          : []),
        ...(faults.length > 0
          ? []
          : [
              note(
                `Kept as the full scale of ${second.id}: ${formatDecimal(fullScale, 2)} dBu, from that of ${input.id}.`,
              ),
            ]),
      ],
      tables: [],
      keep:
        faults.length > 0
          ? null
          : {
              label: 'Balance measured',
              where: 'as the full scale of the second input',
              apply: (session, on) =>
                keepForInput(
                  session,
                  bench,
                  second.id,
                  'fullScale',
                  measurement(
                    fullScale,
                    2,
                    kept,
                    methodOf(
                      rows,
                      `Against ${input.id} with the same signal${first.found.sameWay ? '' : '; opposite polarity'}`,
                    ),
                    on,
                  ),
                ),
            },
    }
  },
  simulated: (bench, { channelA = 1, channelB = 2, level = -12 }, simulated) => {
    const connection = (second: boolean) =>
      ({
        from: 'output',
        signal: { kind: 'polarity', level, seconds: 6 },
        gains: [inForce(bench.input).gainMin],
        second,
      }) as const
    return [
      {
        take: {
          simulated,
          sampleRate: bench.session.system.sampleRate,
          channels: onChannels(
            { channel: channelA, connection: connection(false) },
            { channel: channelB, connection: connection(true) },
          ),
        },
        typed: {},
      },
    ]
  },
  known: ({ second }) => knownOf(second?.measured?.fullScale, 'dBu at the second input', 2),
}
