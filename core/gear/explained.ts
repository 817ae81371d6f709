import type { ExplainedTraits } from './explained-traits'
import type { ResolvedStage } from './stage'
import { soundSourceExplained } from './sound-source/explained'
import { electricSourceExplained } from './electric-source/explained'
import { playbackExplained } from './playback/explained'
import { microphoneExplained } from './microphone/explained'
import { padExplained } from './pad/explained'
import { diBoxExplained } from './di-box/explained'
import { inlinePreampExplained } from './booster/explained'
import { preampExplained } from './preamp/explained'
import { processorExplained } from './processor/explained'
import { deskChannelExplained } from './desk-channel/explained'
import { faderExplained } from './fader/explained'
import { linkExplained } from './link/explained'
import { amplifierExplained } from './amplifier/explained'
import { loudspeakerExplained } from './loudspeaker/explained'
import { interfaceInputExplained, digitalInputExplained, interfaceOutputExplained } from './interface/explained'

type Kind = ResolvedStage['kind']

/** How the figures of every kind of stage are explained: a table apart, since it is asked for only when somebody looks. */
const explained = {
  'sound-source': soundSourceExplained,
  'electric-source': electricSourceExplained,
  'playback': playbackExplained,
  'microphone': microphoneExplained,
  'pad': padExplained,
  'di-box': diBoxExplained,
  'booster': inlinePreampExplained,
  'preamp': preampExplained,
  'processor': processorExplained,
  'desk-channel': deskChannelExplained,
  'fader': faderExplained,
  'link': linkExplained,
  'amplifier': amplifierExplained,
  'loudspeaker': loudspeakerExplained,
  'interface': interfaceInputExplained,
  'digital-input': digitalInputExplained,
  'interface-output': interfaceOutputExplained,
} satisfies { readonly [K in Kind]: ExplainedTraits<Extract<ResolvedStage, { kind: K }>> }

export const explainedTraits = (stage: ResolvedStage): ExplainedTraits<ResolvedStage> => explained[stage.kind]
