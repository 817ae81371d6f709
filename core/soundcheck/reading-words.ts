import type { Reading, Session } from '../session'
import { formatDecimal } from '../units'
import type { Cause } from './cause'
import { causeWords } from './cause'
import type { Contradiction, Explained } from './inferred'

/** Differences below that are as planned, dB. */
const AS_PLANNED = 0.5

/** "3.9 dB louder than planned, and it is the source: 84 to 1 against a wrong gain." */
export function sentence(reading: Reading, difference: number, explains: readonly Explained[]): string {
  if (Math.abs(difference) < AS_PLANNED) return 'As planned.'
  const loud = `${formatDecimal(Math.abs(difference), 1)} dB ${difference > 0 ? 'louder' : 'quieter'} than planned`
  if (reading.kept) return `${loud}; kept as measured.`
  const parts = partsOf(explains)
  const [likeliest] = parts
  if (!likeliest) return `${loud}.`
  const gain = parts.find(({ cause }) => cause === 'gain')
  if (likeliest.cause === 'gain') {
    const next = parts[1]
    return `${loud}, and it is ${causeWords.gain}${next ? `: ${odds(likeliest.part, next.part)} against ${causeWords[next.cause]}` : ''}.`
  }
  return `${loud}, and it is ${causeWords[likeliest.cause]}: ${odds(likeliest.part, gain?.part ?? 0)} against a wrong gain.`
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

const odds = (one: number, other: number): string => `${whole(one)} to ${whole(other)}`
const whole = (part: number) => (part > 0 && part < 0.005 ? 'less than 1' : formatDecimal(100 * part, 0))

/** What two readings that cannot both be right come to. */
export function contradictionWords(session: Session, difference: number, { reading: other, z }: Contradiction): string {
  const off = `${formatDecimal(Math.abs(difference), 1)} dB ${difference > 0 ? 'over' : 'under'} what was planned`
  if (other === null)
    return `${off}: more than the figures allow (${formatDecimal(Math.abs(z), 1)} times their uncertainty). Look at the pad, the input type, 48 V and which meter was read, and read again; where it stays, keep it.`
  return `${off}: it contradicts the reading at ${placeOf(session, other)} (${formatDecimal(Math.abs(z), 1)} times what both may be off). One of them is wrong, or something between them is: a pad, a knob that does not give what it says, another passage. Read both again on the same passage.`
}

function placeOf(session: Session, id: string): string {
  const other = session.soundcheck?.readings?.find((each) => each.id === id)
  const stage = session.strips.find((each) => each.id === other?.strip)?.stages.find((each) => each.id === other?.stage)
  return session.gear.find((each) => each.id === stage?.gear)?.name ?? 'another stage'
}
