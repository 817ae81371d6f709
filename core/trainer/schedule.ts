/** What is known of how well somebody does one kind of fault or drill. */
export interface Progress {
  kind: string
  /** 0: just failed or new; each time it goes well, one more. */
  box: number
  /** The day on which it is to come again, counted in days since 1970. */
  due: number
  seen: number
  good: number
  /** Points of the last time. */
  last: number
}

/** Days until a kind comes again, by its box (Leitner’s boxes; common practice, no source). */
const AGAIN_AFTER = [0, 1, 3, 7, 16, 35] as const

/** The day of a moment, counted by its own clock. */
export const dayOf = (date: Date): number =>
  Math.floor((date.getTime() - date.getTimezoneOffset() * 60_000) / 86_400_000)

/** What went well comes later and later; what failed comes again today. */
export function after(
  before: Progress | undefined,
  kind: string,
  points: number,
  good: boolean,
  today: number,
): Progress {
  const { box = 0, seen = 0, good: well = 0 } = before ?? {}
  const next = good ? Math.min(AGAIN_AFTER.length - 1, box + 1) : 0
  return {
    kind,
    box: next,
    due: today + (AGAIN_AFTER[next] as number),
    seen: seen + 1,
    good: well + Number(good),
    last: points,
  }
}

/**
 * Which kind comes next: what is due, the worst first; then what was never seen; then what was seen longest ago. What was just done does
 * not come at once again where there is anything else.
 */
export function nextKind(
  kinds: readonly string[],
  known: readonly Progress[],
  today: number,
  just: string | null,
  random: () => number,
): string {
  const of = (kind: string) => known.find((each) => each.kind === kind)
  const open = kinds.length > 1 ? kinds.filter((kind) => kind !== just) : [...kinds]
  const due = open.filter((kind) => (of(kind)?.due ?? Infinity) <= today)
  if (due.length > 0) return best(due, (kind) => (of(kind)?.box ?? 0) * 1000 + (of(kind)?.due ?? 0) - today)
  const fresh = open.filter((kind) => !of(kind))
  if (fresh.length > 0) return fresh[Math.floor(random() * fresh.length)] as string
  return best(open, (kind) => of(kind)?.due ?? 0)
}

const best = (kinds: readonly string[], cost: (kind: string) => number): string =>
  kinds.reduce((least, kind) => (cost(kind) < cost(least) ? kind : least))

/** Grades open one after the other: with four kinds of one that went well at least once (common practice, no source). */
const TO_OPEN = 4
export const openGrade = (wellByGrade: readonly number[]): number => {
  const closed = wellByGrade.findIndex((well) => well < TO_OPEN)
  return closed < 0 ? wellByGrade.length : closed + 1
}
