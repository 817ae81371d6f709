import type { GainControl } from '#core/chain/gain-control'
import type { ResolvedStage } from '#core/gear/stage'

const WORDS = { gain: 'Gain', fader: 'Fader' } as const

/** What a gain is called: by its gear too where a strip has several. */
export function controlName(
  control: Pick<GainControl, 'stage' | 'setting'>,
  howMany: number,
  stages: readonly ResolvedStage[],
): string {
  const word = WORDS[control.setting]
  return howMany <= 1 ? word : `${word} of ${stages.find((stage) => stage.id === control.stage)?.gear.name ?? ''}`
}
