import type { Fault } from '../fault'
import type { AudioInterface, Gear } from '../../gear'
import { traitsOf, isHeadphones, isInterface } from '../../gear'
import type { Stage } from '../../model/strip'
import type { Parts } from './parts'
import type { Path } from './raw'
import { fault, list, record } from './raw'
import { capital } from '../../units'

/** The gear of a file by its id; `null` where it is there but faulty in itself. */
export type Boxes = ReadonlyMap<string, Gear | null>

/** Faults of one strip: gear and ports that are not there, settings outside their range, an impossible order. */
export function stripFaults(raw: unknown, boxes: Boxes, parts: Parts, path: Path): Fault[] {
  const stages = list(record(raw).stages)
  const begins = record(raw).kind === 'bus' ? 'bus' : 'channel'
  const placed: Placed[] = stages.map((stage) => ({
    gear: boxes.get(String(record(stage).gear)) ?? null,
    port: String(record(stage).port),
  }))
  return [
    ...stages.flatMap((stage, i) => stageFaults(stage, boxes, parts, [...path, 'stages', i])),
    ...placed.flatMap((at, i) =>
      orderFaults(at, placed[i - 1] ?? NOTHING, i === 0 ? begins : null, [...path, 'stages', i, 'gear']),
    ),
    ...headphonesFaults(record(raw).monitor, boxes, [...path, 'monitor', 'headphones']),
    ...outputFaults(
      parts.monitor(record(raw).monitor)?.output,
      placed.map(({ gear }) => gear),
      [...path, 'monitor', 'output'],
    ),
  ]
}

interface Placed {
  gear: Gear | null
  port: string
}
const NOTHING: Placed = { gear: null, port: '' }

/**
 * A channel begins with a source, a bus with a stage that is none, and each further stage takes what the one before it gives.
 * @param begins what the strip is, at its first stage
 */
function orderFaults(at: Placed, before: Placed, begins: 'channel' | 'bus' | null, path: Path): Fault[] {
  if (!at.gear) return []
  const traits = traitsOf(at.gear)
  const { takes } = traits.domains(at.gear, at.port)
  const { name } = traits.words
  if (!traits.inStrip)
    return [
      fault(
        path,
        'order',
        `“${at.gear.name}” (${name}) is for listening and cannot be in a strip. Name it in "monitor".`,
      ),
    ]
  if (begins === 'bus') {
    if (takes === 'analogue' || takes === 'digital') return []
    return [
      fault(
        path,
        'order',
        `A bus starts with the stage that sums its strips, and “${at.gear.name}” is ${name}. Begin with a fader, an input or the like.`,
      ),
    ]
  }
  if (begins === 'channel') {
    return takes === null
      ? []
      : [fault(path, 'order', `A strip starts with a source, and “${at.gear.name}” is ${name}. Put the source first.`)]
  }
  if (!before.gear) return []
  const { gives } = traitsOf(before.gear).domains(before.gear, before.port)
  if (gives === takes) return []
  if (takes === null)
    return [fault(path, 'order', `“${at.gear.name}” is a source: it can only be first. Give it a strip of its own.`)]
  return [
    fault(
      path,
      'order',
      `“${at.gear.name}” (${name}) takes ${WORDS[takes]}, but “${before.gear.name}” before it gives ${WORDS[gives]}. Put what is missing between them.`,
    ),
  ]
}

const WORDS = { sound: 'sound', analogue: 'an analogue signal', digital: 'a digital signal' } as const

function headphonesFaults(raw: unknown, boxes: Boxes, path: Path): Fault[] {
  const named = record(raw).headphones
  if (typeof named !== 'string' || !boxes.has(named)) {
    return typeof named === 'string'
      ? [
          fault(
            path,
            'no-such-gear',
            `No gear has the id "${named.slice(0, 64)}". Add the headphones to "gear", or leave this out.`,
          ),
        ]
      : []
  }
  const gear = boxes.get(named)
  return gear && !isHeadphones(gear)
    ? [
        fault(
          path,
          'no-such-gear',
          `“${gear.name}” is ${traitsOf(gear).words.name}, not headphones. Name headphones, or leave this out.`,
        ),
      ]
    : []
}

