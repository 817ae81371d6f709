import { USUAL_REDUCTION } from '../chain/dynamics'
import { meterReading, windowError } from '../chain/target-window'
import type { TargetReading } from '../model'
import { isBus } from '../model'
import { formatDecimal } from '../units'
import type { Allocation, Allotment } from './allocate'

const READS: Record<TargetReading, string> = {
  'average': 'The average',
  'peak': 'The loudest rehearsed peak',
  'surge-peak': 'The peak with the surge',
}
const UNIT = { converter: 'dBFS', file: 'dBFS', desk: 'dB on the desk’s meter', pfl: 'dB at PFL' } as const

/** Why a gain is planned as it is, in a sentence. */
export function reasonFor({ limit }: Allotment, allocation: Allocation): string {
  const name = (stage: string) => allocation.stages.find((each) => each.id === stage)?.gear.name ?? ''
  switch (limit.by) {
    case 'target':
      return `${readingWords(allocation)}, the closest possible with its steps.`
    case 'highest':
      return isUnder(allocation)
        ? `${readingWords(allocation)}, but this is its maximum gain.`
        : 'As early as possible: this is its maximum gain.'
    case 'lowest':
      return `${readingWords(allocation)}, but this is its minimum gain.`
    case 'locked':
      return 'Locked.'
    case 'zero mark':
      return 'At its zero mark.'
    case 'left':
      return allocation.place
        ? 'Left as it is: it is behind the place where the target is read.'
        : isBus(allocation.strip)
          ? 'Left as it is: the level of this bus is your choice.'
          : 'Left as it is: the strip is not recorded.'
    case 'driven':
      return 'Left as it is: the stage is overdriven on purpose.'
    case 'partner':
      return 'Like the other side of the stereo pair.'
    case 'held':
      return `Keeps the level at “${name(limit.stage)}” where it was set: its sound is your choice.`
    case 'into':
      return intoText(limit, allocation, name(limit.stage))
    case 'headroom': {
      const left = allocation.points.find((point) => point.stage === limit.stage)?.headroom
      return `As far as headroom allows: ${formatDecimal(left, 1)} dB are left at “${name(limit.stage)}”.`
    }
  }
}

/** What a gain brings a processor to do, and what that came to. */
function intoText(
  { stage, aim }: Extract<Allotment['limit'], { by: 'into' }>,
  { points }: Allocation,
  name: string,
): string {
  const taken = formatDecimal(points.find((point) => point.stage === stage)?.reduction?.peak ?? 0, 1)
  switch (aim.section.type) {
    case 'compressor':
      return `Brings the peaks into “${name}”, which takes ${taken} dB off; ${formatDecimal(aim.section.takesOff ?? USUAL_REDUCTION, 1)} dB are wanted.`
    case 'limiter':
      return `Brings the rehearsed peak to the ceiling of “${name}”; the surge goes into it.`
    case 'expander':
      return `Brings the average at least 10 dB over the threshold of “${name}”.`
  }
}

function readingWords({ points, place, window }: Allocation): string {
  const point = place && points[place.index]
  if (!point) return 'The strip is not recorded'
  return `${READS[window.reads]} then reads ${formatDecimal(meterReading(point, place, window), 1)} ${UNIT[place.meter]}; the target aims at ${formatDecimal(window.aim, 1)}`
}

/** How far the planned level lies outside the target's window, dB; 0 inside, or where nothing is read. */
export function offTarget({ points, place, window }: Allocation): number {
  const point = place && points[place.index]
  return point ? windowError(point, place, window) : 0
}

const isUnder = (allocation: Allocation) => offTarget(allocation) < 0
