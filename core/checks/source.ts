import { outputImpedance } from '../chain/impedance'
import { isElectricSource } from '../gear'
import { formatDecimal, formatShort } from '../units'
import { volumeLoss } from '../gear/electric-source/chain'
import { directivity } from '../gear/microphone/chain'
import type { Check } from './view'
import { microphones, perStage, NOTHING } from './view'

/** From here on a passive volume knob is worth a word, dB (common practice, no source). */
const KNOB_DOWN = 3

/** An instrument's own volume that is down: hiss that no gain behind it takes away. */
export const volumeDown = perStage((_, stage) => {
  if (!isElectricSource(stage) || stage.gear.output !== 'passive-pickup') return NOTHING
  const loss = volumeLoss(stage.specs)
  if (loss < KNOB_DOWN) return NOTHING
  const drives = stage.specs.volumePot
    ? `It drives the cable from ${formatDecimal((outputImpedance(stage, undefined) ?? 0) / 1000, 1)} kΩ, which costs treble.`
    : 'It also drives the cable from up to a quarter of the pot’s resistance, which costs treble.'
  return [
    {
      code: 'volume-down',
      severity: 'caution',
      stage: stage.id,
      message: `The own volume of “${stage.gear.name}” takes ${formatDecimal(loss, 1)} dB off before anything amplifies it: that much more hiss. ${drives}`,
      action: 'Turn it fully up and the gain behind it down.',
    },
  ]
})

/** Off the axis by this much it is worth a word, dB (common practice, no source). */
const TURNED_AWAY = 3

export const offAxis: Check = (view) => {
  const microphone = microphones(view)[0]
  const loss = microphone ? -(directivity(microphone)?.programme ?? 0) : 0
  if (!microphone || loss <= TURNED_AWAY) return []
  return [
    {
      code: 'off-axis',
      severity: 'note',
      stage: microphone.id,
      message: `At ${formatShort(microphone.settings.angle ?? 0, 0)}° off its axis “${microphone.gear.name}” takes ${formatDecimal(loss, 1)} dB less of the source, and the room as before.`,
      action: 'Turn its front to the source, unless the angle keeps something else out.',
    },
  ]
}
