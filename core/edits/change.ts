import type { Gear } from '../gear'
import { traitsOf } from '../gear'
import type { Session } from '../session/session'
import type { SettingName, SettingValue } from '../model/settings'
import type { StructureChange } from './structure-change'
import { applyStructure } from './structure-change'

/** A change of one setting of one stage. */
export interface SettingChange {
  strip: string
  stage: string
  setting: SettingName
  to: SettingValue
}

export type Change = SettingChange | StructureChange

export const isStructure = (change: Change): change is StructureChange => 'do' in change

/**
 * The session with some things changed as a hand changes them; the rest of it is shared, not copied. Values are not
 * checked here. The strips of a stereo pair are set alike: a setting of the one is a setting of the other's stage at the
 * same place, as far as that has it.
 */
export function applyChanges(session: Session, changes: readonly Change[]): Session {
  const settings = changes.filter((change): change is SettingChange => !isStructure(change))
  const structured = changes.filter(isStructure).reduce(applyStructure, session)
  return applySettings(structured, [...settings, ...mirrored(structured, settings)])
}

/** The session with just these settings changed, and no partner's with them. */
export function applySettings(session: Session, changes: readonly SettingChange[]): Session {
  if (changes.length === 0) return session
  return {
    ...session,
    strips: session.strips.map((strip) => {
      const own = changes.filter((change) => change.strip === strip.id)
      if (own.length === 0) return strip
      return {
        ...strip,
        stages: strip.stages.map((stage) => {
          const settings = own.filter((change) => change.stage === stage.id).map(({ setting, to }) => [setting, to])
          return settings.length === 0
            ? stage
            : { ...stage, settings: { ...stage.settings, ...Object.fromEntries(settings) } }
        }),
      }
    }),
  }
}

/** The partner of a strip in a stereo pair. */
export function partnerOf(session: Session, stripId: string): string | null {
  const pair = session.pairs?.find((each) => each.left === stripId || each.right === stripId)
  return pair ? (pair.left === stripId ? pair.right : pair.left) : null
}

/** What a pair's partner is set to by the same hands: a gain that it does not reach stops at the end of its range. */
function mirrored(session: Session, changes: readonly SettingChange[]): SettingChange[] {
  if (!session.pairs) return []
  const boxes = new Map(session.gear.map((item) => [item.id, item]))
  return changes.flatMap((change) => {
    const partner = session.strips.find((strip) => strip.id === partnerOf(session, change.strip))
    const stages = session.strips.find((strip) => strip.id === change.strip)?.stages ?? []
    const twin = partner?.stages[stages.findIndex((stage) => stage.id === change.stage)]
    const box = twin && boxes.get(twin.gear)
    if (!partner || !twin || !box || !traitsOf(box).settings(box, twin.port).includes(change.setting)) return []
    if (changes.some((each) => each.stage === twin.id && each.setting === change.setting)) return []
    const to = within(box, twin.port, change)
    return to === null ? [] : [{ ...change, strip: partner.id, stage: twin.id, to }]
  })
}

/** The value as far as a box can take it; `null` for a switch that it lacks. */
function within(box: Gear, port: string | undefined, { setting, to }: SettingChange): SettingValue | null {
  const traits = traitsOf(box)
  if (setting === 'gain' || setting === 'fader') {
    const range = traits.gainRange(box, port, setting)
    return range && (Math.min(range.gainMax, Math.max(range.gainMin, Number(to))) as SettingValue)
  }
  if (to === true && (setting === 'phantom' || setting === 'pad' || setting === 'lowCut')) {
    return traits.hasSwitch(box, port, setting) ? to : null
  }
  return to
}
