import type { Gear } from '../gear'
import { traitsOf } from '../gear'
import { formatShort } from '../units'
import type { Session } from '../session/session'
import type { Settings } from '../model/settings'
import type { Stage } from '../model/strip'

/**
 * After a box was changed: settings that it no longer has room for go to the nearest that it has, and switches that it lost go off.
 * @returns what was moved, in words; nothing where everything still fits
 */
export function settleSettings(session: Session): { session: Session; moved: string[] } {
  const boxes = new Map(session.gear.map((item) => [item.id, item]))
  const moved: string[] = []
  const strips = session.strips.map((strip) => {
    const stages = strip.stages.map((stage) => {
      const box = boxes.get(stage.gear)
      const settings = box && settled(stage, box, (words) => moved.push(`${words} in “${strip.name}”`))
      return settings ? { ...stage, settings } : stage
    })
    return stages.every((stage, i) => stage === strip.stages[i]) ? strip : { ...strip, stages }
  })
  return moved.length === 0 ? { session, moved } : { session: { ...session, strips }, moved }
}

const WORDS = { gain: 'Gain', fader: 'Fader', phantom: '48 V', pad: 'Pad', lowCut: 'Low cut' } as const

/** The settings of a stage as far as its box goes; `null` where they are all right. */
function settled(stage: Stage, box: Gear, tell: (words: string) => void): Settings | null {
  const traits = traitsOf(box)
  const changed: Record<string, number | boolean> = {}
  for (const setting of ['gain', 'fader'] as const) {
    const range = traits.gainRange(box, stage.port, setting)
    const now = stage.settings[setting]
    if (!range || now === undefined || range.gainMax < range.gainMin) continue
    const to = Math.min(range.gainMax, Math.max(range.gainMin, now))
    if (to === now) continue
    changed[setting] = to
    tell(`${WORDS[setting]} of “${box.name}” moved from ${formatShort(now, 1)} to ${formatShort(to, 1)} dB`)
  }
  for (const setting of ['phantom', 'pad', 'lowCut'] as const) {
    if (stage.settings[setting] !== true || traits.hasSwitch(box, stage.port, setting)) continue
    changed[setting] = false
    tell(`${WORDS[setting]} of “${box.name}” switched off`)
  }
  return Object.keys(changed).length > 0 ? ({ ...stage.settings, ...changed } as Settings) : null
}
