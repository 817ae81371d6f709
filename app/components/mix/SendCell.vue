<script setup lang="ts">
import { Plus, X } from '@lucide/vue'
import { computed } from 'vue'
import type { Strip } from '#core/session'
import { feedsOf, stripFields } from '#core/session'
import NumberInput from '~/components/fields/NumberInput.vue'
import { turnedSend } from '~/composables/turned'
import { useSends } from '~/composables/use-sends'
import TurnHandle from './TurnHandle.vue'

/** How loud a strip goes into a bus: dragged, typed, begun or ended. */
const props = defineProps<{ strip: Strip; bus: Strip }>()
const sends = useSends()
const feed = computed(() => feedsOf(props.strip).find(({ to }) => to === props.bus.id) ?? null)
const canBegin = computed(() => sends.open(props.strip).some(({ id }) => id === props.bus.id))
const name = computed(() => `Send of ${props.strip.name} to ${props.bus.name}`)
</script>

<template>
  <span v-if="feed" class="flex items-center justify-end gap-0.5">
    <NumberInput :value="feed.gain" :field="stripFields.feed" :name="name" :commit="sends.setGain(strip.id, bus.id)" />
    <TurnHandle :control="turnedSend(strip.id, feed)" :name="`${name}, drag`" />
    <button
      type="button"
      class="icon-button text-muted"
      :aria-label="`Take out: ${name}`"
      :title="feed.tap === 'pre' ? 'Before the fader. Take out' : 'Take out'"
      @click="sends.end(strip.id, bus.id)"
    >
      <X class="size-3" aria-hidden="true" />
    </button>
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
