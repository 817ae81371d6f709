<script setup lang="ts">
import { computed } from 'vue'
import type { Part } from '#core/explain/explanation'
import { originText } from '#core/model'
import { fieldOfInput, withInput } from '#core/uncertainty/edit-input'
import { formatDecimal, formatShort } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useSessionStore } from '~/stores/session'

/** One part of an explanation: a figure that leads on, or a value of the session, which can be changed where it is uncertain. */
const props = defineProps<{ part: Part; editable: boolean; largest: boolean }>()
const emit = defineEmits<{ into: [] }>()
const store = useSessionStore()

const digits = computed(() => (props.part.unit === 'ms' ? 2 : props.part.unit === 'm' ? 2 : 1))
const field = computed(() =>
  props.editable && props.part.place && store.session ? fieldOfInput(store.session, props.part.place) : null,
)
function commit(value: number | undefined) {
  const { place, name } = props.part
  return value === undefined || !place ? null : store.edit(name, (session) => withInput(session, place, value))
}
/** What it is known to: its own ±, or where it is from. */
const known = computed(() => {
  const { u, uUnit, unit, origin, on } = props.part
  const give = u ? `± ${formatShort(2 * u, u < 0.05 ? 3 : 1)} ${uUnit ?? unit}` : ''
  return [give, origin ? `${originText[origin]}${on ? ` ${on}` : ''}` : ''].filter(Boolean).join(', ')
})
</script>

<template>
  <li
    class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-line py-1"
    :class="{ 'bg-change-soft -mx-2 px-2': largest }"
    :data-part="part.name"
  >
    <span class="min-w-0">
      <button v-if="part.figure" type="button" class="action text-left" @click="emit('into')">{{ part.name }}</button>
      <template v-else>{{ part.name }}</template>
      <span v-if="largest" class="ml-1 text-xs font-semibold">known least</span>
      <span v-if="known" class="block text-xs text-muted">{{ known }}</span>
    </span>
    <span class="text-right whitespace-nowrap">
      <NumberInput v-if="field" :value="part.value" :field="field" :name="part.name" :commit="commit" />
      <template v-else
        ><span class="figure">{{ formatDecimal(part.value, digits) }}</span> {{ part.unit }}</template
      >
      <span v-if="part.adds !== null && Math.abs(part.adds - part.value) > 0.005" class="block text-xs text-muted">
        makes <span class="figure">{{ formatDecimal(part.adds, digits) }}</span> {{ part.unit === 'ms' ? 'ms' : 'dB' }}
      </span>
    </span>
    <span
      v-if="part.share !== undefined && part.share > 0.0005"
      class="col-span-2 flex items-center gap-2 text-xs text-muted"
      ><span class="h-[3px] bg-floor" :style="{ width: `${Math.max(1, 70 * part.share)}%` }" aria-hidden="true" />
      {{ formatDecimal(100 * part.share, part.share < 0.0995 ? 1 : 0) }} %</span
    >
  </li>
</template>