function outputFaults(named: string | undefined, strip: (Gear | null)[], path: Path): Fault[] {
  if (named === undefined) return []
  const units = strip.filter((gear): gear is AudioInterface => isInterface(gear))
  if (units.length === 0 || units.some((unit) => unit.outputs.some((output) => output.id === named))) return []
  return [
    fault(
      path,
      'no-such-output',
      `No interface of this strip has an output "${named}". Name one that it has, or leave it out.`,
    ),
  ]
}

function stageFaults(raw: unknown, boxes: Boxes, parts: Parts, path: Path): Fault[] {
  const named = record(raw).gear
  if (typeof named === 'string' && !boxes.has(named)) {
    return [
      fault(
        [...path, 'gear'],
        'no-such-gear',
        `No gear has the id "${named.slice(0, 64)}". Add it to "gear", or name one that is there.`,
      ),
    ]
  }
  const stage = parts.stage(raw)
  const gear = typeof named === 'string' ? boxes.get(named) : undefined
  if (!stage || !gear) return []
  const own: readonly string[] = traitsOf(gear).settings(gear, stage.port)
  const foreign = Object.keys(stage.settings)
    .filter((key) => !own.includes(key))
    .map((key) =>
      fault(
        [...path, 'settings', key],
        'unknown-key',
        `${capital(traitsOf(gear).words.name)} has no setting "${key}". Remove it.`,
      ),
    )
  return [
    ...foreign,
    ...portFaults(stage, gear, path),
    ...gainFaults(stage, gear, path),
    ...switchFaults(stage, gear, path),
  ]
}

function portFaults(stage: Stage, gear: Gear, path: Path): Fault[] {
  if (!isInterface(gear)) {
    return stage.port === undefined
      ? []
      : [fault([...path, 'port'], 'no-such-port', `${capital(traitsOf(gear).words.name)} has no ports. Remove "port".`)]
  }
  const ports = [...gear.inputs, ...gear.outputs]
    .map((each) => `"${each.id}"`)
    .slice(0, 12)
    .join(', ')
  if (stage.port === undefined)
    return [fault([...path, 'port'], 'missing', `“${gear.name}” has several inputs. Name one of ${ports}.`)]
  if ([...gear.inputs, ...gear.outputs].some((each) => each.id === stage.port)) return []
  return [
    fault(
      [...path, 'port'],
      'no-such-port',
      `“${gear.name}” has no input or output "${stage.port}". Name one of ${ports}.`,
    ),
  ]
}

function gainFaults({ settings, port }: Stage, gear: Gear, path: Path): Fault[] {
  return (['gain', 'fader'] as const).flatMap((setting) => {
    const value = settings[setting]
    const range = traitsOf(gear).gainRange(gear, port, setting)
    if (value === undefined || range === null || range.gainMin > range.gainMax) return []
    if (value >= range.gainMin && value <= range.gainMax) return []
    return [
      fault(
        [...path, 'settings', setting],
        'out-of-range',
        `${capital(setting)} ${value} dB is outside the range of ${isInterface(gear) ? 'this input' : `“${gear.name}”`}, ${range.gainMin} to ${range.gainMax} dB. Set one inside it, or correct the range.`,
      ),
    ]
  })
}

const MISSING = {
  phantom: 'This input cannot give phantom power. Switch it off here, or correct the input.',
  pad: 'This input has no pad. Switch it off here, or give the pad’s loss.',
  lowCut: 'This has no low cut. Switch it off here, or give the corner frequency.',
} as const

function switchFaults({ settings, port }: Stage, gear: Gear, path: Path): Fault[] {
  const traits = traitsOf(gear)
  return (['phantom', 'pad', 'lowCut'] as const)
    .filter(
      (setting) =>
        settings[setting] && traits.settings(gear, port).includes(setting) && !traits.hasSwitch(gear, port, setting),
    )
    .map((setting) => fault([...path, 'settings', setting], 'not-available', MISSING[setting]))
}
