import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'
import { withPart } from '../edits'
import { formatDecimal, formatShort } from '../units'
import { timingAxes } from './axes'
import type { Load, LoadModel } from './cpu-load'
import { loadAt, loadModel, loadWords, sustainable } from './cpu-load'
import { listeningKinds, performerLimit } from './performer'
import { routeInputs } from './route-inputs'
import type { Route, RouteInputs } from './routes'
import { routes } from './routes'
import { routeTime } from './route-words'

/** What a strip’s performer should listen by: the one answer that every screen, step, cause and endpoint gives. */
export interface Recommendation {
  strip: string
  route: 'software' | 'direct'
  sampleRate: number
  bufferFrames: number
  milliseconds: number
  /** Converters and driver come on top, unknown. */
  atLeast: boolean
  /** False where no buffer at any rate is sustained by the machine: then this is only what comes closest. */
  sustained: boolean
  reason: string
}

/** The recommendation for a strip; `null` for a bus, and without an interface. */
export function recommendationFor(session: Session, strip: Strip): Recommendation | null {
  // Nobody plays into a bus.
  const found = isBus(strip) ? null : routeInputs(session, strip, stagesOf(session, strip))
  if (!found) return null
  const choices = new Choices(session, strip, found.inputs)
  for (const one of CASES) {
    const answer = one(choices)
    if (answer) return answer
  }
  return choices.unsustained()
}

/**
 * The cases in the order in which they are tried. The largest buffer is the calmest: what is not felt needs no smaller one. Whoever
 * listens direct in time keeps doing so. Only what the machine sustains is recommended, at any rate that is offered.
 */
const CASES: readonly ((choices: Choices) => Recommendation | null)[] = [
  staysDirect,
  largestUnnoticed,
  directInTime,
  anotherRate,
  leastPossible,
]

/** A rate and a buffer. */
interface Cell {
  readonly sampleRate: number
  readonly bufferFrames: number
}

const ms = (value: number) => `${formatDecimal(value, 2)} ms`
const kHz = (rate: number) => `${formatShort(rate / 1000)} kHz`
const cellText = ({ sampleRate, bufferFrames }: Cell) => `${bufferFrames} frames at ${kHz(sampleRate)}`

/** What there is to choose from for one performer. */
class Choices {
  readonly limit: number
  readonly kind: string
  readonly direct: Route | undefined
  readonly set: Cell
  readonly buffers: readonly number[]
  /** The set rate first, then the higher ones, then the lower ones, the nearest first. */
  readonly rates: readonly number[]
  private readonly load: LoadModel | null

  constructor(
    private readonly session: Session,
    readonly strip: Strip,
    private readonly inputs: RouteInputs,
  ) {
    const { sampleRate, bufferFrames } = session.system
    const { rates, buffers } = timingAxes(session, inputs.unit)
    this.set = { sampleRate, bufferFrames }
    this.buffers = buffers
    this.rates = [
      sampleRate,
      ...rates.filter((rate) => rate > sampleRate),
      ...rates.filter((rate) => rate < sampleRate).reverse(),
    ]
    this.limit = performerLimit(strip.performer)
    this.kind = strip.performer ? listeningKinds[strip.performer.listensTo].words : 'the performer'
    this.direct = routes(inputs).find((each) => each.route === 'direct')
    this.load = loadModel(session.system.loads ?? [])
  }

  /** The route through the host: air, links, converters, plug-ins, a loudspeaker, whatever stands on it. */
  software({ sampleRate, bufferFrames }: Cell): Route {
    const system = withPart(this.session.system, { sampleRate, bufferFrames })
    return routes({ ...this.inputs, system }).find((each) => each.route === 'software') as Route
  }

  /** Whether the machine sustains a cell; `undefined` where nothing is known of it. */
  sustains({ sampleRate, bufferFrames }: Cell): boolean | undefined {
    const load = this.loadOf({ sampleRate, bufferFrames })
    return sustainable(this.session.system.trials ?? [], load, sampleRate, bufferFrames)
  }

  loadOf = ({ sampleRate, bufferFrames }: Cell): Load | undefined =>
    this.load ? loadAt(this.load, sampleRate, bufferFrames) : undefined

  /** Cells of a rate that are not known to drop out, the smallest buffer first. */
  cellsAt = (sampleRate: number): Cell[] =>
    this.buffers.map((bufferFrames) => ({ sampleRate, bufferFrames })).filter((cell) => this.sustains(cell) !== false)

  /** The largest buffer of a rate that goes unnoticed. */
  largestAt = (sampleRate: number): Cell | undefined =>
    this.cellsAt(sampleRate).findLast((cell) => this.software(cell).milliseconds <= this.limit)

  /** Where the buffer is not heard: as it is set, or what comes nearest to it and is sustained. */
  unheard(): Cell | undefined {
    for (const rate of this.rates) {
      const cells = this.cellsAt(rate)
      const cell = cells.find(({ bufferFrames }) => bufferFrames >= this.set.bufferFrames) ?? cells.at(-1)
      if (cell) return cell
    }
    return undefined
  }

  answer({ route, milliseconds, atLeast }: Route, cell: Cell, reason: string, sustained = true): Recommendation {
    return {
      strip: this.strip.id,
      route,
      ...cell,
      milliseconds,
      atLeast,
      sustained,
      reason: atLeast ? `${reason} ${UNKNOWN}` : reason,
    }
  }

