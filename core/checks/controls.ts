import type { SettingChange } from '../edits'
import type { Db } from '../units'
import type { GainControl } from '../chain/gain-control'
import { isHeldAt } from '../chain/dynamics'
import type { StripView } from './view'

/** Everything that can be turned before a stage's output, and is not locked. */
export const turnable = (view: StripView, upTo: number): GainControl[] =>
  view.controls.filter((each) => !each.locked && indexOf(view, each) <= upTo)

export const indexOf = (view: StripView, control: Pick<GainControl, 'stage'>): number =>
  view.stages.findIndex((stage) => stage.id === control.stage)

/**
 * What one turns for the level where the target is read: the gains before it, the last one first – faders only where there
 * is no gain – behind everything whose own level is a choice, such as a compressor.
 */
export function levelControls(view: StripView): GainControl[] {
  const { place } = view
  if (!place) return []
  const held = view.stages.findLastIndex((_, i) => i <= place.index && isHeldAt(view.stages, view.points, i))
  const free = turnable(view, place.index).filter((each) => indexOf(view, each) >= held && !each.isSystemSlider)
  const analogue = free.filter((each) => each.domain === 'analogue')
  const candidates = analogue.length > 0 ? analogue : free
  const gains = candidates.filter((each) => !each.isFader)
  return (gains.length > 0 ? gains : candidates).reverse()
}

export const setting = (view: StripView, { stage, setting: name }: GainControl, to: Db): SettingChange => ({
  strip: view.strip.id,
  stage,
  setting: name,
  to,
})
