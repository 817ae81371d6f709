import type { ResolvedStage } from '../resolved/resolve'
import type { Tolerance } from '../model'
import { GAIN_TOLERANCE } from '../model'

/** How exactly a gain stands where it is said to: by steps, by measured marks, by eye; numbers in a host are exact. */
export function gainTolerance(stage: ResolvedStage): Tolerance | null {
  switch (stage.kind) {
    case 'interface':
    case 'preamp':
    case 'desk-channel': {
      const { gainMin, gainMax, gainStep } = stage.specs
      const knob = stage.kind === 'interface' ? stage.input.knob : stage.gear.knob
      if (gainMax === gainMin) return null
      return gainStep > 0 ? GAIN_TOLERANCE.steps : knob ? GAIN_TOLERANCE.marks : GAIN_TOLERANCE.knob
    }
    case 'processor':
      return stage.gear.domain === 'analogue' ? GAIN_TOLERANCE.fader : null
    case 'fader':
      return stage.gear.place === 'desk' ? GAIN_TOLERANCE.fader : null
    case 'amplifier':
    case 'loudspeaker':
      return stage.specs.gainMax > stage.specs.gainMin ? GAIN_TOLERANCE.fader : null
    default:
      return null
  }
}
