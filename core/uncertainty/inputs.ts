import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'
import { gearById, stagesOf } from '../resolved/resolve-session'
import { routeInputs } from '../latency/route-inputs'
import { estimateRoundTrip } from '../latency/round-trip'
import type { Gear } from '../gear'
import type { FieldTable, NumberField, Strip, Tolerance, Tolerant } from '../model'
import type { Session } from '../session'
import { latencySpecs, isDeskChannel, isSoundSource, originOf, isPlayback, hasPieces } from '../gear'
import {
  GAIN_TOLERANCE,
  spreadFrom,
  inputSpread,
  inForce,
  monitorFields,
  roomFields,
  roomInForce,
  settingFields,
  usualTolerance,
} from '../model'
import type { Port } from '../gear/chain-traits'
import type { InputPlace, UncertainInput } from './input'

/**
 * Every value of a session that its figures rest on and that may be off, each once: a box in two strips is one input. Steps,
 * counts, ends of ranges and numbers that a host works with are certain.
 */
export function uncertainInputs(session: Session): UncertainInput[] {
  const list = new InputList(session)
  for (const strip of session.strips) list.strip(strip)
  list.room()
  return list.all()
}

type Open = Omit<UncertainInput, 'strips'> & { strips: string[] }

/** Figures that only matter with a switch in, or in one domain, are inputs there alone. */
class InputList {
  private readonly byPath = new Map<string, Open>()
  private readonly gear: ReadonlyMap<string, Gear>

  constructor(private readonly session: Session) {
    this.gear = gearById(session)
  }

  all = (): UncertainInput[] => [...this.byPath.values()]

  strip(strip: Strip): void {
    const stages = stagesOf(this.session, strip)
    for (const stage of stages) {
      this.box(strip, stage)
      this.settings(strip, stage)
    }
    this.delays(strip, stages)
  }

  room(): void {
    const sounding = this.session.strips.filter(({ stages }) => isSoundSource(this.gear.get(stages[0]?.gear ?? '')))
    const room = roomInForce(this.session.room)
    for (const field of ['ambient', 'temperature'] as const) {
      const value = room[field]
      const measurement = this.session.room.measured?.[field]
      if (value === undefined || sounding.length === 0) continue
      const doubt = inputSpread(this.session.room, field, roomFields[field])
      if (!doubt) continue
      const strips = sounding.map(({ id }) => id)
      const { label, unit } = roomFields[field]
      const { on, method } = measurement ?? {}
      const place = { in: 'room', field } as const
      const origin = measurement ? 'measured' : 'assumed'
      this.byPath.set(`room.${field}`, {
        path: `room.${field}`,
        place,
        label,
        owner: 'the room',
        unit,
        value,
        origin,
        on,
        method,
        doubt,
        strips,
      })
    }
  }

  /** The figures of a stage’s box, or of the port where it stands. */
  private box(strip: Strip, stage: ResolvedStage): void {
    const { gear } = stage
    const { owner, table } = chainTraits(stage).figures(stage)
    this.figures(strip, gear, owner, table, chainTraits(stage).port(stage) ?? undefined, stage)
  }

  private figures(
    strip: Strip,
    gear: Gear,
    owner: Owner,
    table: FieldTable,
    port: Port | undefined,
    stage: ResolvedStage,
  ): void {
    const values = inForce(owner) as Record<string, number | undefined>
    // Pieces have levels of their own, which were measured.
    const isListed = isPlayback(gear) && hasPieces(gear)
    for (const [spec, field] of Object.entries(table)) {
      const value = values[spec]
      if (value === undefined || CERTAIN.has(spec)) continue
      if (spec === 'pad' && !stage.settings.pad) continue
      if (isListed && (spec === 'level' || spec === 'crest')) continue
      const doubt = inputSpread(owner, spec, field)
      if (!doubt) continue
      const at = port ? `gear.${gear.id}.${port.side}.${port.id}.${spec}` : `gear.${gear.id}.${spec}`
      const place: InputPlace = { in: 'gear', gear: gear.id, ...(port && { port }), spec }
      this.add(at, strip, () => ({ place, field, owner: gear.name, value, doubt, ...provenance(gear, owner, spec) }))
    }
  }

