import { isProcessor } from '../gear'
import { isDynamic } from '../gear/processor/curve'
import type { Reading } from '../model'
import type { Session } from '../session'
import { formatDecimal } from '../units'
import type { Cause } from './cause'
import { causeWords } from './cause'
import type { Contradiction, Explained } from './inferred'

/** Differences below that are as planned, dB. */
const AS_PLANNED = 0.5

/** "3.9 dB louder than planned. Most likely the source (84 %)." */
export function sentence(reading: Reading, difference: number, explains: readonly Explained[]): string {
  if (reading.limit && (reading.limit === 'at-least' ? difference <= 0 : difference >= 0))
    return 'As planned, as far as the reading shows.'
  if (Math.abs(difference) < AS_PLANNED) return 'As planned.'
  const loud = `${reading.limit ? 'At least ' : ''}${offText(difference)}`
  if (reading.kept) return `${loud}; kept as measured.`
  const [likeliest] = partsOf(explains)
  if (!likeliest) return `${loud}.`
  return `${loud}. Most likely ${causeWords[likeliest.cause]} (${formatDecimal(100 * likeliest.part, 0)} %).`
}

/** What each cause makes of a difference, in parts of it; the greatest first. */
export function partsOf(explains: readonly Explained[]): { cause: Cause; part: number }[] {
  const sums = new Map<Cause, number>()
  for (const { cause, shift } of explains) sums.set(cause, (sums.get(cause) ?? 0) + shift)
  const whole = [...sums.values()].reduce((sum, each) => sum + Math.abs(each), 0)
  return whole === 0
    ? []
    : [...sums].map(([cause, shift]) => ({ cause, part: Math.abs(shift) / whole })).sort((a, b) => b.part - a.part)
}

/** What to look at before a reading is believed: processors with a threshold on the way to the meter, then the switches. */
function lookFirst(session: Session, reading: Reading): string {
  const boxes = thresholdsBefore(session, reading).map((name) => `“${name}”`)
  const switches = 'pad, 48 V, input type, cable, and which meter was read'
  return boxes.length === 0
    ? `Check the switches first: ${switches}.`
    : `Look first at the threshold and make-up of ${boxes.join(' and ')}, then for a wrong switch: ${switches}.`
}

/** The boxes that change a level by a threshold, up to where the reading was taken. */
function thresholdsBefore(session: Session, { strip, stage }: Reading): string[] {
  const stages = session.strips.find(({ id }) => id === strip)?.stages ?? []
  return stages.slice(0, stages.findIndex(({ id }) => id === stage) + 1).flatMap(({ gear }) => {
    const box = session.gear.find(({ id }) => id === gear)
    return isProcessor(box) && box.blocks.some(isDynamic) ? [box.name] : []
  })
}

/** A reading that is so far off that something is wrong. */
export const faultText = (session: Session, reading: Reading, difference: number): string =>
  `${offText(difference)}: something is wrong. ${lookFirst(session, reading)} Turn no gain until it is found, because clearing it brings the level back at once. Then take the reading again.`

const offText = (difference: number) =>
  `${formatDecimal(Math.abs(difference), 1)} dB ${difference > 0 ? 'louder' : 'quieter'} than planned`

/** What two readings that cannot both be right come to, both named; or a reading that the figures do not allow. */
export function contradictionWords(
  session: Session,
  reading: Reading,
  difference: number,
  { reading: other, z }: Contradiction,
): string {
  const times = `${formatDecimal(Math.abs(z), 1)} standard uncertainties`
  if (other === null)
    return `${offText(difference)}, ${times} off. ${lookFirst(session, reading)} If all are right, keep the reading.`
  const found = session.soundcheck?.readings?.find(({ id }) => id === other)
  const same = found?.stage === reading.stage && found.strip === reading.strip
  const where = same ? 'at the same place' : `at ${placeOf(session, other)}`
  return `${shownText(reading)} contradicts ${found ? shownText(found) : 'another reading'} ${where}, by ${times}. One of them is of another passage, another meter or another setting. Take both again on the same passage.`
}

/** What a good reading says of a fault that was read at the same place. */
export const clearedText = (fault: Reading): string =>
  `It contradicts ${shownText(fault)} at the same place. Remove that reading once its cause is found.`

/** "−8.0 dBFS at 14:02". */
const shownText = ({ value, unit, at }: Reading): string =>
  `${formatDecimal(value, 1)} ${unit}${at ? ` at ${at.slice(11, 16)}` : ''}`

function placeOf(session: Session, id: string): string {
  const other = session.soundcheck?.readings?.find((each) => each.id === id)
  const stage = session.strips.find((each) => each.id === other?.strip)?.stages.find((each) => each.id === other?.stage)
  return session.gear.find((each) => each.id === stage?.gear)?.name ?? 'another stage'
}
