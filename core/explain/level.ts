import { nearGain } from '../chain/compile/sound-source'
import { inputImpedance, loadingGain } from '../chain/loading'
import type { Sum } from '../chain/sum'
import type { FormulaId } from '../formula'
import { SINE_CREST, formatDecimal, SHOWN_ALIKE } from '../units'
import type { Context } from './context'
import { UNITS } from './context'
import type { Part } from './explanation'
import { gainParts } from './gain'

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
    context.stage(i).kind === 'processor' && point.carriesClipping === null
      ? 'Its sections besides'
      : 'Held by a ceiling before it'
  return { ...made, parts: [...parts, { name: why, value: rest, unit: 'dB', adds: rest, u: null }] }
}

const LEVELS: Record<LevelFigure, string> = { average: 'Average', peak: 'Peak', surgePeak: 'Peak with the surge' }

function atSource(context: Context, figure: LevelFigure): Made {
  const stage = context.stage(0)
  const gear = `gear.${stage.gear.id}`
  if (stage.kind !== 'sound-source' && stage.kind !== 'electric-source' && stage.kind !== 'playback')
    return { formula: 'levels-surge-peak', parts: [], remarks: [] }
  if (figure === 'surgePeak')
    return {
      formula: 'levels-surge-peak',
      parts: [
        context.figure(0, 'peak', 'Peak as rehearsed', 1),
        context.input(`${gear}.surge`, 'Surge', stage.specs.surge, 'dB', stage.specs.surge),
      ],
      remarks: [],
    }
  if (stage.kind === 'playback' && (stage.gear.pieces?.length ?? 0) > 0)
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
        context.input(`${gear}.crest`, 'Crest factor', stage.specs.crest, 'dB', stage.specs.crest),
        { name: 'A sine’s own crest', value: -SINE_CREST, unit: 'dB', adds: -SINE_CREST, u: null },
      ],
      remarks: [],
    }
  const level = (unit: string) =>
    context.input(`${gear}.level`, 'Average, as given', stage.specs.level, unit, stage.specs.level)
  switch (stage.kind) {
    case 'sound-source': {
      const { distance, specs } = stage
      const near = nearGain(specs.distance, distance, stage.gear.size)
      const path = `strips.${context.strip.id}.${stage.id}.distance`
      return {
        formula: stage.gear.size === undefined ? 'levels-inverse-distance' : 'levels-near-a-source-of-some-size',
        parts: [
          level('dB SPL'),
          { name: 'Given at', value: specs.distance, unit: 'm', adds: 0, u: null },
          context.input(path, 'Distance to the capsule', distance, 'm', near),
        ],
        remarks: [],
      }
    }
    case 'electric-source': {
      const loading = loadingGain(stage.specs.impedance, inputImpedance(context.stages[1]))
      const loss = stage.gear.output === 'passive-pickup' ? (stage.specs.volumeLoss ?? 0) : 0
      return {
        formula: 'stages-electric-source',
        parts: [
          level('dBu'),
          ...(stage.specs.impedance === undefined
            ? []
            : [
                context.input(
                  `${gear}.impedance`,
                  'Its impedance into the next input',
                  stage.specs.impedance,
                  'Ω',
                  loading,
                ),
              ]),
          ...(loss === 0 ? [] : [context.input(`${gear}.volumeLoss`, 'Own volume down by', loss, 'dB', -loss)]),
        ],
        remarks: [],
      }
    }
    case 'playback':
      return { formula: 'levels-dbfs', parts: [level('dBFS')], remarks: [] }
  }
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
