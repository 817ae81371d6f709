import type { ResolvedStage } from '../../resolved/resolve'
import type { LineTraits, SourceTraits } from '../traits'
import { amplifierChain } from './power-amplifier'
import { deskChannelChain } from './desk-channel'
import { diBoxChain } from './di-box'
import { digitalInputChain } from './digital-input'
import { electricSourceChain } from './electric-source'
import { faderChain } from './fader'
import { inlinePreampChain } from './booster'
import { interfaceInputChain } from './interface-input'
import { interfaceOutputChain } from './interface-output'
import { linkChain } from './link'
import { loudspeakerChain } from './loudspeaker'
import { microphoneChain } from './microphone'
import { padChain } from './pad'
import { playbackChain } from './playback'
import { preampChain } from './preamp'
import { processorChain } from './processor'
import { soundSourceChain } from './sound-source'

type Kind = ResolvedStage['kind']
type StageOf<K extends Kind> = Extract<ResolvedStage, { kind: K }>
type SourceKind = 'sound-source' | 'electric-source' | 'playback'

/** What a strip begins with. */
export const sources = {
  'sound-source': soundSourceChain,
  'electric-source': electricSourceChain,
  'playback': playbackChain,
} satisfies { readonly [K in SourceKind]: SourceTraits<StageOf<K>> }

/** What stands behind. */
export const lines = {
  'microphone': microphoneChain,
  'pad': padChain,
  'di-box': diBoxChain,
  'booster': inlinePreampChain,
  'preamp': preampChain,
  'processor': processorChain,
  'desk-channel': deskChannelChain,
  'fader': faderChain,
  'link': linkChain,
  'interface': interfaceInputChain,
  'digital-input': digitalInputChain,
  'interface-output': interfaceOutputChain,
  'amplifier': amplifierChain,
  'loudspeaker': loudspeakerChain,
} satisfies { readonly [K in Exclude<Kind, SourceKind>]: LineTraits<StageOf<K>> }

export type SourceStage = StageOf<SourceKind>
export type LineStage = Exclude<ResolvedStage, SourceStage>

export const isSource = (stage: ResolvedStage): stage is SourceStage => stage.kind in sources

export const sourceTraits = (stage: SourceStage): SourceTraits<SourceStage> => sources[stage.kind]
export const lineTraits = (stage: LineStage): LineTraits<LineStage> => lines[stage.kind]

/** What all kinds have in common, sources or not. */
export const chainTraits = (stage: ResolvedStage): Omit<SourceTraits<ResolvedStage>, 'enter'> =>
  isSource(stage) ? sources[stage.kind] : lines[stage.kind]
