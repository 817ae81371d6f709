<script setup lang="ts">
import { X } from '@lucide/vue'
import { computed } from 'vue'
import { stripFields } from '#core/model'
import NumberInput from '~/shared/fields/NumberInput.vue'
import TapButton from '~/shared/fields/TapButton.vue'
import { turnedSend } from '~/composables/turned'
import type { Send } from './use-sends'
import { useSends } from './use-sends'
import { useViewStore } from '~/stores/view'
import GainScale from '~/shared/fields/GainScale.vue'

/** A send: the strip at its other end, its level, before or after the fader, and the way out of it. */
const props = defineProps<{ send: Send; shows: 'strip' | 'bus'; narrow?: boolean }>()
const sends = useSends()
const view = useViewStore()
const other = computed(() => (props.shows === 'strip' ? props.send.strip : props.send.bus))
const name = computed(() => `Send of ${props.send.strip.name} to ${props.send.bus.name}`)
</script>

<template>
  <div :data-send="`${send.strip.id} ${send.bus.id}`">
    <p class="flex flex-wrap items-baseline gap-x-1.5">
      <button
        type="button"
        class="min-w-0 flex-1 basis-16 truncate py-0.5 text-left underline decoration-dotted"
        :title="`Show ${other.name}`"
        @click="view.select(other.id)"
      >
        {{ other.name }}
      </button>
      <TapButton :tap="send.feed.tap" :name="name" @change="sends.setTap(send.strip.id, send.bus.id)($event)" />
      <NumberInput
        :value="send.feed.gain"
        :field="stripFields.feed"
        :name="name"
        :commit="sends.setGain(send.strip.id, send.bus.id)"
      />
      <button
        type="button"
        class="icon-button self-center text-muted"
        :aria-label="`Take out: ${name}`"
        title="Take out"
        @click="sends.end(send.strip.id, send.bus.id)"
      >
        <X class="size-3" aria-hidden="true" />
      </button>
    </p>
    <GainScale v-if="!narrow" :control="turnedSend(send.strip.id, send.feed)" :planned="null" :name="name" bare />
  </div>
</template>
