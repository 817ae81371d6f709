import type { AnalogueInput, ResolvedInput } from '../gear'
import type { Change } from '../edits'
import type { Fix } from './finding'
import { analogueInput, isInterface } from '../gear'
import { inForce } from '../model'
import { db } from '../units'
import { freePorts } from './remedies'
import type { ResolvedStage } from '../gear/stage'
import { settableGain } from '../chain/settable-gain'
import { tried } from './trial'
import type { StripView } from './view'

/**
 * Moving to a free input of a type at the same unit, with its gain set to what the target wants there, and 48 V where it
 * was on and the other input has it.
 */
export const toPort = (view: StripView, stage: ResolvedStage, type: AnalogueInput['type'], action: string): Fix[] =>
  isInterface(stage) ? toPorts(view, stage, freePorts(view.session, stage.gear.id, type, stage.id), action) : []

/** The same for ports that were chosen otherwise. */
export const toPorts = (
  view: StripView,
  stage: ResolvedInput,
  ports: readonly string[],
  action: string,
  phantom: boolean = stage.phantom,
): Fix[] =>
  ports
    .slice(0, MOST_TRIED)
    .map((port) => ({ action: action.replace('{port}', port), changes: portChanges(view, stage, port, phantom) }))

/** Free inputs that are tried: of one unit they differ in little but the bank. */
const MOST_TRIED = 3

function portChanges(view: StripView, stage: ResolvedInput, port: string, phantom: boolean): Change[] {
  const strip = view.strip.id
  const input = analogueInput(stage.gear, port)
  if (!input) return []
  const moved: Change[] = [{ do: 'port', strip, stage: stage.id, port }]
  const on: Change[] = phantom && input.phantom ? [{ strip, stage: stage.id, setting: 'phantom', to: true }] : []
  const specs = inForce(input)
  const error = tried(view, moved)?.error ?? 0
  const gain = settableGain(specs, db(specs.gainMin - error)).gain
  return [...moved, ...on, { strip, stage: stage.id, setting: 'gain', to: gain }]
}