  private settings(strip: Strip, stage: ResolvedStage): void {
    const distance = chainTraits(stage).distance(stage)
    if (distance !== undefined)
      this.setting(strip, stage, 'distance', distance, usualTolerance('distance', settingFields.distance), 'assumed')
    const tolerance = chainTraits(stage).gainTolerance(stage)
    if (tolerance && 'gain' in stage) this.setting(strip, stage, 'gain', stage.gain, tolerance, 'printed')
    if (isDeskChannel(stage) && stage.settings.fader !== undefined && stage.settings.tap !== 'pre')
      this.setting(strip, stage, 'fader', stage.settings.fader, GAIN_TOLERANCE.fader, 'printed')
  }

  private setting(
    strip: Strip,
    stage: ResolvedStage,
    setting: 'distance' | 'gain' | 'fader',
    value: number,
    tolerance: Tolerance | null,
    usual: 'assumed' | 'printed',
  ): void {
    // A width of its own says that somebody measured it.
    const half = strip.stages.find(({ id }) => id === stage.id)?.tolerance?.[setting]
    const doubt = spreadFrom(half === undefined ? tolerance : { half, of: 'value' }, settingFields[setting])
    if (!doubt) return
    const origin = half === undefined ? usual : 'measured'
    const place = { in: 'strip', strip: strip.id, stage: stage.id, setting } as const
    const field = settingFields[setting]
    this.add(`strips.${strip.id}.${stage.id}.${setting}`, strip, () => ({
      place,
      field,
      owner: stage.gear.name,
      value,
      doubt,
      origin,
    }))
  }

  /** What the way to the ear takes: as printed, or as far as measured round trips tell. */
  private delays(strip: Strip, stages: readonly ResolvedStage[]): void {
    const found = routeInputs(this.session, strip, stages)
    if (!found) return
    const { unit, converter, system, monitor } = found.inputs
    for (const each of new Set([unit, ...(converter ? [converter] : [])]))
      for (const [spec, field] of Object.entries(latencySpecs)) {
        const value = each.latency?.[spec as keyof typeof latencySpecs]
        const doubt = inputSpread(each, spec, field)
        if (value === undefined || value === 0 || !doubt) continue
        const place = { in: 'latency', gear: each.id, spec } as const
        this.add(`gear.${each.id}.latency.${spec}`, strip, () => ({
          place,
          field,
          owner: each.name,
          value,
          doubt,
          ...provenance(each, each, spec),
        }))
      }
    if (monitor.speakerDistance) {
      const { speakerDistance: value } = monitor
      const doubt = spreadFrom(usualTolerance('distance', monitorFields.speakerDistance), monitorFields.speakerDistance)
      const place = { in: 'monitor', strip: strip.id } as const
      if (doubt)
        this.add(`strips.${strip.id}.monitor.speakerDistance`, strip, () => ({
          place,
          field: monitorFields.speakerDistance,
          owner: strip.name,
          value,
          doubt,
          origin: 'assumed',
        }))
    }
    const known = estimateRoundTrip(unit, system, system.sampleRate, system.bufferFrames)
    if (converter !== unit || known.source === 'model' || !known.u) return
    const law = known.source === 'fitted' ? 'normal' : 'rectangular'
    const doubt = { u: known.u, of: 'value', law } as const
    const place = { in: 'round-trips', strip: strip.id } as const
    this.add('system.roundTrips', strip, () => ({
      place,
      field: ROUND_TRIP,
      owner: unit.name,
      value: known.milliseconds,
      doubt,
      origin: 'measured',
    }))
  }

  private add(path: string, strip: Strip, make: () => Made): void {
    const known = this.byPath.get(path)
    if (known) {
      if (!known.strips.includes(strip.id)) known.strips.push(strip.id)
      return
    }
    const { field, ...rest } = make()
    const { label, unit } = field
    this.byPath.set(path, { path, label, unit, on: undefined, method: undefined, strips: [strip.id], ...rest })
  }
}

type Owner = Tolerant & { specs: object; measured?: object | undefined }
type Made = Pick<UncertainInput, 'place' | 'owner' | 'value' | 'doubt' | 'origin'> &
  Partial<Pick<UncertainInput, 'on' | 'method'>> & { field: Pick<NumberField, 'label' | 'unit'> }

const ROUND_TRIP = { label: 'Round trip', unit: 'ms' } as const

/** Part of what the other figures were stated for, not something that may be off. */
const CERTAIN: ReadonlySet<string> = new Set(['distance'])

function provenance(gear: Gear, owner: Tolerant, spec: string): Pick<UncertainInput, 'origin' | 'on' | 'method'> {
  const { on, method } =
    (owner.measured as Record<string, { on?: string; method?: string } | undefined> | undefined)?.[spec] ?? {}
  return { origin: originOf(gear.kind, owner, spec), on, method }
}
