import type { Component } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import { lateComponent } from '~/shared/ui/late-component'
import GearCard from './GearCard.vue'
import InputCard from './InputCard.vue'
import MicrophoneCard from './MicrophoneCard.vue'
import SourceCard from './SourceCard.vue'

/** The kinds of stage that have a card of their own; the others are told by their traits. */
const CARDS: Partial<Record<ResolvedStage['kind'], Component>> = {
  'sound-source': SourceCard,
  'microphone': MicrophoneCard,
  'interface': InputCard,
  'digital-input': lateComponent(() => import('./DigitalInputCard.vue')),
  'interface-output': lateComponent(() => import('./OutputCard.vue')),
}

export const cardOf = ({ kind }: ResolvedStage): Component => CARDS[kind] ?? GearCard
