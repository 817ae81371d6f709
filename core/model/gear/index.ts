import { z } from '../z'
import { amplifier, amplifierTraits } from './amplifier'
import { booster, boosterTraits } from './booster'
import { deskChannel, deskChannelTraits } from './desk-channel'
import { diBox, diBoxTraits } from './di-box'
import { electricSource, electricSourceTraits } from './electric-source'
import { fader, faderTraits } from './fader'
import { headphones, headphonesTraits } from './headphones'
import { audioInterface, interfaceTraits } from './interface'
import { link, linkTraits } from './link'
import { loudspeaker, loudspeakerTraits } from './loudspeaker'
import { microphone, microphoneTraits } from './microphone'
import { pad, padTraits } from './pad'
import { playback, playbackTraits } from './playback'
import { preamp, preampTraits } from './preamp'
import { processor, processorTraits } from './processor'
import { soundSource, soundSourceTraits } from './sound-source'
import type { GearTraits } from './traits'

/** Everything that a session can hold, told apart by `kind`. */
export const gear = z.discriminatedUnion('kind', [
  soundSource,
  electricSource,
  playback,
  microphone,
  pad,
  diBox,
  booster,
  preamp,
  processor,
  deskChannel,
  fader,
  link,
  audioInterface,
  amplifier,
  loudspeaker,
  headphones,
])
export type Gear = z.infer<typeof gear>
export type GearKind = Gear['kind']
export type GearOf<K extends GearKind> = Extract<Gear, { kind: K }>

/** What is to be known of every kind, in the order in which kinds are listed. */
export const kinds = {
  'sound-source': soundSourceTraits,
  'electric-source': electricSourceTraits,
  'playback': playbackTraits,
  'microphone': microphoneTraits,
  'pad': padTraits,
  'di-box': diBoxTraits,
  'booster': boosterTraits,
  'preamp': preampTraits,
  'processor': processorTraits,
  'desk-channel': deskChannelTraits,
  'fader': faderTraits,
  'link': linkTraits,
  'interface': interfaceTraits,
  'amplifier': amplifierTraits,
  'loudspeaker': loudspeakerTraits,
  'headphones': headphonesTraits,
} satisfies { readonly [K in GearKind]: GearTraits<GearOf<K>> }

export const gearKinds = Object.keys(kinds) as GearKind[]

/** The traits of a box's kind. */
export const traitsOf = (box: Gear): GearTraits<Gear> => kinds[box.kind]

export * from './amplifier'
export * from './booster'
export * from './common'
export * from './desk-channel'
export * from './di-box'
export * from './electric-source'
export * from './fader'
export * from './headphones'
export * from './interface'
export * from './knob'
export * from './link'
export * from './loudspeaker'
export * from './microphone'
export * from './pad'
export * from './playback'
export * from './preamp'
export * from './processor'
export * from './sound-source'
export * from './traits'
