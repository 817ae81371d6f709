import type { SettingChange } from './finding'
import type { Session } from './session'

/** The session with some settings changed; the rest of it is shared, not copied. Values are not checked here. */
export function applyChanges(session: Session, changes: readonly SettingChange[]): Session {
  return {
    ...session,
    strips: session.strips.map((strip) => {
      const own = changes.filter((change) => change.strip === strip.id)
      if (own.length === 0) return strip
      return {
        ...strip,
        stages: strip.stages.map((stage) => {
          const settings = own.filter((change) => change.stage === stage.id).map(({ setting, to }) => [setting, to])
          return settings.length === 0 ? stage : { ...stage, settings: { ...stage.settings, ...Object.fromEntries(settings) } }
        }),
      }
    }),
  }
}
