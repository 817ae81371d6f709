import { explainedTraits } from '../gear/explained'
import { isSource } from '../gear/chains'
import { isPlayback, isProcessor, hasPieces } from '../gear'
import type { Sum } from '../chain/sum'
import type { FormulaId } from '../formula'
import { SINE_CREST, formatDecimal, SHOWN_ALIKE } from '../units'
import type { Context } from './context'
import { UNITS } from './context'
import type { Part } from './explanation'
import { gainParts, stageParts, behind } from './gain'

export type LevelFigure = 'average' | 'peak' | 'surgePeak'
export interface Made {
  formula: FormulaId
  parts: Part[]
  remarks: string[]
  /** The formula with the numbers in, where it is neither a sum nor a sum of powers. */
  numbers?: string
}

/** What a level is made of: at a source of what is known of it, behind it of the level before and the stage’s gain. */
export function levelParts(context: Context, i: number, figure: LevelFigure): Made {
  if (i === 0) return context.doubts.hasSum ? sumLevel(context, figure) : atSource(context, figure)
  const { formula, parts, remarks } = gainParts(context, i)
  const before = context.figure(i - 1, figure, `${LEVELS[figure]} behind ${context.name(i - 1)}`, 1)
  return withRest(context, i, figure, { formula, remarks, parts: [before, ...parts] })
}

/** What ceilings before it held, or a curve took off: the rest that the parts leave. */
function withRest(context: Context, i: number, figure: LevelFigure, made: Made): Made {
  const point = context.point(i)
  const taken = point.reduction?.[figure === 'surgePeak' ? 'surge' : figure] ?? 0
  const curve: Part[] =
    taken === 0 ? [] : [{ name: 'Taken off by its sections', value: -taken, unit: 'dB', adds: -taken, u: null }]
  const parts = [...made.parts, ...curve]
  const rest = point[figure] - parts.reduce((sum, { adds }) => sum + (adds ?? 0), 0)
  if (Math.abs(rest) < SHOWN_ALIKE) return { ...made, parts }
  const why =
    isProcessor(context.stage(i)) && point.carriesClipping === null
      ? 'Its sections besides'
      : 'Held by a ceiling before it'
  return { ...made, parts: [...parts, { name: why, value: rest, unit: 'dB', adds: rest, u: null }] }
}

const LEVELS: Record<LevelFigure, string> = { average: 'Average', peak: 'Peak', surgePeak: 'Peak with the surge' }

function atSource(context: Context, figure: LevelFigure): Made {
  const stage = context.stage(0)
  if (!isSource(stage)) return { formula: 'levels-surge-peak', parts: [], remarks: [] }
  const own = (name: 'surge' | 'crest', label: string): Part =>
    context.input(`${context.figuresOf(0)}.${name}`, label, stage.specs[name], 'dB', stage.specs[name])
  if (figure === 'surgePeak')
    return {
      formula: 'levels-surge-peak',
      parts: [context.figure(0, 'peak', 'Peak as rehearsed', 1), own('surge', 'Surge')],
      remarks: [],
    }
  if (isPlayback(stage) && hasPieces(stage.gear))
    return {
      formula: 'busses-trim-of-pieces',
      parts: [context.figure(0, figure, 'The highest of its pieces, trimmed', 1)],
      remarks: [],
    }
  if (figure === 'peak')
    return {
      formula: 'levels-peak-level',
      parts: [
        context.figure(0, 'average', 'Average', 1),
        own('crest', 'Crest factor'),
        { name: 'A sine’s own crest', value: -SINE_CREST, unit: 'dB', adds: -SINE_CREST, u: null },
      ],
      remarks: [],
    }
  const explained = explainedTraits(stage)
  return stageParts(context, 0, (explained.level ?? explained.gain)(stage, behind(context, 0)))
}

/** Where strips meet: what each brings. */
function sumLevel(context: Context, figure: LevelFigure): Made {
  const sum = context.all.evaluations.cascadeOf(context.strip.id).sum
  const { parts, remarks } = gainParts(context, 0)
  const names = new Map(context.session.strips.map(({ id, name }) => [id, name]))
  const brought = (sum?.brought ?? []).map((each): Part => {
    const strip = context.session.strips.find(({ id }) => id === each.strip)
    const last = strip?.stages.at(-1)?.id ?? ''
    return {
      name: `${names.get(each.strip) ?? ''} as it arrives`,
      value: figure === 'average' ? each.average : each.peak,
      unit: sum ? UNITS[sum.unit] : 'dB',
      adds: null,
      u: null,
      ...(figure === 'average' && { share: each.share }),
      figure: { strip: each.strip, stage: last, figure: figure === 'average' ? 'average' : 'peak' },
    }
  })
  return {
    formula:
      figure === 'average'
        ? 'busses-average-of-a-sum'
        : figure === 'peak'
          ? 'busses-likely-peak'
          : 'busses-surge-of-a-sum',
    parts: [...brought, ...parts],
    ...(sum && { numbers: sumNumbers(sum, figure, parts) }),
    remarks: [
      ...remarks,
      ...(figure === 'surgePeak' && sum ? [`${names.get(sum.surges) ?? ''} counts most when it surges.`] : []),
    ],
  }
}

/** What the sum is, and what the stage that it meets in does to it. */
function sumNumbers(sum: Sum, figure: LevelFigure, gains: readonly Part[]): string {
  const unit = UNITS[sum.unit]
  const met = figure === 'average' ? sum.average : figure === 'peak' ? sum.likely : sum.surge
  const how =
    figure === 'average'
      ? `10 lg(${sum.brought.map((each) => `10^(${formatDecimal(each.average, 1)}/10)`).join(' + ')}) = ${formatDecimal(met, 1)} ${unit}`
      : `${formatDecimal(met, 1)} ${unit} is likely; it can never be over ${formatDecimal(sum.bound, 1)}`
  const gain = gains.reduce((total, { adds }) => total + (adds ?? 0), 0)
  return gain === 0 ? how : `${how}; ${gain < 0 ? '−' : '+'} ${formatDecimal(Math.abs(gain), 1)} dB in the stage`
}
