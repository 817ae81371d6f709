import type { Point } from '#core/chain/cascade'
import type { Sum } from '#core/chain/sum'
import { powerSum } from '#core/numeric/power'
import type { TargetWindow } from '#core/model'
import type { UncertainPoint } from '#core/uncertainty/uncertainty'
import { formatDecimal, formatSigned } from '#core/units'

/** How the section is read: every stage under its own ceiling, or every stage in its own unit. */
export type SectionReading = 'ceiling' | 'own'

/** One stage of the section, in dB on the ruler that all columns share. */
export interface SectionColumn {
  stage: string
  ceiling: number | null
  surge: number
  peak: number
  average: number
  noise: number | null
  ceilingText: string
  averageText: string
  averageShort: string
  peakText: string
  noiseText: string
  noiseShort: string
  headroomText: string | null
  surgeText: string | null
  snrText: string | null
  tightest: boolean
  clipped: boolean
  /** The ± of the edges either way, dB; `null` where it is not known or not wanted. */
  doubt: { surge: number; average: number; noise: number | null } | null
}

/** A strip that flows into a bus, at its own level as it arrives there. */
export interface Tributary {
  strip: string
  name: string
  peak: number
  average: number
  /** All noise that has arrived with it and with those before it. */
  noise: number | null
  averageText: string
}

/** Where strips meet, on the ruler of the first stage. */
export interface Confluence {
  tributaries: Tributary[]
  average: number
  likely: number
  surge: number
  bound: number
  noise: number | null
  /** What is left to the ceiling at the certain bound; `null` where no ceiling is known. */
  boundText: string | null
}

export interface SectionModel {
  reading: SectionReading
  columns: SectionColumn[]
  /** On a bus, what flows into its first stage. */
  confluence: Confluence | null
  /** Ends of the ruler. */
  top: number
  bottom: number
  /** The target’s window at the recorder. */
  window: { low: number; high: number; label: string } | null
}

const UNITS: Record<Point['unit'], string> = { dBSPL: 'dB SPL', dBu: 'dBu', dBFS: 'dBFS' }
const WINDOWS: Record<TargetWindow['reads'], string> = { 'peak': 'window', 'average': 'average', 'surge-peak': 'surge' }

/** Places the points of a strip on one ruler. */
export function sectionModel(
  points: readonly Point[],
  reading: SectionReading,
  tightest: string | null,
  target: TargetWindow | null,
  meeting: { sum: Sum; name: (strip: string) => string } | null = null,
  sure: readonly UncertainPoint[] = [],
): SectionModel {
  const zeros = reading === 'own' ? points.map(() => 0) : clipLevels(points)
  const columns = points.map((point, i) =>
    column(point, zeros[i] ?? 0, point.stage === tightest, inputSpread(sure, point)),
  )
  const last = points.at(-1)
  const zero = zeros.at(-1) ?? 0
  const confluence = meeting && points[0] ? confluenceOf(meeting, points[0], zeros[0] ?? 0) : null
  return {
    reading,
    columns,
    confluence,
    ...ruler(columns, confluence, reading),
    window:
      target && last?.unit === 'dBFS'
        ? { low: target.low - zero, high: target.high - zero, label: WINDOWS[target.reads] }
        : null,
  }
}

/**
 * The level that each column has at the ruler’s zero: its own ceiling. A stage without a printed one takes the level
 * at which a later stage clips, so that the picture stays one picture.
 */
function clipLevels(points: readonly Point[]): number[] {
  const levels: number[] = []
  let after: { point: Point; level: number } | null = null
  for (let i = points.length - 1; i >= 0; i--) {
    const point = points[i] as Point
    const level: number = point.ceiling ?? (after ? after.level - (after.point.peak - point.peak) : point.surgePeak)
    levels[i] = level
    after = { point, level }
  }
  return levels
}

