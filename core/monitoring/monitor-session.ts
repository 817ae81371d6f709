import type { Point } from '../chain/cascade'
import { wayToHost } from '../chain/way-to-host'
import { gearById, stagesOf } from '../resolved/resolve-session'
import { evaluateSession } from '../evaluation/evaluate-session'
import { recommendationFor } from '../latency/recommend'
import type { KnownTime } from '../latency/route-words'
import type { Route } from '../latency/routes'
import type { AudioInterface, Headphones, InterfaceOutput, Gear } from '../gear'
import { isHeadphones, isPlayback, hasPieces } from '../gear'
import type { Strip } from '../model'
import type { Session } from '../session'
import { inForce, isBus, monitorFields } from '../model'
import type { Ohms } from '../units'
import { dbu, ohms } from '../units'
import type { Comb } from './comb'
import { combOf } from './comb'
import type { ExposureGrade } from './exposure'
import { MOST_PROPOSED, exposureGrade, nioshHours, weeklyHours } from './exposure'
import { headphoneLevel } from './headphone-level'
import type { Programme } from './mix'
import { blendGains, together } from './mix'

/** What headphones bring to a performer's ears. */
export interface EarLevel {
  average: number
  peak: number
  grade: ExposureGrade
  nioshHours: number
  weeklyHours: number
  /** The average with the volume fully up: nothing louder can be had. */
  fullyUp: number
  /** The volume at which the average is as wished, never over what is proposed at all; `null` where it is out of reach. */
  volumeFor: (wished: number) => number | null
}

/** Own sound and playback at the ear, each by itself, dBA; what the mix control takes off each, dB. */
export interface HeardMix {
  own: number
  playback: number
  ownGain: number
  playbackGain: number
}

/** One thing that a performer hears. */
export interface Heard {
  what: 'own-direct' | 'own-host' | 'playback'
  /** After the sound left; nothing for playback, which has no such moment. */
  late: KnownTime | null
  /** dBA at the ear, where it is known. */
  level: number | null
}

export interface Doubling extends Comb {
  delayMs: number
  difference: number
  /** The route to keep, as recommended, and whose monitoring to switch off for it. */
  keep: 'direct' | 'software'
  switchOff: string
}

/** Everything that a strip's performer hears, and how late and loud. */
export interface PerformerMonitor {
  strip: string
  routes: Route[]
  unit: AudioInterface | null
  output: InterfaceOutput | null
  headphones: Headphones | null
  /** Volume in force: as set, or what brings the average to 75 dBA where it is not. */
  volume: number
  volumeIsProposed: boolean
  ear: EarLevel | null
  mix: HeardMix | null
  heard: Heard[]
  /** Which ears it comes to. */
  ears: 'both' | 'left' | 'right'
  doubling: Doubling | null
  /** In words: what is lost, heard on one side, or too late. */
  notes: string[]
}

/** Average at the ear that is proposed where no volume is set, dBA: below every action value. */
const PROPOSED = 75
const NO_IMPEDANCE = ohms(0)

/** What every performer of a session hears. A bus has none, nor has a list of pieces. */
export function monitorSession(session: Session): PerformerMonitor[] {
  const gear = gearById(session)
  const evaluation = evaluateSession(session)
  return session.strips.flatMap((strip, i) => {
    const evaluated = evaluation.strips[i]
    if (isBus(strip) || isPlayed(strip, gear)) return []
    return monitorStrip(session, strip, evaluated?.points.at(-1) ?? null, evaluated?.latency ?? [])
  })
}

/** A strip that plays recordings. */
const isPlayed = ({ stages }: Strip, gear: ReadonlyMap<string, Gear>): boolean => {
  const first = gear.get(stages[0]?.gear ?? '')
  return isPlayback(first) && hasPieces(first)
}

function monitorStrip(session: Session, strip: Strip, end: Point | null, routes: Route[]): PerformerMonitor {
  const unit = wayToHost(session, strip, stagesOf(session, strip))?.input.gear ?? null
  const output = unit?.outputs.find((each) => each.id === strip.monitor.output) ?? null
  const named = session.gear.find((item) => item.id === strip.monitor.headphones)
  const headphones = isHeadphones(named) ? named : null
  const programmes = output && headphones && end?.unit === 'dBFS' ? programmesAt(strip, output, headphones, end) : null
  const full = programmes?.all ?? null
  const proposed = full ? Math.min(0, PROPOSED - full.average) : 0
  const volume = strip.monitor.volume ?? proposed
  return {
    strip: strip.id,
    routes,
    unit,
    output,
    headphones,
    volume,
    volumeIsProposed: strip.monitor.volume === undefined,
    ear: full ? earAt(full, volume) : null,
    mix: programmes?.mix ? atVolume(programmes.mix, volume) : null,
    heard: heardBy(strip, routes, programmes, volume),
    ears: earsOf(session, strip),
    doubling: doublingOf(strip, routes, unit, () => recommendationFor(session, strip)?.route ?? strip.monitor.route),
    notes: notesOf(session, strip, routes, unit),
  }
}

