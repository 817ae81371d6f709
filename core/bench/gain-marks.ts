import { positionInWords, positionToGain } from '../chain/knob'
import type { Plateau } from '../measure/plateaus'
import type { KnobTable } from '../gear'
import type { Signal } from '../signals/signal'
import { editInput, withMeasurement } from '../edits'
import { fields, inForce } from '../model'
import { knobFields } from '../gear'
import { mean } from '../numeric/statistics'
import { formatDecimal, formatShort } from '../units'
import { gainAtPosition } from '../simulated/simulated-interface'
import { onChannels } from './connect'
import { knownOf, measurement, methodOf, rounded } from './keep'
import type { Bench, Procedure, Row, Typed } from './procedure'
import { EMPTY } from './procedure'
import { judged } from './judgement'
import { LOOP_CAUTIONS, caution, note, stop } from './remarks'

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
  level: {
    label: 'Played at',
    unit: 'dBFS',
    min: -100,
    max: 0,
    help: 'So low that the recording does not clip with the gain fully up; with the staircase its first step.',
  },
  fall: {
    label: 'Falls by',
    unit: 'dB',
    min: 0,
    max: 15,
    help: 'From mark to mark, for a staircase that makes up for the gain; 0 for one tone throughout.',
  },
})
const each = fields({
  position: { ...knobFields.position },
  played: {
    label: 'Played at',
    unit: 'dBFS',
    min: -120,
    max: 0,
    help: 'Level of the tone at this mark; lower ones for high gains, by the staircase.',
  },
  said: {
    label: 'Scale says',
    unit: 'dB',
    min: -100,
    max: 100,
    optional: true,
    help: 'The gain that the unit’s scale or display says there, for the check of its steps.',
  },
})

/** Marks of a knob that is turned from fully down to fully up. */
const MARKS = 6
/** A knob is held for so long, s. */
const HOLD = 3

interface Mark {
  position: number
  gain: number
  said: number | undefined
  plateau: Plateau
}

/** What the marks say: gain over the lowest, from the differences of the levels. */
function marksOf({ input }: Bench, rows: readonly Row<Plateau>[]): Mark[] {
  const sorted = rows
    .filter((row) => row.typed.position !== undefined)
    .sort((a, b) => (a.typed.position as number) - (b.typed.position as number))
  const first = sorted[0]
  if (!first) return []
  const over = (row: Row<Plateau>) => row.found.level - (row.typed.played ?? 0)
  const lowest = inForce(input).gainMin
  return sorted.map((row) => ({
    position: row.typed.position as number,
    gain: lowest + over(row) - over(first),
    said: row.typed.said,
    plateau: row.found,
  }))
}

