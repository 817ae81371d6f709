import { z } from '../z'
import { audioInterface } from './interface'
import { microphone } from './microphone'
import { soundSource } from './sound-source'

/** Everything that can stand in a strip, told apart by `kind`. */
export const gear = z.discriminatedUnion('kind', [soundSource, microphone, audioInterface])
export type Gear = z.infer<typeof gear>
export type GearKind = Gear['kind']

export * from './interface'
export * from './microphone'
export * from './sound-source'