/** Peaks of a rough mix over its average as a sine's, dB (common practice, no source). */
const PLAYBACK_CREST = 15

interface Programmes {
  own: Programme
  all: Programme
  mix: HeardMix | null
}

/** At the ear with the volume fully up: the own sound, and with a mix control what playback there is beside it. */
function programmesAt(strip: Strip, output: InterfaceOutput, headphones: Headphones, end: Point): Programmes {
  const { fullScale, impedance } = inForce(output)
  const level = (dbfs: number) =>
    headphoneLevel(dbu(dbfs + fullScale), (impedance ?? NO_IMPEDANCE) as Ohms, inForce(headphones)).level
  const programme = (average: number, peak: number, gain: number) => ({
    average: level(average) + gain,
    peak: level(Math.min(peak, 0)) + gain,
  })
  const { blend, playback = monitorFields.playback.initial } = strip.monitor
  if (blend === undefined) {
    const own = programme(end.average, end.peak, 0)
    return { own, all: own, mix: null }
  }
  const gains = blendGains(blend)
  const own = programme(end.average, end.peak, gains.own)
  const played = programme(playback, playback + PLAYBACK_CREST, gains.playback)
  const mix = { own: own.average, playback: played.average, ownGain: gains.own, playbackGain: gains.playback }
  return { own, all: together(own, played), mix }
}

const atVolume = (mix: HeardMix, volume: number): HeardMix => ({
  ...mix,
  own: mix.own + volume,
  playback: mix.playback + volume,
})

/** What comes to the performer's ears, the own sound first. */
function heardBy(strip: Strip, routes: readonly Route[], programmes: Programmes | null, volume: number): Heard[] {
  const { route, alsoHeard } = strip.monitor
  const heard: Heard[] = []
  for (const each of routes) {
    const chosen = each.route === route
    if (!chosen && alsoHeard === undefined) continue
    const level = programmes ? programmes.own.average + volume + (chosen ? 0 : (alsoHeard ?? 0)) : null
    heard.push({ what: each.route === 'direct' ? 'own-direct' : 'own-host', late: each, level })
  }
  if (programmes?.mix) heard.push({ what: 'playback', late: null, level: programmes.mix.playback + volume })
  return heard
}

function earsOf(session: Session, strip: Strip): PerformerMonitor['ears'] {
  const pair = session.pairs?.find((each) => each.left === strip.id || each.right === strip.id)
  if (pair?.monitoring === 'panned') return pair.left === strip.id ? 'left' : 'right'
  return strip.monitor.side ?? 'both'
}

function earAt(full: Programme, volume: number): EarLevel {
  const [average, peak] = [full.average + volume, full.peak + volume]
  return {
    average,
    peak,
    grade: exposureGrade(average, peak),
    nioshHours: nioshHours(average),
    weeklyHours: weeklyHours(average),
    fullyUp: full.average,
    volumeFor: (wished) => {
      const volume = Math.min(wished, MOST_PROPOSED) - full.average
      return volume > 0 ? null : volume
    },
  }
}

/** Both paths at once: a comb filter by their difference in time and level. */
function doublingOf(
  strip: Strip,
  routes: readonly Route[],
  unit: AudioInterface | null,
  recommended: () => 'direct' | 'software',
): Doubling | null {
  const [direct, software] = (['direct', 'software'] as const).map((name) => routes.find((each) => each.route === name))
  const { alsoHeard } = strip.monitor
  if (alsoHeard === undefined || !direct || !software || !unit) return null
  const delayMs = Math.abs(software.milliseconds - direct.milliseconds)
  const keep = recommended()
  return {
    delayMs,
    difference: alsoHeard,
    ...combOf(delayMs, alsoHeard),
    keep,
    switchOff:
      keep === 'direct'
        ? 'the host’s input monitoring of this track'
        : `the direct monitoring of “${unit.name}” (its mix control to playback)`,
  }
}

function notesOf(session: Session, strip: Strip, routes: readonly Route[], unit: AudioInterface | null): string[] {
  const notes: string[] = []
  const pair = session.pairs?.find((each) => each.left === strip.id || each.right === strip.id)
  if (strip.monitor.route === 'direct' && strip.monitor.pluginFrames > 0)
    notes.push(
      'The host’s effects are not heard on the direct sound. Reverberation from the host may be mixed in: it is late anyway.',
    )
  if (strip.monitor.route === 'direct' && !routes.some((each) => each.route === 'direct'))
    notes.push(`“${unit?.name ?? 'The unit'}” has no direct monitoring: nothing is heard on this route.`)
  if (!pair && strip.monitor.side)
    notes.push(
      `One source, heard on the ${strip.monitor.side} only: monitor it in mono, in the middle. It is so where one input is recorded to one side of a stereo track.`,
    )
  if (pair?.monitoring === 'panned') notes.push('A stereo pair: left and right panned apart, at the same level.')
  if (pair?.monitoring === 'mono')
    notes.push(
      'A stereo pair heard in mono: listen once whether it thins out, which shows time differences between the two.',
    )
  return notes
}