/** Twice the standard uncertainty: 95 % lie within. */
function inputSpread(sure: readonly UncertainPoint[], { stage }: Point): SectionColumn['doubt'] {
  const known = sure.find((each) => each.stage === stage)
  if (!known) return null
  const { surgePeak, average, noise } = known
  return { surge: 2 * surgePeak.u, average: 2 * average.u, noise: noise && 2 * noise.u }
}

function column(point: Point, zero: number, tightest: boolean, doubt: SectionColumn['doubt']): SectionColumn {
  const unit = UNITS[point.unit]
  const level = point.unit === 'dBu' ? formatSigned : formatDecimal
  return {
    stage: point.stage,
    ceiling: point.ceiling === null ? null : point.ceiling - zero,
    surge: point.surgePeak - zero,
    peak: point.peak - zero,
    average: point.average - zero,
    noise: point.noise === null ? null : point.noise - zero,
    ceilingText: point.ceiling === null ? 'no maximum given' : `${level(point.ceiling, 1)} ${unit}`,
    averageText: `${level(point.average, 1)} ${unit}`,
    averageShort: level(point.average, 1),
    peakText: level(point.peak, 1),
    noiseText: point.noise === null ? 'no noise known' : `${level(point.noise, 1)} ${unit}(A)`,
    noiseShort: point.noise === null ? '–' : level(point.noise, 1),
    headroomText: point.headroom === null ? null : formatDecimal(point.headroom, 1),
    surgeText:
      point.ceiling === null || point.surgePeak <= point.peak
        ? null
        : formatDecimal(point.ceiling - point.surgePeak, 1),
    snrText: point.snr === null ? null : formatDecimal(point.snr, 1),
    tightest,
    clipped: point.clipped || point.carriesClipping !== null,
    doubt,
  }
}

/** The strips in the order in which they arrive: the quietest first, so that the loudest lies nearest to the sum. */
function confluenceOf(
  { sum, name }: { sum: Sum; name: (strip: string) => string },
  first: Point,
  zero: number,
): Confluence {
  // Before the stage; what it does to the level is in its own column.
  const ground = zero - (first.average - sum.average)
  const sorted = [...sum.brought].sort((a, b) => a.average - b.average)
  let noise: number | null = null
  const tributaries = sorted.map((each): Tributary => {
    if (each.noise !== null) noise = powerSum([{ level: each.noise }, ...(noise === null ? [] : [{ level: noise }])])
    return {
      strip: each.strip,
      name: name(each.strip),
      peak: each.peak - ground,
      average: each.average - ground,
      noise: noise === null ? null : noise - ground,
      averageText: formatDecimal(each.average, 0),
    }
  })
  const bound = sum.bound - ground
  const ceiling = first.ceiling === null ? null : first.ceiling - zero
  return {
    tributaries,
    average: sum.average - ground,
    likely: sum.likely - ground,
    surge: sum.surge - ground,
    bound,
    noise: sum.noise === null ? null : sum.noise - ground,
    boundText: ceiling === null ? null : formatDecimal(ceiling - bound, 1),
  }
}

/** Room above the highest and below the lowest thing drawn, dB; ends on round numbers so that a drag does not shake it. */
const ABOVE = 9
const BELOW = 12
const ROUND = 10
/** A strip that comes in lower than that is drawn at the bottom, dB. */
const DEEPEST = -100

function ruler(
  columns: readonly SectionColumn[],
  confluence: Confluence | null,
  reading: SectionReading,
): { top: number; bottom: number } {
  const arriving = confluence?.tributaries ?? []
  const highest = Math.max(0, confluence?.bound ?? 0, ...columns.flatMap((each) => [each.ceiling ?? 0, each.surge]))
  // What lies far under everything else would press the rest together.
  const lowest = Math.min(
    ...columns.map((each) => each.noise ?? each.average),
    ...arriving.map((each) => Math.max(each.average, DEEPEST)),
    reading === 'ceiling' ? -60 : 0,
  )
  return {
    top: highest === 0 ? ABOVE : Math.ceil((highest + ABOVE) / ROUND) * ROUND,
    bottom: Math.floor((lowest - BELOW) / ROUND) * ROUND,
  }
}
