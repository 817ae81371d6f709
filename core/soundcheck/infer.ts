import type { Reading } from '../model'
import type { Session } from '../session'
import type { UncertainInput } from '../uncertainty/input'
import { nameOfInput } from '../uncertainty/input'
import type { KnownReading } from '../uncertainty/known-readings'
import { KnownReadings, besideFigures, dot, isFault, knownReading, readAt } from '../uncertainty/known-readings'
import type { SessionUncertainty, StripUncertainty } from '../uncertainty/uncertainty'
import { chanceOfClipping } from '../uncertainty/uncertainty'
import { causeOf } from './cause'
import type { Contradiction, Explained, InferredReading } from './inferred'
import { clearedText, contradictionWords, faultText, sentence } from './reading-words'
import { changesFor } from './turn'

/** Parts below that are none, dB. */
const NO_PART = 0.005

/** Beyond so many standard uncertainties something else is wrong: once in a hundred otherwise. */
const BESIDE = 2.576

/** What the readings of a session’s soundcheck say. */
export function inferReadings(doubts: SessionUncertainty): InferredReading[] {
  const { session, evaluations, linear } = doubts
  const readings = session.soundcheck?.readings ?? []
  const known = readings.map((reading) => knownReading(evaluations, linear, reading))
  const sound = new KnownReadings(
    known.flatMap((each) => (each && each.limit === null && !isFault(each) ? [each] : [])),
  )
  const faults = known.flatMap((each) => (each && isFault(each) ? [each] : []))
  return readings.map((reading, i) => {
    const own = known[i]
    return own ? inferred(doubts, { sound, faults }, reading, own) : unread(reading)
  })
}

interface Others {
  /** The exact readings that are no faults, each with the worth of its own meter. */
  sound: KnownReadings
  faults: readonly KnownReading[]
}

const unread = (reading: Reading): InferredReading => ({
  id: reading.id,
  difference: null,
  explains: [],
  contradicts: null,
  fault: false,
  changes: [],
  then: null,
  thenAtLeast: false,
  chance: null,
  says: `There is no meter in ${reading.unit} at that stage, or the stage is gone. Take the reading again.`,
})

function inferred(doubts: SessionUncertainty, others: Others, reading: Reading, own: KnownReading): InferredReading {
  const difference = reading.value - (reading.expected ?? expectedNow(doubts, reading))
  const fault = !reading.kept && isFault(own)
  const explains = reading.kept || fault ? [] : explanation(doubts, own)
  const contradicts = fault ? { reading: null, z: besideFigures(own) } : contradiction(others.sound, own)
  // Where readings cannot all be right, or a switch may be wrong, nobody knows what to turn.
  const turned = contradicts ? null : changesFor(doubts, reading)
  return {
    id: reading.id,
    difference,
    explains,
    contradicts,
    fault,
    changes: turned?.changes ?? [],
    then: turned?.then ?? null,
    thenAtLeast: turned?.atLeast ?? false,
    chance: chanceOfClipping(doubts.strips.get(reading.strip) as StripUncertainty)?.surge ?? null,
    says: fault
      ? faultText(doubts.session, reading, difference)
      : contradicts
        ? contradictionWords(doubts.session, reading, difference, contradicts)
        : [sentence(reading, difference, explains), ...clearedFaults(doubts.session, others.faults, reading, own)].join(
            ' ',
          ),
  }
}

/** The faults read at the same place that a good reading leaves behind: named, so that nobody believes both. */
function clearedFaults(
  session: Session,
  faults: readonly KnownReading[],
  reading: Reading,
  own: KnownReading,
): string[] {
  return faults.flatMap((fault) => {
    const other = session.soundcheck?.readings?.find(({ id }) => id === fault.id)
    const same = other?.strip === reading.strip && other.stage === reading.stage
    const apart = Math.abs(beside(new KnownReadings([fault]), own)) > BESIDE
    return other && same && apart ? [clearedText(other)] : []
  })
}

const expectedNow = ({ evaluations }: SessionUncertainty, reading: Reading): number =>
  readAt(evaluations, reading)?.now ?? NaN

function explanation({ session, inputs, readings }: SessionUncertainty, own: KnownReading): Explained[] {
  const byPath = new Map<string, UncertainInput>(inputs.map((input) => [input.path, input]))
  return [...own.slopes]
    .flatMap(([path, slope]): Explained[] => {
      const input = byPath.get(path)
      if (!input) return []
      const { z, left } = readings.ofInput(path)
      const shift = slope * z
      return Math.abs(shift) < NO_PART
        ? []
        : [{ input: path, name: nameOfInput(input), cause: causeOf(session, input), shift, u: Math.abs(slope) * left }]
    })
    .sort((a, b) => Math.abs(b.shift) - Math.abs(a.shift))
}

/** Whether a reading lies where the others, or the figures alone, do not let it lie; and against which it is worst. */
function contradiction(sound: KnownReadings, own: KnownReading): Contradiction | null {
  const others = sound.without(own.id)
  const z = beside(others, own)
  if (Math.abs(z) <= BESIDE) return null
  const worst = others.readings
    .filter((each) => Math.abs(dot(each.slopes, own.slopes)) > 0)
    .map((each) => ({ reading: each.id, z: beside(new KnownReadings([each]), own) }))
    .sort((a, b) => Math.abs(b.z) - Math.abs(a.z))[0]
  return worst && Math.abs(worst.z) > BESIDE ? worst : { reading: null, z }
}

/** By how many standard uncertainties a reading lies beside what others make of it; a limit only where it is passed. */
function beside(others: KnownReadings, { slopes, u, difference, limit }: KnownReading): number {
  const off = difference - others.shift(slopes)
  const passed = limit === 'at-least' ? Math.max(0, off) : limit === 'at-most' ? Math.min(0, off) : off
  return passed / Math.sqrt(others.covariance(slopes, slopes) + u ** 2)
}
