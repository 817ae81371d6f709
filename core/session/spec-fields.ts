import type { FieldTable } from './field'
import type { GearKind } from './gear'
import {
  boosterSpecs,
  deskChannelSpecs,
  diBoxSpecs,
  electricSourceSpecs,
  faderSpecs,
  headphonesSpecs,
  linkSpecs,
  microphoneSpecs,
  padSpecs,
  playbackSpecs,
  preampSpecs,
  processorSpecs,
  soundSourceSpecs,
} from './gear'

/** The specification fields of every kind; an interface has its own for every port. */
export const specFields: Readonly<Record<Exclude<GearKind, 'interface'>, FieldTable>> = {
  'sound-source': soundSourceSpecs,
  'electric-source': electricSourceSpecs,
  'playback': playbackSpecs,
  'microphone': microphoneSpecs,
  'pad': padSpecs,
  'di-box': diBoxSpecs,
  'booster': boosterSpecs,
  'preamp': preampSpecs,
  'processor': processorSpecs,
  'desk-channel': deskChannelSpecs,
  'fader': faderSpecs,
  'link': linkSpecs,
  'headphones': headphonesSpecs,
}
