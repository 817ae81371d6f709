<script setup lang="ts">
import { Plus } from '@lucide/vue'
import { computed } from 'vue'
import type { Feed } from '#core/model'
import { stripFields } from '#core/model'
import NumberInput from '~/shared/fields/NumberInput.vue'
import TapButton from '~/shared/fields/TapButton.vue'
import { turnedSend } from '~/composables/turned'
import { useSends } from '~/shared/sends/use-sends'
import TurnHandle from './TurnHandle.vue'

/**
 * How loud a strip goes into a bus, and whether before or after its fader: dragged, typed, begun or ended. It is told no more than it
 * shows, so that a gain that is turned leaves it alone: eight busses make hundreds of these.
 */
const props = defineProps<{
  strip: string
  name: string
  bus: string
  busName: string
  feed: Feed | null
  canBegin: boolean
}>()
const emit = defineEmits<{ begin: [] }>()
const sends = useSends()
/** Emptied, it is taken out. */
const FIELD = { ...stripFields.feed, optional: true, help: `${stripFields.feed.help} Empty: no send.` } as const
const set = (value: number | undefined) =>
  value === undefined ? sends.end(props.strip, props.bus) : sends.setGain(props.strip, props.bus)(value)
const label = computed(() => `Send of ${props.name} to ${props.busName}`)
</script>

<template>
  <span v-if="feed" class="flex flex-col items-end">
    <NumberInput :value="feed.gain" :field="FIELD" :name="label" :commit="set" bare />
    <span class="flex items-center gap-0.5"
      ><TapButton :tap="feed.tap" :name="label" @change="sends.setTap(strip, bus)($event)" />
      <TurnHandle :control="turnedSend(strip, feed)" :name="`${label}, drag`"
    /></span>
  </span>
  <button
    v-else-if="canBegin"
    type="button"
    class="icon-button text-muted"
    :aria-label="`Begin: ${label}`"
    @click="emit('begin')"
  >
    <Plus class="size-3.5" aria-hidden="true" />
  </button>
  <span v-else class="text-muted" :aria-label="`${name} cannot feed ${busName}`">–</span>
</template>
