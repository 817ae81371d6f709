import equal from 'fast-deep-equal'
import { stagesOf } from '../resolved/resolve-session'
import { settingWords, stageName } from '../chain/setting-words'
import type { Evaluation, StripEvaluation } from '../evaluation/evaluate-session'
import type { Gear } from '../gear'
import type { Strip } from '../model'
import type { Mark, Session } from '../session'
import { feedsOf, targetOf, conventions, isBus } from '../model'
import { gearDifferences } from '../edits'
import { formatShort, SHOWN_ALIKE } from '../units'

/** Something that stands otherwise in one session than in another; "–" where it is not there. */
export interface Difference {
  of: string
  what: string
  from: string
  to: string
}

/** What a change did to a strip. */
export interface FigureChange {
  strip: string
  name: string
  figure: 'headroom' | 'floor' | 'snr' | 'roundTrip'
  words: string
  unit: string
  digits: number
  from: number | null
  to: number | null
}

export interface Comparison {
  settings: Difference[]
  gear: Difference[]
  figures: FigureChange[]
}

interface Side {
  session: Session
  evaluation: Evaluation
}

/** Two states of a session: what was set otherwise, which gear, and what that did to headroom, floor and time. */
export function compareSessions(from: Side, to: Side): Comparison {
  return {
    settings: settingDifferences(from.session, to.session),
    gear: gearDifferencesOf(from.session, to.session),
    figures: figureChanges(from, to),
  }
}

const NOT_THERE = '–'

/** All settings of a session by what they are of. */
function settingsOf(session: Session): Map<string, { of: string; what: string; words: string }> {
  const all = new Map<string, { of: string; what: string; words: string }>()
  const put = (key: string, of: string, what: string, words: string) => all.set(key, { of, what, words })
  const { system, room } = session
  put('rate', 'System', 'Sample rate', `${formatShort(system.sampleRate / 1000)} kHz`)
  put('bits', 'System', 'Bit depth', String(system.bitDepth))
  put('buffer', 'System', 'Buffer', `${system.bufferFrames} frames`)
  put('driver', 'System', 'Driver', system.driver ?? NOT_THERE)
  put('target', 'System', 'Target', targetWords(session))
  put('ambient', 'Room', 'Room noise', room.ambient === undefined ? NOT_THERE : `${formatShort(room.ambient)} dBA`)
  for (const strip of session.strips) {
    const stages = stagesOf(session, strip)
    put(`${strip.id} stages`, strip.name, 'Way', stages.map(stageName).join(' → '))
    for (const stage of stages)
      for (const { setting, name, words } of settingWords(stage))
        put(`${strip.id} ${stage.id} ${setting}`, strip.name, `${stageName(stage)}, ${name.toLowerCase()}`, words)
    for (const { to, gain, tap } of feedsOf(strip))
      put(
        `${strip.id} to ${to}`,
        strip.name,
        `Send to ${nameOf(session, to)}`,
        `${formatShort(gain, 1)} dB, ${tap} fader`,
      )
    for (const [key, what, words] of monitoringOf(strip)) put(`${strip.id} ${key}`, strip.name, what, words)
  }
  return all
}

function monitoringOf(strip: Strip): [string, string, string][] {
  if (isBus(strip)) return []
  const { route, volume, blend } = strip.monitor
  return [
    ['route', 'Listens by', route === 'direct' ? 'direct monitoring' : 'software monitoring'],
    ...(volume === undefined
      ? []
      : [['volume', 'Headphone volume', `${formatShort(volume, 1)} dB`] as [string, string, string]]),
    ...(blend === undefined
      ? []
      : [['blend', 'Own signal against playback', `${formatShort(blend)} %`] as [string, string, string]]),
  ]
}

function targetWords({ target }: Session): string {
  if (typeof target === 'string') return conventions[target].name
  const window = targetOf(target)
  return 'risk' in window ? `${formatShort(window.risk)} % risk` : `${window.low} to ${window.high} dBFS`
}

