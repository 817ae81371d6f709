import type { Fault } from '../fault'
import { inForce } from '../field'
import type { AudioInterface, Gear } from '../gear'
import { kindTraits } from '../kind'
import type { Stage } from '../session'
import { monitor, stage as stageSchema } from '../session'
import { settingsOf } from '../settings'
import type { Path } from './raw'
import { fault, list, record } from './raw'

/** The gear of a file by its id; `null` where it is there but faulty in itself. */
export type Shelf = ReadonlyMap<string, Gear | null>

/** Faults of one strip: gear and ports that are not there, settings outside their range, an impossible order. */
export function stripFaults(raw: unknown, shelf: Shelf, path: Path): Fault[] {
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
