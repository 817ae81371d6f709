import { inputImpedance } from '../chain/impedance'
import { jointGain } from '../chain/joint'
import type { FormulaId } from '../formula'
import { explainedTraits } from '../gear/explained'
import type { StageExplanation } from '../gear/explained-traits'
import type { Context } from './context'
import type { Part } from './explanation'

/** What a stage does to a level, in parts that add up: its own, and the joint before it. */
export function gainParts(context: Context, i: number): { formula: FormulaId; parts: Part[]; remarks: string[] } {
  const [from, to] = [context.stages[i - 1], context.stage(i)]
  const own = stageParts(context, i, explainedTraits(to).gain(to, behind(context, i)))
  const joint = from ? jointGain(from, to, context.stages[i - 2]) : 0
  const loss: Part[] =
    joint === 0 ? [] : [{ name: 'Loss in the connection before it', value: joint, unit: 'dB', adds: joint, u: null }]
  return { ...own, parts: [...own.parts, ...loss] }
}

export const behind = ({ stages }: Context, i: number) => ({ next: stages[i + 1], load: inputImpedance(stages[i + 1]) })

/** What a kind says of its figures, each with how sure it is in this session. */
export function stageParts(
  context: Context,
  i: number,
  { formula, parts, remarks = [] }: StageExplanation,
): { formula: FormulaId; parts: Part[]; remarks: string[] } {
  const paths = { figure: `${context.figuresOf(i)}.`, setting: `strips.${context.strip.id}.${context.stage(i).id}.` }
  return {
    formula,
    remarks: [...remarks],
    parts: parts.map(({ from, key, name, value, unit, adds }) =>
      from === null ? { name, value, unit, adds, u: null } : context.input(paths[from] + key, name, value, unit, adds),
    ),
  }
}