const nameOf = ({ strips }: Session, id: string) => strips.find((each) => each.id === id)?.name ?? id

/** Settings that stand otherwise, in words. */
export function settingDifferences(from: Session, to: Session): Difference[] {
  const [was, is] = [settingsOf(from), settingsOf(to)]
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((key): Difference[] => {
    const [a, b] = [was.get(key), is.get(key)]
    const named = b ?? a
    if (!named || a?.words === b?.words) return []
    return [{ of: named.of, what: named.what, from: a?.words ?? NOT_THERE, to: b?.words ?? NOT_THERE }]
  })
}

/** Devices that came, went or have other figures. */
export function gearDifferencesOf(from: Session, to: Session): Difference[] {
  const boxes = new Map<string, { was?: Gear; is?: Gear }>()
  for (const each of from.gear) boxes.set(each.id, { was: each })
  for (const each of to.gear) boxes.set(each.id, { ...boxes.get(each.id), is: each })
  return [...boxes.values()].flatMap(({ was, is }): Difference[] => {
    if (!was || !is) {
      const name = (was ?? is)?.name ?? ''
      return [{ of: name, what: 'In the session', from: was ? 'yes' : 'no', to: is ? 'yes' : 'no' }]
    }
    // A processor’s sections are settings, and compared with them.
    const others = gearDifferences(was, is).filter(({ path }) => !path.startsWith('blocks'))
    return others.map((each) => ({ of: is.name, what: each.words, from: each.from, to: each.to }))
  })
}

function figureChanges(from: Side, to: Side): FigureChange[] {
  return to.session.strips.flatMap((strip, i): FigureChange[] => {
    const at = from.session.strips.findIndex(({ id }) => id === strip.id)
    const [was, is] = [at < 0 ? undefined : from.evaluation.strips[at], to.evaluation.strips[i]]
    if (!is) return []
    return FIGURES.flatMap(({ figure, words, unit, digits, of }): FigureChange[] => {
      const [a, b] = [was ? of(was, strip) : null, of(is, strip)]
      const same = a === b || (a !== null && b !== null && Math.abs(a - b) < SHOWN_ALIKE)
      return same ? [] : [{ strip: strip.id, name: strip.name, figure, words, unit, digits, from: a, to: b }]
    })
  })
}

const FIGURES: {
  figure: FigureChange['figure']
  words: string
  unit: string
  digits: number
  of: (evaluated: StripEvaluation, strip: Strip) => number | null
}[] = [
  { figure: 'headroom', words: 'Headroom', unit: 'dB', digits: 1, of: ({ tightest }) => tightest?.headroom ?? null },
  {
    figure: 'floor',
    words: 'Floor at its end',
    unit: 'dB(A)',
    digits: 1,
    of: ({ points }) => points.at(-1)?.noise ?? null,
  },
  {
    figure: 'snr',
    words: 'Average over the floor',
    unit: 'dB',
    digits: 1,
    of: ({ points }) => points.at(-1)?.snr ?? null,
  },
  {
    figure: 'roundTrip',
    words: 'To the ear',
    unit: 'ms',
    digits: 2,
    of: ({ latency }, { monitor }) => latency.find(({ route }) => route === monitor.route)?.milliseconds ?? null,
  },
]

/**
 * The last two marks between which something of the session was changed.
 * @param marks the newest first
 */
export function lastDifferent(
  marks: readonly Pick<Mark, 'id'>[],
  sessionOf: (id: string) => Session | null,
): { from: string; to: string } | null {
  for (let i = 0; i + 1 < marks.length; i++) {
    const [to, from] = [marks[i], marks[i + 1]].map((mark) => mark?.id ?? '') as [string, string]
    const [before, after] = [sessionOf(from), sessionOf(to)]
    if (before && after && !equal(comparable(before), comparable(after))) return { from, to }
  }
  return null
}

/** What a comparison looks at: not the name, notes, ticks and readings. */
const comparable = ({ system, room, target, gear, strips }: Session) => ({ system, room, target, gear, strips })
