import { einWeighted } from '../../gear/equivalent-input-noise'
import { powerDifference } from '../../numeric/power'
import { formatShort } from '../../units'
import type { CableFindings, Value } from '../findings'
import type { Draft, SheetContext } from './draft'
import { markText } from './gain'
import { inputFullScale } from './level'

/** An EIN that lies within more than this, dB, is not told from the converter’s noise. */
const EIN_WITHIN = 2

const NOT_TOLD =
  'The input alone. No equivalent input noise: it takes the multimeter’s reading, and a gain at which the preamp’s noise leads.'
/** From here on a mains line is worth a figure, dB over the noise around it. */
const HUM_OVER = 15

const HUM_U = 0.5

export function noises(found: CableFindings, context: SheetContext): Draft[] {
  const { idle, marks } = found
  const ein = einOf(found, context)
  const cable = (id: string, name: string, noise: Value): Draft => ({
    id,
    group: 'Noise',
    name,
    unit: 'dBFS(A)',
    digits: 1,
    value: noise.value,
    u: noise.u,
    printed: null,
    says: 'Output and input together.',
    method: 'Nothing played, cable plugged in, hum left out',
  })
  const humming = [idle, ...marks.map(({ noise }) => noise)].findLast((each) => each?.hum)
  const hum = humming?.hum
  return [
    ...(idle ? [cable('noise-lowest', 'Noise, gain fully down', idle)] : []),
    ...marks.map(({ mark, noise }, i) => cable(`noise-${i + 2}`, `Noise, ${markText(mark)}`, noise)),
    ...(found.plug
      ? [
          {
            id: 'noise-plug',
            group: 'Noise' as const,
            name: 'Noise with 150 Ω, highest gain measured',
            unit: 'dBFS(A)',
            digits: 1,
            value: found.plug.value,
            u: found.plug.u,
            printed: null,
            says: ein ? 'The input alone.' : NOT_TOLD,
            method: 'Nothing played, 150 Ω in the input, hum left out',
          },
        ]
      : []),
    ...(ein ? [ein] : []),
    ...(hum && hum.lines.some(({ over }) => over >= HUM_OVER)
      ? [
          {
            id: 'hum',
            group: 'Noise' as const,
            name: `Hum, ${hum.mains} Hz and multiples`,
            unit: 'dBFS',
            digits: 1,
            value: hum.level,
            u: HUM_U,
            printed: null,
            says: `Lines at ${hum.lines.map(({ frequency }) => formatShort(Math.round(frequency))).join(', ')} Hz. With the cable plugged in it is mostly a ground loop.`,
            method: 'Nothing played, at the highest gain measured',
          },
        ]
      : []),
  ]
}

/** EIN from the plug at the top: the converter's share is at most the noise at the lowest gain, so it lies between two values. */
function einOf(found: CableFindings, context: SheetContext): Draft | null {
  const { plug, idle } = found
  const fullScale = inputFullScale(found, context)
  if (!plug || !fullScale) return null
  const reads = fullScale.value - plug.gain
  const rest = idle && powerDifference(plug.value, idle.value)
  const [high, low] = [plug.value + reads, rest === null ? -Infinity : rest + reads]
  if (high - low > EIN_WITHIN) return null
  const { ein, einWeighting } = context.bench.input.specs
  return {
    id: 'ein',
    group: 'Noise',
    name: 'Equivalent input noise, 150 Ω, highest gain measured',
    unit: 'dBu(A)',
    digits: 1,
    value: (high + low) / 2,
    u: Math.hypot(plug.u, fullScale.u, (high - low) / 2 / Math.sqrt(3)),
    printed: ein === undefined ? null : einWeighted(ein, einWeighting),
    within: 0.5,
    better: 'lower',
    more: 'noisier',
    less: 'quieter',
    method: '150 Ω plug, A-weighted, the converter’s share bounded by the noise at the lowest gain',
  }
}
