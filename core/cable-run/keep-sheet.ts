import { keepForInput, keepForOutput, measurement, rounded } from '../bench/keep'
import type { Bench } from '../bench/procedure'
import { editInput } from '../edits'
import type { MeasuredFigure, MeasuredSheet } from '../files'
import type { KnobTable } from '../gear'
import { inForce } from '../model'
import type { Session } from '../session'

/** Figures of a sheet that a session has a place for, and the place. */
const INPUT_FIGURES: Record<string, string> = {
  'input-full-scale': 'fullScale',
  'highest-gain': 'gainMax',
  'ein': 'ein',
  'dynamic-range': 'dynamicRange',
}

const isGood = (figure: MeasuredFigure | undefined): figure is MeasuredFigure => figure?.doubt === null

const methodOf = (sheet: MeasuredSheet, { method }: MeasuredFigure): string =>
  `One cable: ${method}${sheet.practice ? '; on the simulated interface, for practice' : ''}`.slice(0, 500)

const measured = (sheet: MeasuredSheet, figure: MeasuredFigure) =>
  measurement(figure.value, figure.digits, { value: figure.u, is: 'sd' }, methodOf(sheet, figure), sheet.on)

/** The names of the figures that would be kept. */
export const keptFigures = (sheet: MeasuredSheet, isThroughBrowser: boolean): MeasuredFigure[] =>
  sheet.figures.filter(
    (each) =>
      isGood(each) &&
      (each.id in INPUT_FIGURES ||
        each.id === 'output-full-scale' ||
        (!isThroughBrowser && each.id.startsWith('round-trip'))),
  )

/** Keeps what of a sheet the session has a place for, beside the data sheet values; doubtful figures stay out. */
export function keepSheet(
  session: Session,
  bench: Bench,
  sheet: MeasuredSheet,
  buffers: readonly number[],
  isThroughBrowser: boolean,
): Session {
  const kept = keptFigures(sheet, isThroughBrowser)
  const withFigures = kept.reduce((next, figure) => {
    const key = INPUT_FIGURES[figure.id]
    if (key) return keepForInput(next, bench, bench.input.id, key, measured(sheet, figure))
    return figure.id === 'output-full-scale' ? keepForOutput(next, bench, 'fullScale', measured(sheet, figure)) : next
  }, session)
  return withRoundTrips(withKnob(withFigures, bench, sheet), bench, sheet, kept, buffers)
}

/** The marks of a knob, where the gain has one and each of them is good. */
function withKnob(session: Session, bench: Bench, sheet: MeasuredSheet): Session {
  const marks = sheet.marks.flatMap(({ position, gain }) => (position === undefined ? [] : [{ position, gain }]))
  if (marks.length < 2 || sheet.figures.some(({ group, doubt }) => group === 'Gain' && doubt !== null)) return session
  const lowest = inForce(bench.input).gainMin
  const knob = marks.map(({ position, gain }) => ({ position, gain: rounded(lowest + gain, 2) })) as KnobTable
  return editInput(session, bench.unit.id, bench.input.id, (input) => ({ ...input, knob }))
}

function withRoundTrips(
  session: Session,
  { unit }: Bench,
  sheet: MeasuredSheet,
  kept: readonly MeasuredFigure[],
  buffers: readonly number[],
): Session {
  const trips = kept.filter(({ id }) => id.startsWith('round-trip'))
  if (trips.length === 0) return session
  return {
    ...session,
    system: {
      ...session.system,
      roundTrips: [
        ...(session.system.roundTrips ?? []),
        ...trips.flatMap((figure, i) => {
          const bufferFrames = buffers[i]
          return bufferFrames === undefined
            ? []
            : [
                {
                  sampleRate: sheet.sampleRate,
                  bufferFrames,
                  milliseconds: rounded(figure.value, 3),
                  unit: unit.id,
                  on: sheet.on,
                  note: methodOf(sheet, figure).slice(0, 300),
                },
              ]
        }),
      ] as typeof session.system.roundTrips,
    },
  }
}
