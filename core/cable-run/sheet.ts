import { judged } from '../bench/judgement'
import type { Bench } from '../bench/procedure'
import type { MeasuredFigure, MeasuredSheet } from '../files'
import { inForce } from '../model'
import type { SheetContext } from './figures/draft'
import { DOUBTS } from './figures/draft'
import { gains } from './figures/gain'
import { QUIET, isTooQuiet, levels } from './figures/level'
import { noises } from './figures/noise'
import { channels, distortion, response } from './figures/signal'
import { times } from './figures/time'
import type { CableFindings } from './findings'

/** The data sheet of one’s own: every figure with ±, method, and what it is beside the maker’s. */
export function sheetOf(found: CableFindings, context: SheetContext): MeasuredSheet {
  const { bench } = context
  const doubt = found.doubts.find((each) => each !== 'two-clocks')
  const figure = figures(found, context)
  return {
    unit: bench.unit.name,
    input: bench.input.id,
    output: bench.output?.id ?? `channel ${found.cable.output + 1}`,
    on: context.on,
    sampleRate: found.sampleRate,
    practice: context.truth !== null,
    figures: figure.map((each) => ({ ...each, doubt: doubt ? DOUBTS[doubt] : each.doubt })),
    response: found.response,
    marks: marksOfSheet(found, bench),
    remarks: remarksOf(found, bench),
  }
}

function marksOfSheet({ marks, idle }: CableFindings, { input }: Bench): MeasuredSheet['marks'] {
  const first = marks[0]
  if (!first) return []
  const lowest = 'said' in first.mark ? { said: inForce(input).gainMin } : { position: 7 }
  return [
    { ...lowest, gain: 0, u: 0, noise: idle?.value ?? null },
    ...marks.map(({ mark, gain, noise }) => ({ ...mark, gain: gain.value, u: gain.u, noise: noise.value })),
  ]
}

function figures(found: CableFindings, context: SheetContext): MeasuredFigure[] {
  return [
    ...levels(found, context),
    ...gains(found, context),
    ...noises(found, context),
    ...distortion(found, context),
    ...response(found),
    ...channels(found),
    ...times(found, context),
  ].map(({ id, group, u, method, says, doubt = null, ...draft }) => {
    const truth = context.truth?.[id] ?? null
    const { judgement, printed, name, unit, digits, value } = judged({
      within: 0.1,
      better: 'neither',
      more: 'more',
      less: 'less',
      ...draft,
      spread: 2 * u,
      truth,
    })
    return { id, group, name, unit, digits, value, u, method, printed, truth, doubt, judgement: says ?? judgement }
  })
}

function remarksOf(found: CableFindings, bench: Bench): string[] {
  return [
    `Cable from output channel ${found.cable.output + 1} to input channel ${found.cable.input + 1}${found.second ? `, and from ${found.second.output + 1} to ${found.second.input + 1}` : ''}.`,
    found.polarity > 0
      ? 'Polarity is kept.'
      : 'Polarity is inverted on the way: an output, an input or the cable inverts it. Try another cable first.',
    ...(isTooQuiet(found, bench) ? [QUIET] : []),
    ...(found.meter ? [] : ['No voltage was read: levels are relative to full scale, and nothing is told in dBu.']),
    ...found.doubts.map((doubt) => DOUBTS[doubt]),
  ]
}