/** 3. Which gain stands at which knob position; and whether the steps of its scale are what they say. */
export const gainMarks: Procedure<'plateaus'> = {
  id: 'gain-marks',
  title: 'Gain at the knob’s marks',
  purpose:
    'The gain at knob positions, from one tone recorded while the knob is held at each mark. A gain can then be set by its position.',
  needs: ['input', 'output'],
  guide: ({ output, input }, typed) => ({
    cautions: LOOP_CAUTIONS,
    connect: [`A cable from output ${output?.id ?? ''} to input ${input.id}.`],
    set: [
      `Gain fully up: the recording must not clip with the tone at ${formatShort(playedAt(typed, MARKS - 1))} dBFS. Then fully down.`,
      'Record. Hold the knob for three seconds fully down, then at each mark upwards, and last fully up.',
      'For a wide range let the tone fall from mark to mark: play the staircase and turn the knob at each of its short silences.',
    ],
  }),
  signal: (_, typed) => toneOf(typed),
  settings,
  initial: (bench) => ({ channel: 1, frequency: 997, level: quietEnough(bench), fall: 0 }),
  each,
  initialEach: (_, typed, row) => ({ position: Math.min(17, 7 + 2 * row), played: playedAt(typed, row) }),
  question: ({ channel = 1 }) => ({ kind: 'plateaus', channel }),
  rows: (found) => found.plateaus,
  summary: ({ level, at }: Plateau) => `${formatDecimal(level, 2)} dBFS at ${formatDecimal(at, 1)} s`,
  outcome: (bench, _, all) => {
    const rows = all as Row<Plateau>[]
    const marks = marksOf(bench, rows)
    const [first, last] = [marks[0], marks.at(-1)]
    if (!first || !last || marks.length < 2)
      return rows.length > 0
        ? { ...EMPTY, remarks: [note('Two marks or more are needed. Give each its knob position.')] }
        : EMPTY
    const specs = inForce(bench.input)
    const { simulated } = rows[0] as Row<Plateau>
    const faults = [
      ...(rows.some((row) => row.found.clipped)
        ? [stop('At a mark the recording clips, so no gain is given there. Play the tone lower and record again.')]
        : []),
      ...marks.flatMap((mark, i) => {
        const before = marks[i - 1]
        if (!before) return []
        if (mark.position === before.position)
          return [stop(`Position ${formatShort(mark.position)} is there twice. Give each mark its own.`)]
        return mark.gain < before.gain - 0.05
          ? [
              stop(
                `From position ${formatShort(before.position)} to ${formatShort(mark.position)} the gain falls. Check the order of the marks.`,
              ),
            ]
          : []
      }),
    ]
    const whole = first.position === knobFields.position.min && last.position === knobFields.position.max
    const range = last.gain - first.gain
    const spread = Math.hypot(first.plateau.deviation, last.plateau.deviation)
    const knob = marks.map((mark, i) => ({
      position: mark.position,
      gain: rounded(Math.max(mark.gain, ...marks.slice(0, i).map((each) => each.gain)), 2),
    })) as KnobTable
    const truth = (position: number) => (simulated ? gainAtPosition(simulated, position) : null)
    return {
      figures: whole
        ? [
            judged({
              name: 'Highest gain',
              unit: 'dB',
              digits: 2,
              value: specs.gainMin + range,
              spread,
              printed: bench.input.specs.gainMax,
              truth: truth(17),
              within: 0.3,
              better: 'neither',
              more: 'more',
              less: 'less',
            }),
          ]
        : [],
      remarks: [
        ...faults,
        ...(whole ? [] : [note('Fully down (7) and fully up (17) are not both there: the whole range is not judged.')]),
        ...stepsOf(marks, specs.gainStep),
        ...(faults.length === 0 ? [note(middleInWords(knob))] : []),
      ],
      tables: [
        {
          title: 'Marks',
          head: ['Position', 'In words', 'Recorded, dBFS', 'Gain, dB', ...(simulated ? ['True gain, dB'] : [])],
          rows: marks.map((mark) => [
            formatShort(mark.position),
            positionInWords(mark.position),
            formatDecimal(mark.plateau.level, 2),
            formatDecimal(mark.gain, 2),
            ...(simulated ? [formatDecimal(truth(mark.position), 2)] : []),
          ]),
        },
      ],
      keep:
        faults.length > 0
          ? null
          : {
              label: 'Knob marks measured',
              where: 'as the marks of the gain knob; a gain is now shown as a position',
              apply: (session, on) =>
                editInput(session, bench.unit.id, bench.input.id, (input) => {
                  const marked = { ...input, knob }
                  return whole
                    ? withMeasurement(
                        marked,
                        'gainMax',
                        measurement(
                          specs.gainMin + range,
                          2,
                          { value: spread, is: 'sd' },
                          methodOf(rows, `Tone at ${rows.length} knob positions`, 1),
                          on,
                        ),
                      )
                    : marked
                }),
            },
    }
  },
  simulated: (bench, typed, simulated) => {
    const positions = Array.from({ length: MARKS }, (_, i) => 7 + (10 * i) / (MARKS - 1))
    const signal = toneOf(typed)
    return [
      {
        take: {
          simulated,
          sampleRate: bench.session.system.sampleRate,
          channels: onChannels({
            channel: typed.channel,
            connection: {
              from: 'output',
              signal,
              gains: positions.map((position) => gainAtPosition(simulated, position)),
              holdSeconds: HOLD,
            },
          }),
        },
        typed: {},
      },
    ]
  },
  known: ({ input }) =>
    knownOf(input.measured?.gainMax, 'dB fully up', 2) ??
    (input.knob ? { words: `${input.knob.length} marks at the knob`, on: undefined, method: undefined } : null),
}

/** What is played at a mark, counted from 0; not under the lowest that can be typed. */
const playedAt = ({ level = -60, fall = 0 }: Typed, mark: number) => Math.max(-120, level - fall * mark)

/** One tone throughout, or a staircase with a step for each mark. */
function toneOf(typed: Typed): Signal {
  const { frequency = 997, level = -60, fall = 0 } = typed
  if (fall === 0) return { kind: 'sine', frequency, level, seconds: HOLD * MARKS }
  return {
    kind: 'stairs',
    frequency,
    levels: Array.from({ length: MARKS }, (_, i) => playedAt(typed, i)),
    stepSeconds: HOLD,
  }
}

/** A tone that stays 6 dB under full scale with the gain fully up, as far as the printed values say; at least −80 dBFS. */
function quietEnough({ input, output }: Bench): number {
  const specs = inForce(input)
  const hot = (output ? inForce(output).fullScale : 12) - specs.fullScale + (specs.gainMax - specs.gainMin)
  return Math.max(-80, Math.min(-6, Math.floor(-6 - hot)))
}

/** How the steps of a scale compare with what they say, where the scale was read. */
function stepsOf(marks: readonly Mark[], step: number) {
  const read = marks.filter((mark) => mark.said !== undefined)
  const first = read[0]
  if (!first || read.length < 2) return []
  const off = read.map((mark) => mark.gain - first.gain - ((mark.said as number) - (first.said as number)))
  const ratios = read.slice(1).flatMap((mark, i) => {
    const before = read[i] as Mark
    const said = (mark.said as number) - (before.said as number)
    return said > 0 ? [(mark.gain - before.gain) / said] : []
  })
  const worst = off.reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most), 0)
  const text = `A decibel of the scale is ${formatDecimal(mean(ratios), 3)} dB${step > 0 ? `, a step of ${formatShort(step)} dB ${formatDecimal(step * mean(ratios), 2)} dB` : ''}; at the worst it is ${formatDecimal(worst, 2)} dB off.`
  return ratios.length === 0 ? [] : [Math.abs(worst) > 1 ? caution(text) : note(text)]
}

function middleInWords(knob: KnobTable): string {
  const [first, last] = [knob[0] as KnobTable[number], knob.at(-1) as KnobTable[number]]
  const middle = (first.position + last.position) / 2
  return `In the middle of its turn, at ${positionInWords(middle)}, it gives ${formatDecimal(positionToGain(knob, middle), 1)} dB.`
}
