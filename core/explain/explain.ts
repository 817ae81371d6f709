import type { FormulaId } from '../formula'
import type { NoiseName } from '../gear/two-port'
import { formula } from '../formula'
import type { Session } from '../session'
import { formatDecimal } from '../units'
import { formatChance } from '../evaluation/how-sure-words'
import type { Uncertain } from '../uncertainty/uncertainty'
import { chanceOver } from '../uncertainty/chance'
import type { PointFigure } from '../uncertainty/figures'
import { FIGURES, placeOf } from '../uncertainty/figures'
import { ceilingParts } from './ceiling'
import { Context } from './context'
import type { Explanation, FigureRef, Part } from './explanation'
import { gainParts } from './gain'
import type { LevelFigure, Made } from './level'
import { levelParts } from './level'
import { noiseParts, ownNoise } from './noise'
import { routeParts } from './route'

const TITLES: Record<PointFigure, string> = {
  average: 'Average',
  peak: 'Peak',
  surgePeak: 'Peak with the surge',
  headroom: 'Headroom',
  surgeHeadroom: 'Headroom with the surge',
  noise: 'Noise',
  snr: 'Signal-to-noise ratio',
}

/**
 * What a figure is made of: its formula with the numbers in, and its parts, which are values of the session or figures that can be
 * asked for in their turn.
 * @returns `null` where the session has no such figure
 */
export function explain(session: Session, of: FigureRef): Explanation | null {
  const context = Context.of(session, of.strip)
  return context && explainIn(context, of)
}

/** The same where the session’s context is known. */
export function explainIn(context: Context, of: FigureRef): Explanation | null {
  const { figure } = of
  if (figure === 'direct' || figure === 'software') return route(context, of, figure)
  const i = context.at(of.stage)
  if (i < 0 || context.points.length === 0) return null
  if (figure === 'chance') return chance(context, of, i)
  if (figure === 'gain') return gain(context, of, i)
  if (figure === 'ceiling') return ceiling(context, of, i)
  if (figure.startsWith('noise:')) return oneNoise(context, of, i, figure.slice(6) as NoiseName)
  return isPointFigure(figure) ? pointFigure(context, of, i, figure) : null
}

const isPointFigure = (figure: string): figure is PointFigure => (FIGURES as readonly string[]).includes(figure)

function pointFigure(context: Context, of: FigureRef, i: number, figure: PointFigure): Explanation | null {
  const doubt = context.doubt(i, figure)
  if (Number.isNaN(doubt.value)) return null
  const unit =
    figure === 'headroom' || figure === 'surgeHeadroom' || figure === 'snr'
      ? 'dB'
      : `${context.unit(i)}${figure === 'noise' ? '(A)' : ''}`
  return told(context, of, `${TITLES[figure]} at ${context.name(i)}`, unit, doubt, madeOf(context, i, figure))
}

function madeOf(context: Context, i: number, figure: PointFigure): Made {
  switch (figure) {
    case 'average':
    case 'peak':
    case 'surgePeak':
      return levelParts(context, i, figure satisfies LevelFigure)
    case 'noise':
      return noiseParts(context, i)
    case 'snr':
      return {
        formula: 'levels-snr',
        parts: [context.figure(i, 'average', 'Average', 1), context.figure(i, 'noise', 'Noise', -1)],
        numbers: less(context.point(i).average, context.point(i).noise ?? 0, 'dB'),
        remarks: [],
      }
    case 'headroom':
    case 'surgeHeadroom': {
      const level = figure === 'headroom' ? 'peak' : 'surgePeak'
      // Of a stage with a curve the nearer of its terminals’, which the surge may meet elsewhere than the peak.
      const at = context.point(i)[level] + (context.point(i)[figure] ?? 0)
      return {
        formula: 'levels-headroom',
        numbers: less(at, context.point(i)[level], 'dB'),
        parts: [
          {
            name: 'Ceiling',
            value: at,
            unit: context.unit(i),
            adds: at,
            u: null,
            figure: { strip: context.strip.id, stage: context.stage(i).id, figure: 'ceiling' },
          },
          context.figure(i, level, TITLES[level], -1),
        ],
        remarks: [],
      }
    }
  }
}

function told(
  context: Context,
  of: FigureRef,
  title: string,
  unit: string,
  doubt: Uncertain | { value: number; u: null; shares: [] },
  { formula: id, parts, remarks, numbers }: Made,
): Explanation {
  const shares = new Map(doubt.shares.map(({ input, share }) => [input, share]))
  const marked = parts.map((part) => (part.path ? { ...part, share: shares.get(part.path) ?? part.share } : part))
  const curved = 'curved' in doubt && doubt.curved
  return {
    of,
    title,
    value: doubt.value,
    unit,
    u: doubt.u,
    formula: id,
    parts: marked,
    withNumbers: numbers ?? withNumbers(marked, doubt.value, unit),
    remarks: [...remarks, ...(curved ? ['The figure curves within its uncertainty: the ± is approximate here.'] : [])],
    doubts: doubt.u === null ? [] : context.largest(doubt),
  }
}

