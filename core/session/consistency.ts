import type { Fault } from './fault'
import { formatPath } from './fault'
import type { AudioInterface, Gear, InterfaceInput } from './gear'
import { gear as gearSchema } from './gear'
import { inForce } from './field'
import { kindTraits } from './kind'
import type { Stage, Strip } from './session'
import { monitor, stage as stageSchema } from './session'
import { settingsOf } from './settings'
import { customTarget } from './target'

/**
 * Faults between the parts of a file: names that nothing bears, settings outside their gear's range, an order of
 * stages that no signal can take.
 *
 * It looks at every part that is well-formed by itself, so that one reading of a file with a mistyped number in one
 * place and a missing gear in another names both.
 */
export function consistencyFaults(raw: unknown): Fault[] {
  const root = record(raw)
  const gearItems = list(root.gear)
  const strips = list(root.strips)
  const shelf = new Map<string, Gear | null>()
  for (const item of gearItems) {
    const parsed = gearSchema.safeParse(item)
    const id = record(item).id
    if (typeof id === 'string' && !shelf.has(id)) shelf.set(id, parsed.success ? parsed.data : null)
  }
  return [
    ...duplicates(gearItems, ['gear']),
    ...gearItems.flatMap((item, i) => gearFaults(item, ['gear', i])),
    ...targetFaults(root.target),
    ...duplicates(strips, ['strips']),
    ...duplicateStages(strips),
    ...strips.flatMap((strip, i) => stripFaults(strip, shelf, ['strips', i])),
  ]
}

type Path = (string | number)[]

const record = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {}
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : [])
const fault = (path: Path, code: string, message: string): Fault => ({ path: formatPath(path), code, message })

function duplicates(items: unknown[], path: Path): Fault[] {
  const seen = new Set<unknown>()
  return items.flatMap((item, i) => {
    const id = record(item).id
    if (typeof id !== 'string') return []
    if (!seen.has(id)) {
      seen.add(id)
      return []
    }
    return [fault([...path, i, 'id'], 'duplicate-id', `The id "${id}" is used more than once here. Give each its own.`)]
  })
}

/** Stage ids are unique in the whole session: findings and plans name a stage by its id. */
function duplicateStages(strips: unknown[]): Fault[] {
  const seen = new Set<string>()
  return strips.flatMap((strip, s) => list(record(strip).stages).flatMap((stage, i) => {
    const id = record(stage).id
    if (typeof id !== 'string') return []
    if (!seen.has(id)) {
      seen.add(id)
      return []
    }
    return [fault(['strips', s, 'stages', i, 'id'], 'duplicate-id', `Another stage has the id "${id}". Stage ids are unique in a session.`)]
  }))
}

function gearFaults(raw: unknown, path: Path): Fault[] {
  const parsed = gearSchema.safeParse(raw)
  if (!parsed.success || parsed.data.kind !== 'interface') return []
  const unit = parsed.data
  return [
    ...duplicates(unit.inputs, [...path, 'inputs']),
    ...duplicates(unit.outputs, [...path, 'outputs']),
    ...unit.inputs.flatMap((input, i) => inputFaults(input, [...path, 'inputs', i])),
  ]
}

function inputFaults(input: InterfaceInput, path: Path): Fault[] {
  const specs = inForce(input)
  const found: Fault[] = []
  if (specs.gainMin > specs.gainMax) {
    found.push(fault([...path, 'specs', 'gainMax'], 'range', `The highest gain, ${specs.gainMax} dB, is below the lowest, ${specs.gainMin} dB. Exchange them.`))
  }
  if (input.type === 'mic' && specs.ein === undefined) {
    found.push(fault([...path, 'specs', 'ein'], 'missing', 'A microphone input needs its equivalent input noise in dBu. Give the printed one, or measure it.'))
  }
  input.knob?.forEach((mark, i) => {
    const before = input.knob?.[i - 1]
    if (before && mark.position <= before.position) {
      found.push(fault([...path, 'knob', i, 'position'], 'order', `Knob position ${mark.position} does not lie above ${before.position}. List the positions from fully down to fully up, each once.`))
    }
    if (before && mark.gain < before.gain) {
      found.push(fault([...path, 'knob', i, 'gain'], 'order', `The gain falls from ${before.gain} to ${mark.gain} dB while the knob turns up. Check the two readings.`))
    }
  })
  return found
}

function targetFaults(raw: unknown): Fault[] {
  const parsed = customTarget.safeParse(raw)
  if (!parsed.success || parsed.data.low < parsed.data.high) return []
  return [fault(['target', 'high'], 'range', `The window’s upper edge, ${parsed.data.high} dBFS, must lie above its lower edge, ${parsed.data.low} dBFS.`)]
}

type Shelf = ReadonlyMap<string, Gear | null>

function stripFaults(raw: unknown, shelf: Shelf, path: Path): Fault[] {
  const stages = list(record(raw).stages)
  const kinds = stages.map((stage) => shelf.get(String(record(stage).gear)) ?? null)
  return [
    ...stages.flatMap((stage, i) => stageFaults(stage, shelf, [...path, 'stages', i])),
    ...kinds.flatMap((gear, i) => orderFaults(gear, kinds, i, [...path, 'stages', i, 'gear'])),
    ...outputFaults(record(raw).monitor, kinds, [...path, 'monitor', 'output']),
  ]
}

