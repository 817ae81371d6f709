import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'
import { settingWords } from '../chain/setting-words'
import { formatShort } from '../units'

/** Figures from which noise is worked out, and those from which a ceiling is. */
export const NOISE_FIGURES = [
  'sensitivity',
  'impedance',
  'selfNoise',
  'noise',
  'ein',
  'outputNoise',
  'inputImpedance',
  'gainMin',
  'fullScale',
  'dynamicRange',
] as const
export const CEILING_FIGURES = ['maxSpl', 'maxInput', 'maxOutput', 'gainMin', 'fullScale'] as const
const SOURCE_FIGURES = ['level', 'distance', 'crest'] as const

/** The printed figures of each stage that are wanted, with what is set at it, one line each. */
export const figuresOf = (stages: readonly ResolvedStage[], wanted: readonly string[]): string[] =>
  stages.map((stage) => {
    const { table } = chainTraits(stage).figures(stage)
    const figures = [...SOURCE_FIGURES, ...wanted].flatMap((key) => {
      const [field, value] = [table[key], (stage as { specs?: Record<string, unknown> }).specs?.[key]]
      return field && typeof value === 'number' ? [`${field.label} ${formatShort(value)} ${field.unit}`.trim()] : []
    })
    const settings = settingWords(stage)
      .filter(({ setting }) => SET.has(setting))
      .map(({ name, words }) => `${name} ${words}`)
    return `“${stage.gear.name}”: ${[...new Set([...figures, ...settings])].join('; ')}.`
  })

/** Settings that levels depend on. */
const SET: ReadonlySet<string> = new Set(['gain', 'fader', 'pad', 'distance'])
