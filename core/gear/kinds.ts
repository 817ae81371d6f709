import { z } from '../model/z'
import { amplifier, amplifierTraits } from './amplifier/amplifier'
import { booster, boosterTraits } from './booster/booster'
import { deskChannel, deskChannelTraits } from './desk-channel/desk-channel'
import { diBox, diBoxTraits } from './di-box/di-box'
import { electricSource, electricSourceTraits } from './electric-source/electric-source'
import { fader, faderTraits } from './fader/fader'
import { headphones, headphonesTraits } from './headphones/headphones'
import { audioInterface, interfaceTraits } from './interface/interface'
import { link, linkTraits } from './link/link'
import { loudspeaker, loudspeakerTraits } from './loudspeaker/loudspeaker'
import { microphone, microphoneTraits } from './microphone/microphone'
import { pad, padTraits } from './pad/pad'
import { playback, playbackTraits } from './playback/playback'
import { preamp, preampTraits } from './preamp/preamp'
import { processor, processorTraits } from './processor/processor'
import { soundSource, soundSourceTraits } from './sound-source/sound-source'
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

/** Whether it is what a strip begins with. */
export const isSourceGear = (box: Gear): boolean => traitsOf(box).performance.size > 0