  /** Nothing is sustained: what comes closest, and what would help most. */
  unsustained(): Recommendation {
    const cells = this.rates.flatMap((sampleRate) => this.buffers.map((bufferFrames) => ({ sampleRate, bufferFrames })))
    const least = cells.reduce((best, cell) =>
      (this.loadOf(cell)?.percent ?? -cell.bufferFrames) < (this.loadOf(best)?.percent ?? -best.bufferFrames)
        ? cell
        : best,
    )
    const load = this.loadOf(least)
    const help =
      this.load && (this.load.perFrameMs ?? 0) * least.bufferFrames < (this.load.perBufferMs ?? 0)
        ? 'Close other programs and use the maker’s driver'
        : 'Take plug-ins off or freeze tracks'
    const route = this.direct && this.direct.milliseconds < this.software(least).milliseconds ? this.direct : undefined
    return this.answer(
      route ?? this.software(least),
      least,
      `The machine sustains no buffer at any rate; ${cellText(least)} comes closest${load === undefined ? '' : ` with ${loadWords(load)} load`}. ${help}, then read the load again.`,
      false,
    )
  }
}

function staysDirect(choices: Choices): Recommendation | null {
  const { direct, strip, limit, kind, set } = choices
  const cell = choices.unheard()
  if (strip.monitor.route !== 'direct' || !direct || direct.milliseconds > limit || !cell) return null
  return choices.answer(
    direct,
    cell,
    `Direct monitoring${direct.atLeast ? '' : `, ${routeTime(direct)},`} is under the ${formatShort(limit)} ms limit for ${kind}. The buffer is not heard: ${isSame(cell, set) ? `it may stay at ${set.bufferFrames} frames` : `use ${cellText(cell)}, because ${cellText(set)} drops out`}.`,
  )
}

const isSame = (one: Cell, other: Cell) =>
  one.sampleRate === other.sampleRate && one.bufferFrames === other.bufferFrames

function largestUnnoticed(choices: Choices): Recommendation | null {
  const { direct, limit, kind, set, buffers } = choices
  const cell = choices.largestAt(set.sampleRate)
  if (!cell) return null
  const route = choices.software(cell)
  const next = buffers.find((frames) => frames > cell.bufferFrames)
  const known = choices.sustains(cell)
    ? ' The machine sustains it.'
    : ' It is not known yet whether the machine sustains it.'
  const larger =
    next === undefined
      ? ''
      : ` ${next} frames would be ${routeTime(choices.software({ ...cell, bufferFrames: next }))}.`
  const sooner =
    direct && direct.milliseconds < route.milliseconds
      ? ` Direct monitoring would be ${direct.atLeast ? 'sooner' : routeTime(direct)}, without the host’s effects and mix.`
      : ''
  return choices.answer(
    route,
    cell,
    `${cell.bufferFrames} frames is the largest buffer under the ${formatShort(limit)} ms limit for ${kind}.${known}${larger}${sooner}`,
  )
}

const noneHere = ({ set, limit }: Choices) =>
  `No buffer at ${kHz(set.sampleRate)} is both under ${formatShort(limit)} ms and sustained.`

function directInTime(choices: Choices): Recommendation | null {
  const { direct, limit, strip } = choices
  const cell = choices.unheard()
  if (!direct || direct.milliseconds > limit || !cell) return null
  const other = otherRate(choices)
  return choices.answer(
    direct,
    cell,
    `${noneHere(choices)} Use direct monitoring${direct.atLeast ? ', the soonest there is' : `, ${routeTime(direct)}`}; the buffer is then not heard.${strip.monitor.pluginFrames > 0 ? ' The plug-ins are not heard on the direct sound.' : ''}${other ? ` Or ${costText(choices, other)}` : ''}`,
  )
}

const otherRate = (choices: Choices): Cell | undefined => {
  for (const rate of choices.rates.slice(1)) {
    const cell = choices.largestAt(rate)
    if (cell) return cell
  }
  return undefined
}

function anotherRate(choices: Choices): Recommendation | null {
  const cell = otherRate(choices)
  if (!cell) return null
  return choices.answer(
    choices.software(cell),
    cell,
    `${noneHere(choices)} Direct monitoring is not in time either: use ${costText(choices, cell)}`,
  )
}

function costText(choices: Choices, cell: Cell): string {
  const load = choices.loadOf(cell)
  const costs = [
    `${formatDecimal(cell.sampleRate / choices.set.sampleRate, 1)} times the disk`,
    ...(load === undefined ? [] : [`${loadWords(load)} load`]),
  ]
  return `${cellText(cell)}, ${ms(choices.software(cell).milliseconds)}, at ${costs.join(' and ')}.`
}

/** Nothing is in time: the earliest of what the machine sustains. */
function leastPossible(choices: Choices): Recommendation | null {
  const hosts = choices.rates.flatMap((rate) => {
    const [cell] = choices.cellsAt(rate)
    return cell ? [{ route: choices.software(cell), cell }] : []
  })
  const unheard = choices.unheard()
  const all = [...hosts, ...(choices.direct && unheard ? [{ route: choices.direct, cell: unheard }] : [])]
  if (all.length === 0) return null
  const { route, cell } = all.reduce((least, each) =>
    each.route.milliseconds < least.route.milliseconds ? each : least,
  )
  return choices.answer(
    route,
    cell,
    `${noneHere(choices)} ${routeTime(route)} is the least possible here. Take plug-ins off, go closer, or let the performer hear less of this source.`,
  )
}

/** Said with whatever is recommended for a unit that nothing is known of. */
const UNKNOWN = 'The unit’s converters and driver add an unknown delay: measure the round trip before relying on it.'
