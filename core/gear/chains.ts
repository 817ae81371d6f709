import type { ResolvedStage } from './stage'
import type { LineTraits, SourceTraits } from './chain-traits'
import { amplifierChain } from './amplifier/chain'
import { deskChannelChain } from './desk-channel/chain'
import { diBoxChain } from './di-box/chain'
import { digitalInputChain } from './interface/digital-chain'
import { electricSourceChain } from './electric-source/chain'
import { faderChain } from './fader/chain'
import { inlinePreampChain } from './booster/chain'
import { interfaceInputChain } from './interface/input-chain'
import { interfaceOutputChain } from './interface/output-chain'
import { linkChain } from './link/chain'
import { loudspeakerChain } from './loudspeaker/chain'
import { microphoneChain } from './microphone/chain'
import { padChain } from './pad/chain'
import { playbackChain } from './playback/chain'
import { preampChain } from './preamp/chain'
import { processorChain } from './processor/chain'
import { soundSourceChain } from './sound-source/chain'

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
