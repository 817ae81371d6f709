import { z } from '../z'
import { booster } from './booster'
import { deskChannel } from './desk-channel'
import { diBox } from './di-box'
import { electricSource } from './electric-source'
import { fader } from './fader'
import { headphones } from './headphones'
import { audioInterface } from './interface'
import { link } from './link'
import { microphone } from './microphone'
import { pad } from './pad'
import { playback } from './playback'
import { preamp } from './preamp'
import { processor } from './processor'
import { soundSource } from './sound-source'

/** Everything that can stand in a strip, told apart by `kind`. */
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
  headphones,
])
export type Gear = z.infer<typeof gear>
export type GearKind = Gear['kind']
export type GearOf<K extends GearKind> = Extract<Gear, { kind: K }>

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
export * from './microphone'
export * from './pad'
export * from './playback'
export * from './preamp'
export * from './processor'
export * from './sound-source'
