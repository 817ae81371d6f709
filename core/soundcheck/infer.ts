import type { Reading } from '../session'
import { chanceOver } from '../uncertainty/chance'
import { placeOf } from '../uncertainty/figures'
import type { UncertainInput } from '../uncertainty/input'
import { nameOfInput } from '../uncertainty/input'
import type { KnownReading } from '../uncertainty/known-readings'
import { KnownReadings, dot, knownReading, readAt, slopesOf } from '../uncertainty/known-readings'
import type { SessionDoubts } from '../uncertainty/uncertainty'
import { causeOf } from './cause'
import type { Contradiction, Explained, InferredReading } from './inferred'
import { contradictionWords, sentence } from './reading-words'
import { changesFor } from './turn'

/** Parts below that are none, dB. */
const NO_PART = 0.005

/** Beyond so many standard uncertainties something else is wrong: once in a hundred otherwise. */
const BESIDE = 2.576

/** What the readings of a session’s soundcheck say. */
export function inferReadings(doubts: SessionDoubts): InferredReading[] {
  const { session, walks, linear } = doubts
  const readings = session.soundcheck?.readings ?? []
  const known = readings.map((reading) => knownReading(walks, linear, reading))
  const all = new KnownReadings(known.filter((each) => each !== null))
  return readings.map((reading, i) => {
    const own = known[i]
    return own ? inferred(doubts, all, reading, own) : unread(reading)
  })
}

const unread = (reading: Reading): InferredReading => ({
  id: reading.id,
  difference: null,
  explains: [],
  contradicts: null,
  changes: [],
  then: null,
  chance: null,
  says: `There is no meter in ${reading.unit} at that stage, or the stage is gone. Take the reading anew.`,
})

function inferred(doubts: SessionDoubts, all: KnownReadings, reading: Reading, own: KnownReading): InferredReading {
  const difference = reading.value - (reading.expected ?? expectedNow(doubts, reading))
  const explains = reading.kept ? [] : explanation(doubts, all, own)
  const contradicts = contradiction(all, own)
  // Where two readings cannot both be right, nobody knows what to turn.
  const turned = contradicts?.reading ? null : changesFor(doubts, all, reading.strip)
  return {
    id: reading.id,
    difference,
    explains,
    contradicts,
    changes: turned?.changes ?? [],
    then: turned?.then ?? null,
    chance: chanceOfClipping(doubts, all, reading.strip),
    says: contradicts
      ? contradictionWords(doubts.session, difference, contradicts)
      : sentence(reading, difference, explains),
  }
}

const expectedNow = ({ walks }: SessionDoubts, reading: Reading): number => readAt(walks, reading)?.now ?? NaN

function explanation({ session, inputs }: SessionDoubts, all: KnownReadings, own: KnownReading): Explained[] {
  const byPath = new Map<string, UncertainInput>(inputs.map((input) => [input.path, input]))
  return [...own.slopes]
    .flatMap(([path, slope]): Explained[] => {
      const input = byPath.get(path)
      if (!input) return []
      const { z, left } = all.ofInput(path)
      const shift = slope * z
      return Math.abs(shift) < NO_PART
        ? []
        : [{ input: path, name: nameOfInput(input), cause: causeOf(session, input), shift, u: Math.abs(slope) * left }]
    })
    .sort((a, b) => Math.abs(b.shift) - Math.abs(a.shift))
}

/** Whether a reading lies where the others, or the figures alone, do not let it lie; and against which it is worst. */
function contradiction(all: KnownReadings, own: KnownReading): Contradiction | null {
  const others = all.without(own.id)
  const z = beside(others, own)
  if (Math.abs(z) <= BESIDE) return null
  const worst = others.readings
    .filter((each) => Math.abs(dot(each.slopes, own.slopes)) > 0)
    .map((each) => ({ reading: each.id, z: beside(new KnownReadings([each]), own) }))
    .sort((a, b) => Math.abs(b.z) - Math.abs(a.z))[0]
  return worst && Math.abs(worst.z) > BESIDE ? worst : { reading: null, z }
}

/** By how many standard uncertainties a reading lies beside what others make of it. */
const beside = (others: KnownReadings, { slopes, u, difference }: KnownReading): number =>
  (difference - others.shift(slopes)) / Math.sqrt(others.covariance(slopes, slopes) + u ** 2)

/** The chance that a peak with the surge passes a ceiling of a strip, by all that is known: the greatest of its stages. */
function chanceOfClipping({ walks, linear }: SessionDoubts, all: KnownReadings, strip: string): number | null {
  const effects = linear.get(strip)?.effects ?? []
  const numbers = walks.numbersAt(strip)
  let greatest: number | null = null
  walks.walkOf(strip).points.forEach((_, i) => {
    const at = placeOf(i, 'surgeHeadroom')
    const headroom = numbers[at] as number
    if (Number.isNaN(headroom)) return
    const slopes = slopesOf(effects, at)
    const u = Math.sqrt(Math.max(0, all.covariance(slopes, slopes)))
    greatest = Math.max(greatest ?? 0, chanceOver(headroom + all.shift(slopes), u))
  })
  return greatest
}