const less = (one: number, other: number, unit: string): string =>
  `${formatDecimal(one, 1)} − (${formatDecimal(other, 1)}) = ${formatDecimal(one - other, 1)} ${unit}`

/** What adds up as a sum; what adds in power as one; else the parts by name. */
function withNumbers(parts: readonly Part[], value: number, unit: string): string {
  const digits = unit === 'ms' ? 2 : 1
  const result = `${formatDecimal(value, digits)} ${unit}`
  const adding = parts.filter(({ adds }) => adds !== null && adds !== 0)
  if (adding.length > 0 && adding.length === parts.filter(({ adds }) => adds !== 0).length) {
    const [first, ...rest] = adding.map(({ adds }) => adds as number)
    if (rest.length === 0) return result
    return `${formatDecimal(first, digits)}${rest.map((each) => ` ${each < 0 ? '−' : '+'} ${formatDecimal(Math.abs(each), digits)}`).join('')} = ${result}`
  }
  const shared = parts.filter(({ share, adds }) => share !== undefined && share > LITTLE && adds === null)
  const rest = parts.length > shared.length ? ' + …' : ''
  if (shared.length > 0 && parts.length > 1)
    return `10 lg(${shared.map(({ value: each }) => `10^(${formatDecimal(each, 1)}/10)`).join(' + ')}${rest}) = ${result}`
  return `${parts.map(({ name, value: each, unit: own }) => `${name} ${formatDecimal(each, own === 'ms' ? 2 : 1)} ${own}`).join(', ')} → ${result}`
}

/** Noises that make less of the power are not written out. */
const LITTLE = 0.0005

const certain = (value: number) => ({ value, u: null, shares: [] as [] })

function gain(context: Context, of: FigureRef, i: number): Explanation | null {
  const made = gainParts(context, i)
  if (made.parts.length === 0) return null
  const value = made.parts.reduce((sum, { adds }) => sum + (adds ?? 0), 0)
  return told(context, of, `Gain of ${context.name(i)}`, 'dB', certain(value), made)
}

function ceiling(context: Context, of: FigureRef, i: number): Explanation | null {
  const { ceiling: value } = context.point(i)
  return value === null
    ? null
    : told(context, of, `Ceiling of ${context.name(i)}`, context.unit(i), certain(value), ceilingParts(context, i))
}

function oneNoise(context: Context, of: FigureRef, i: number, name: NoiseName): Explanation | null {
  const own = ownNoise(context, i, name)
  const unit = `${context.unit(i)}(A)`
  return own && told(context, of, `Noise made at ${context.name(i)}`, unit, certain(own.level), own.made)
}

function route(context: Context, of: FigureRef, name: 'direct' | 'software'): Explanation | null {
  const found = routeParts(context, name)
  if (!found) return null
  const { linear, timed } = context.doubts
  const routes = linear.values.length - timed
  const at = name === 'direct' ? timed : timed + routes - 1
  const title = name === 'direct' ? 'Direct monitoring' : 'Round trip, software monitoring'
  return told(context, { ...of, stage: found.stage }, title, 'ms', context.doubts.figure(at), found.made)
}

function chance(context: Context, of: FigureRef, i: number): Explanation | null {
  const headroom = context.doubts.figure(placeOf(i, 'surgeHeadroom'))
  if (Number.isNaN(headroom.value)) return null
  const value = 100 * chanceOver(headroom.value, headroom.u)
  const made: Made = {
    formula: 'uncertainty-chance',
    parts: [
      context.figure(i, 'surgeHeadroom', TITLES.surgeHeadroom, 1),
      { name: 'Its standard uncertainty', value: headroom.u, unit: 'dB', adds: null, u: null },
    ].map((part) => ({ ...part, adds: null })),
    numbers: `Φ(−${formatDecimal(headroom.value, 2)}/${formatDecimal(headroom.u, 2)}) = Φ(${formatDecimal(-headroom.value / headroom.u, 2)}) = ${formatChance(value / 100)}`,
    remarks: [],
  }
  const explained = told(context, of, `Risk of clipping at ${context.name(i)}`, '%', certain(value), made)
  return { ...explained, doubts: context.largest(headroom) }
}

/** An explanation as it leaves over HTTP: with its formula in text and MathML. */
export interface ExplanationFile extends Pick<Explanation, 'withNumbers' | 'doubts' | 'remarks'> {
  result: FigureRef & Pick<Explanation, 'title' | 'value' | 'unit' | 'u' | 'interval'>
  formula: { id: FormulaId; text: string; mathml: string; check: string }
  /** Where the formula is from. */
  source: string
  inputs: readonly Part[]
}

export function explanationFile(explained: Explanation, mathml: string): ExplanationFile {
  const { statement, source, check } = formula(explained.formula)
  const { of, title, value, unit, u, interval, parts, withNumbers: numbers, remarks, doubts } = explained
  return {
    result: { ...of, title, value, unit, u, ...(interval && { interval }) },
    formula: { id: explained.formula, text: statement, mathml, check: check.says },
    source,
    withNumbers: numbers,
    inputs: parts,
    doubts,
    remarks,
  }
}