/** A strip begins with a source, and each stage takes what the one before it gives. */
function orderFaults(gear: Gear | null, strip: (Gear | null)[], i: number, path: Path): Fault[] {
  if (!gear) return []
  const { takes, name } = kindTraits[gear.kind]
  if (i === 0) {
    return takes === null ? [] : [fault(path, 'order', `A strip begins with a source, and "${gear.name}" is ${name}. Put the source first.`)]
  }
  const before = strip[i - 1]
  if (!before || kindTraits[before.kind].gives === takes) return []
  if (takes === null) return [fault(path, 'order', `"${gear.name}" is a source: it can only stand first. Give it a strip of its own.`)]
  return [fault(path, 'order', `"${gear.name}" (${name}) takes ${WORDS[takes]}, but "${before.name}" before it gives ${WORDS[kindTraits[before.kind].gives]}. Put what is missing between them.`)]
}

const WORDS = { sound: 'sound', analogue: 'an analogue signal', digital: 'a digital signal' } as const

function outputFaults(raw: unknown, strip: (Gear | null)[], path: Path): Fault[] {
  const parsed = monitor.safeParse(raw ?? {})
  if (!parsed.success || parsed.data.output === undefined) return []
  const units = strip.filter((gear): gear is AudioInterface => gear?.kind === 'interface')
  if (units.length === 0 || units.some((unit) => unit.outputs.some((output) => output.id === parsed.data.output))) return []
  return [fault(path, 'no-such-output', `No interface of this strip has an output "${parsed.data.output}". Name one that it has, or leave it out.`)]
}

function stageFaults(raw: unknown, shelf: Shelf, path: Path): Fault[] {
  const named = record(raw).gear
  if (typeof named === 'string' && !shelf.has(named)) {
    return [fault([...path, 'gear'], 'no-such-gear', `No gear has the id "${named.slice(0, 64)}". Add it to "gear", or name one that is there.`)]
  }
  const parsed = stageSchema.safeParse(raw)
  const gear = typeof named === 'string' ? shelf.get(named) : undefined
  if (!parsed.success || !gear) return []
  const foreign = Object.keys(parsed.data.settings)
    .filter((key) => !(settingsOf[gear.kind] as readonly string[]).includes(key))
    .map((key) => fault([...path, 'settings', key], 'unknown-key', `A ${kindTraits[gear.kind].word} has no setting "${key}". Remove it.`))
  return [...foreign, ...(gear.kind === 'interface' ? portFaults(parsed.data, gear, path) : noPort(parsed.data, gear, path))]
}

function noPort(stage: Stage, gear: Gear, path: Path): Fault[] {
  if (stage.port === undefined) return []
  return [fault([...path, 'port'], 'no-such-port', `A ${kindTraits[gear.kind].word} has no ports. Remove "port".`)]
}

function portFaults(stage: Stage, unit: AudioInterface, path: Path): Fault[] {
  if (stage.port === undefined) {
    return [fault([...path, 'port'], 'missing', `"${unit.name}" has several inputs. Name one of ${unit.inputs.map((input) => `"${input.id}"`).slice(0, 12).join(', ')}.`)]
  }
  const input = unit.inputs.find((candidate) => candidate.id === stage.port)
  if (!input) {
    return [fault([...path, 'port'], 'no-such-port', `"${unit.name}" has no input "${stage.port}". Name one of ${unit.inputs.map((each) => `"${each.id}"`).slice(0, 12).join(', ')}.`)]
  }
  const specs = inForce(input)
  const { gain, phantom, pad } = stage.settings
  const found: Fault[] = []
  if (gain !== undefined && specs.gainMin <= specs.gainMax && (gain < specs.gainMin || gain > specs.gainMax)) {
    found.push(fault([...path, 'settings', 'gain'], 'out-of-range', `Gain ${gain} dB is outside the range of this input, ${specs.gainMin} to ${specs.gainMax} dB. Set one inside it, or correct the range.`))
  }
  if (phantom && !input.phantom) {
    found.push(fault([...path, 'settings', 'phantom'], 'not-available', 'This input cannot give phantom power. Switch it off here, or correct the input.'))
  }
  if (pad && specs.pad === 0) {
    found.push(fault([...path, 'settings', 'pad'], 'not-available', 'This input has no pad. Switch it off here, or give the pad’s loss.'))
  }
  return found
}

/** What a stage’s settings are where the file leaves them out. Only for a session without faults. */
export function completeStage(stage: Stage, gear: Gear): Stage {
  switch (gear.kind) {
    case 'sound-source':
      return { ...stage, settings: { distance: inForce(gear).distance, ...stage.settings } }
    case 'microphone':
      return stage
    case 'interface': {
      const input = gear.inputs.find((candidate) => candidate.id === stage.port)
      const lowest = input ? inForce(input).gainMin : undefined
      return { ...stage, settings: { gain: lowest, phantom: false, pad: false, ...stage.settings } }
    }
  }
}

export const completeStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => completeStage(stage, gear.get(stage.gear) as Gear)),
})
