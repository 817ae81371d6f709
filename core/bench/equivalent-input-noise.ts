import { fullScaleAt, noiseCrossover } from '../gear/interface/input-gain'
import { EIN_RESISTANCE, EIN_THERMAL, einExcess, einWeighted } from '../gear/equivalent-input-noise'
import type { Noise } from '../measure/noise'
import { powerDifference, powerSum } from '../numeric/power'
import { fields, inForce } from '../model'
import { formatDecimal, ohms, thermalNoiseA } from '../units'
import { gainSaid } from '../simulated/simulated-interface'
import { einAt, trueCrossover } from '../simulated/truth'
import { onChannels } from './connect'
import { keepForInput, knownOf, measurement, methodOf, rounded } from './keep'
import type { NoiseByGain } from './noise-by-gain'
import { crossoverOf, inputNoiseAt, noiseByGain } from './noise-by-gain'
import type { Bench, Figure, Procedure, Remark, Row } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { caution, disturbances, gainFaults, note, onFullScale, stop } from './remarks'

const settings = fields({
  channel: { label: 'Channel of the file', unit: '', min: 1, max: 32, whole: true, help: 'Which one holds the input.' },
  resistor: {
    label: 'Resistor in the plug',
    unit: 'Ω',
    min: 0,
    max: 10_000,
    help: '150 Ω, soldered between the two hot contacts of a plug; 0 for a shorted one.',
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
})

/** How far over the resistor's own noise an EIN has to be to be believed without a word, dB. */
const BELIEVABLE = 0.2

const fullScaleOf = ({ input }: Bench, gain: number) => {
  const specs = inForce(input)
  return fullScaleAt(specs, gain)
}

/** 4. Equivalent input noise: the input closed with 150 Ω, what the recording reads, and the level that reads 0 dBFS. */
export const equivalentInputNoise: Procedure<'noise'> = {
  id: 'equivalent-input-noise',
  title: 'Equivalent input noise',
  purpose:
    'The preamp’s noise as a level at its input, with 150 Ω in the socket. Several gains also show the converter’s noise and the noise crossover.',
  needs: ['input'],
  guide: ({ input }) => ({
    cautions: ['Phantom power off. Monitors and headphones down: at full gain every touch of the plug is loud.'],
    connect: [
      `A plug with a 150 Ω resistor between its hot contacts into input ${input.id}, its shell closed. Not a shorted plug: the result would be too good.`,
    ],
    set: [
      'Gain fully up, pad out, no low cut, nothing that changes the level in between. Record ten seconds or more, export as WAV.',
      'Record again at two or three lower gains down to the lowest, for the noise crossover.',
    ],
  }),
  signal: () => null,
  settings,
  initial: () => ({ channel: 1, resistor: EIN_RESISTANCE }),
  each,
  initialEach: ({ input }, _, row) => {
    const { gainMin, gainMax } = inForce(input)
    return { gain: Math.max(gainMin, rounded(gainMax - (row * (gainMax - gainMin)) / 3, 1)) }
  },
  question: ({ channel = 1 }) => ({ kind: 'noise', channel }),
  rows: (found) => [found],
  summary: ({ weighted }: Noise) => `${formatDecimal(weighted, 1)} dBFS(A)`,
  outcome: (bench, { resistor = EIN_RESISTANCE }, all) => {
    const rows = (all as Row<Noise>[]).filter((row) => row.typed.gain !== undefined)
    if (rows.length === 0) return EMPTY
    const highest = Math.max(...rows.map((row) => row.typed.gain as number))
    const atTop = rows.filter((row) => row.typed.gain === highest)
    const split = noiseByGain(
      rows.map((row) => ({
        gain: row.typed.gain as number,
        level: row.found.withoutHum,
        fullScale: fullScaleOf(bench, row.typed.gain as number),
      })),
    )
    const direct = repeated(
      atTop.map((row) => row.found.withoutHum + fullScaleOf(bench, highest)),
      atTop[0]?.found.deviation ?? 0,
    )
    // With several gains the converter's part is known and taken out; with one it stays in.
    const measured = split ? inputNoiseAt(split, highest) : direct.value
    const own = resistor > 0 ? thermalNoiseA(ohms(resistor)) : null
    const excess = own === null ? measured : powerDifference(measured, own)
    const shorted = excess === null || resistor === 0 || measured < (own ?? EIN_THERMAL) + BELIEVABLE
    const faults = gainFaults(
      bench,
      rows.map((row) => row.typed.gain),
    )
    const value = excess === null ? measured : (powerSum([{ level: excess }, { level: EIN_THERMAL }]) as number)
    const { specs } = bench.input
    const printed = specs.ein === undefined ? null : einWeighted(specs.ein, specs.einWeighting)
    const simulated = rows[0]?.simulated ?? null
    const figures: Figure[] = [
      judged({
        name: 'EIN, 150 Ω',
        unit: 'dBu(A)',
        digits: 1,
        value,
        spread: direct.spread,
        printed,
        truth: simulated?.input.ein ?? null,
        within: 0.5,
        better: 'lower',
        more: 'noisier',
        less: 'quieter',
      }),
    ]
    const crossover = split && crossoverOf(split, inForce(bench.input).fullScale, inForce(bench.input).gainMin, own)
    if (crossover !== null) figures.push(crossoverFigure(bench, crossover, simulated))
    return {
      figures,
      remarks: [
        ...faults,
        ...disturbances(rows),
        ...remarksOn(rows, resistor, shorted, own, measured),
        ...onFullScale(bench, rows),
        ...(split
          ? splitRemarks(split)
          : [
              note(
                'Recorded at one gain only: the converter’s noise is in the figure. Add two lower gains to take it out, and to see the crossover.',
              ),
            ]),
      ],
      tables: [
        {
          title: 'By gain',
          head: [
            'Gain, dB',
            'Noise, dBFS(A)',
            'As input noise, dBu(A)',
            'Model says',
            'Without the converter',
            ...(simulated ? ['True EIN'] : []),
          ],
          rows: [...rows]
            .sort((a, b) => (b.typed.gain as number) - (a.typed.gain as number))
            .map((row) => {
              const gain = row.typed.gain as number
              return [
                formatDecimal(gain, 1),
                formatDecimal(row.found.weighted, 1),
                formatDecimal(row.found.weighted + fullScaleOf(bench, gain), 1),
                formatDecimal(printed === null ? null : modelled(bench, printed, gain), 1),
                formatDecimal(split?.input.find((each) => each.gain === gain)?.level, 1),
                ...(simulated
                  ? [formatDecimal(einAt(simulated, gainSaid(simulated, gain, inForce(bench.input).gainMax)), 1)]
                  : []),
              ]
            }),
        },
      ],
      keep:
        shorted || faults.length > 0
          ? null
          : {
              label: 'EIN measured',
              where: 'beside the data sheet value of the input; every plan follows',
              apply: (session, on) =>
                keepForInput(
                  session,
                  bench,
                  bench.input.id,
                  'ein',
                  measurement(
                    value,
                    1,
                    direct.kept,
                    methodOf(
                      rows,
                      `${resistor} Ω, highest gain ${formatDecimal(highest, 1)} dB${split ? ', the converter’s noise taken out by lower ones' : ''}, A-weighted`,
                      atTop.length,
                    ),
                    on,
                  ),
                ),
            },
    }
  },
  simulated: (bench, { channel, resistor = EIN_RESISTANCE }, simulated) => {
    const { gainMin, gainMax } = inForce(bench.input)
    return [1, 0.66, 0.33, 0]
      .map((part) => rounded(gainMin + part * (gainMax - gainMin), 1))
      .filter((gain, i, list) => list.indexOf(gain) === i)
      .map((gain) => ({
        take: {
          simulated,
          sampleRate: bench.session.system.sampleRate,
          channels: onChannels({
            channel,
            connection: { from: 'resistor', ohms: resistor, seconds: 10, gain: gainSaid(simulated, gain, gainMax) },
          }),
        },
        typed: { gain },
      }))
  },
  known: ({ input }) => knownOf(input.measured?.ein, 'dBu(A)', 1),
}

/** What the printed values would read as input noise at a gain: the EIN and the converter's noise together. */
const modelled = (bench: Bench, ein: number, gain: number) =>
  powerSum([{ level: ein }, { level: fullScaleOf(bench, gain) - bench.input.specs.dynamicRange }]) as number

/** From this difference on a preamp's noise is worth a word at its lower gains, dB. */
const NOISIER = 1

function splitRemarks({ converter, sure, input }: NoiseByGain): Remark[] {
  const [low, high] = [input[0], input.at(-1)] as [NoiseByGain['input'][number], NoiseByGain['input'][number]]
  return [
    sure
      ? note(`The converter alone is at ${formatDecimal(converter, 1)} dBFS(A), as the lower gains say.`)
      : note(
          `The converter seems to be at ${formatDecimal(converter, 1)} dBFS(A). Record at the lowest gain too, where the converter is louder, to be sure of it and of the noise crossover.`,
        ),
    ...(low.level - high.level > NOISIER
      ? [
          note(
            `At ${formatDecimal(low.gain, 1)} dB the preamp is ${formatDecimal(low.level - high.level, 1)} dB noisier than at ${formatDecimal(high.gain, 1)} dB; plans reckon with the latter throughout.`,
          ),
        ]
      : []),
  ]
}

function crossoverFigure(bench: Bench, value: number, simulated: Row['simulated']): Figure {
  const { specs: paper } = bench.input
  const printedExcess = paper.ein === undefined ? null : einExcess({ ...paper, ein: paper.ein })
  const printed = printedExcess === null ? null : noiseCrossover(paper, paper.dynamicRange, printedExcess)
  return judged({
    name: 'Noise crossover',
    unit: 'dB',
    digits: 1,
    value,
    spread: null,
    printed,
    truth: simulated && trueCrossover(simulated),
    within: 1,
    better: 'neither',
    more: 'higher',
    less: 'lower',
  })
}

function remarksOn(
  rows: readonly Row<Noise>[],
  resistor: number,
  shorted: boolean,
  own: number | null,
  measured: number,
): Remark[] {
  const humming = rows.filter((row) => row.found.hum && row.found.weighted - row.found.withoutHum > 0.2)
  return [
    ...(resistor === 0
      ? [stop('A shorted plug makes no noise, so the result is too good and is not kept. Put 150 Ω into the plug.')]
      : []),
    ...(resistor > 0 && shorted
      ? [
          stop(
            `It reads ${formatDecimal(measured, 1)} dBu(A), and ${resistor} Ω alone make ${formatDecimal(own, 1)}: that is impossible. The plug is shorted, or the level that reads 0 dBFS is wrong. Not kept.`,
          ),
        ]
      : []),
    ...(humming.length > 0
      ? [
          caution(
            `There is mains hum in ${humming.length === 1 ? 'a recording' : `${humming.length} recordings`}; the figure leaves it out. Close the plug’s shell, and see “Idle noise and hum”.`,
          ),
        ]
      : []),
  ]
}
