import type { Change } from '../../edits'
import type { Gear } from '../../gear'
import { isInterface, isProcessor } from '../../gear'
import type { SettingValue } from '../../model'
import type { Session } from '../../session'
import { applyChanges, editStrip } from '../../edits'
import { db } from '../../units'
import { applyFix } from '../../diagnosis/fix-change'
import type { FixChange } from '../../diagnosis/fix-change'
import { SessionView } from '../../diagnosis/view'
import type { DiagnosisView } from '../../diagnosis/view'

/** Puts a fault into a session; `null` where it makes no sense there. */
export type Plant = (view: DiagnosisView, random: () => number) => Session | null

export const set = (
  view: DiagnosisView,
  stage: string,
  setting: 'gain' | 'fader' | 'pad' | 'phantom' | 'distance' | 'angle' | 'cable',
  to: number | boolean,
): Change => ({ strip: view.strip.id, stage, setting, to: to as SettingValue })
export const changed = ({ session }: DiagnosisView, changes: readonly FixChange[]): Session | null =>
  changes.length === 0 ? null : applyFix(session, changes)
export const between = (random: () => number, low: number, high: number) => Math.round(low + (high - low) * random())

export const gains = ({ chain }: DiagnosisView) =>
  chain.controls.filter(({ isFader, isSystemSlider }) => !isFader && !isSystemSlider)

/** A gain of the strip turned as far as it takes to bring a point somewhere. */
export const turned = (view: DiagnosisView, i: number, by: number): Change[] => {
  const control = gains(view)[i]
  if (!control) return []
  const to = Math.min(control.range.gainMax, Math.max(control.range.gainMin, control.value + by))
  return to === control.value ? [] : [set(view, control.stage, control.setting, to)]
}

/** The strip with another port of its unit, where there is one of that type, made where there is not. */
export function intoInput(view: DiagnosisView, type: 'mic' | 'line' | 'instrument'): Session | null {
  const input = view.stages.findLast((stage) => isInterface(stage))
  if (!isInterface(input) || input.input.type === type) return null
  const from = input.input
  const other = {
    ...from,
    id: `other-${type}`,
    type,
    phantom: type === 'mic',
    specs: {
      ...from.specs,
      gainMin: 0,
      gainMax: type === 'mic' ? 60 : type === 'line' ? 20 : 40,
      fullScale: type === 'mic' ? 12 : type === 'line' ? 20 : 10,
      impedance: type === 'mic' ? 2000 : type === 'line' ? 10_000 : 1_000_000,
      ein: type === 'mic' ? -127 : undefined,
    },
  }
  const gear = view.session.gear.map((item) =>
    item.id === input.gear.id && isInterface(item) ? ({ ...item, inputs: [...item.inputs, other] } as Gear) : item,
  )
  return editStrip({ ...view.session, gear }, view.strip.id, (strip) => ({
    ...strip,
    stages: strip.stages.map((stage) =>
      stage.id === input.id
        ? { ...stage, port: other.id, settings: { ...stage.settings, gain: db(0), phantom: undefined } }
        : stage,
    ),
  }))
}

export const withSpecs = (session: Session, id: string, specs: object, part: object = {}): Session => ({
  ...session,
  gear: session.gear.map((item) =>
    item.id === id && 'specs' in item ? ({ ...item, ...part, specs: { ...item.specs, ...specs } } as Gear) : item,
  ),
})

/** Every analogue input of every unit with a pad that can be switched in. */
export const withPads = (session: Session): Session => ({
  ...session,
  gear: session.gear.map((item) =>
    isInterface(item)
      ? ({
          ...item,
          inputs: item.inputs.map((input) =>
            'specs' in input ? { ...input, specs: { ...input.specs, pad: PAD } } : input,
          ),
        } as Gear)
      : item,
  ),
})
const PAD = 20

export const system = (view: DiagnosisView, part: Partial<Session['system']>): Session => ({
  ...view.session,
  system: { ...view.session.system, ...part },
})
export const monitored = (view: DiagnosisView, part: object): Session | null =>
  view.monitor ? applyFix(view.session, [{ do: 'monitor', strip: view.strip.id, set: part }]) : null

export const processor = (view: DiagnosisView) => {
  const stage = view.stages.find((each) => isProcessor(each))
  return isProcessor(stage) ? stage : null
}
export const slider = (view: DiagnosisView, by: number) => {
  const own = view.chain.controls.find(({ isSystemSlider }) => isSystemSlider)
  return own ? changed(view, [set(view, own.stage, own.setting, by)]) : null
}
export const section = (view: DiagnosisView, index: number, block: object): Session | null => {
  const own = processor(view)
  if (!own) return null
  return {
    ...view.session,
    gear: view.session.gear.map((item) =>
      item.id === own.gear.id && isProcessor(item)
        ? ({
            ...item,
            blocks: item.blocks.map((each, i) => (i === index ? { ...each, on: true, ...block } : each)),
          } as Gear)
        : item,
    ),
  }
}

const fed = (view: DiagnosisView) => view.session.strips.filter(({ feeds }) => feeds?.some(({ to }) => to === 'room'))
/** Sends of so many microphones into the room, the others out, raised until the margin is gone. */
export function feedingBack(view: DiagnosisView, open: number, least: number): Session | null {
  const strips = fed(view)
  if (strips.length < open) return null
  for (let gain = -24; gain <= 12; gain += 3) {
    const session = applyChanges(
      view.session,
      strips.map(({ id }, i) => ({ do: 'feed', strip: id, to: 'room', set: { gain: db(i < open ? gain : -60) } })),
    )
    const margin = new SessionView(session).strips.find(({ strip }) => strip.id === 'room')?.evaluated.feedback?.margin
    if (margin !== null && margin !== undefined && margin < least) return session
  }
  return null
}
