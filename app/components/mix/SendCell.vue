<script setup lang="ts">
import { Plus } from '@lucide/vue'
import { computed } from 'vue'
import type { Strip } from '#core/model'
import { feedsOf, stripFields } from '#core/model'
import NumberInput from '~/components/fields/NumberInput.vue'
import TapButton from '~/components/fields/TapButton.vue'
import { turnedSend } from '~/composables/turned'
import { useSends } from '~/composables/use-sends'
import TurnHandle from './TurnHandle.vue'

/** How loud a strip goes into a bus, and whether before or after its fader: dragged, typed, begun or ended. */
const props = defineProps<{ strip: Strip; bus: Strip }>()
const sends = useSends()
const feed = computed(() => feedsOf(props.strip).find(({ to }) => to === props.bus.id) ?? null)
/** Emptied, it is taken out. */
const FIELD = { ...stripFields.feed, optional: true, help: `${stripFields.feed.help} Empty: no send.` } as const
const set = (value: number | undefined) =>
  value === undefined ? sends.end(props.strip.id, props.bus.id) : sends.setGain(props.strip.id, props.bus.id)(value)
const canBegin = computed(() => sends.open(props.strip).some(({ id }) => id === props.bus.id))
const name = computed(() => `Send of ${props.strip.name} to ${props.bus.name}`)
</script>

<template>
  <span v-if="feed" class="flex flex-col items-end">
    <NumberInput :value="feed.gain" :field="FIELD" :name="name" :commit="set" bare />
    <span class="flex items-center gap-0.5"
      ><TapButton :tap="feed.tap" :name="name" @change="sends.setTap(strip.id, bus.id)($event)" />
      <TurnHandle :control="turnedSend(strip.id, feed)" :name="`${name}, drag`"
    /></span>
  </span>
  <button
    v-else-if="canBegin"
    type="button"
    class="icon-button text-muted"
    :aria-label="`Begin: ${name}`"
    @click="sends.begin(strip, bus)"
  >
    <Plus class="size-3.5" aria-hidden="true" />
  </button>
  <span v-else class="text-muted" :aria-label="`${strip.name} cannot feed ${bus.name}`">–</span>
</template>
