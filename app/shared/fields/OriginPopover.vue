<script setup lang="ts">
import { computed } from 'vue'
import { originText } from '#core/model'
import { lateComponent } from '~/shared/ui/late-component'
import PopUp from '~/shared/ui/PopUp.vue'
import type { KnownOfValue } from './known-of-value'

const OriginPanel = lateComponent(() => import('./OriginPanel.vue'))

/** Where a value is from, in a word; pressed, all that is known of it. */
const props = defineProps<KnownOfValue>()
const shown = computed(() => (props.printed === undefined && !props.measured ? 'not set' : originText[props.origin]))
</script>

<template>
  <PopUp
    class="w-14.5"
    :label="`${shown}: where ${name} is from`"
    :button-class="`-my-1 min-h-6 py-1 text-left text-xs underline decoration-dotted underline-offset-2 ${measured ? 'text-change' : 'text-muted'}`"
    panel-class="w-72 p-3"
  >
    <template #button>{{ shown }}</template>
    <OriginPanel v-bind="props" />
  </PopUp>
</template>
