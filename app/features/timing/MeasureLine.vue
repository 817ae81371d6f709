<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { NumberField } from '#core/model'
import { bufferFramesField, readTypedNumber, sampleRateField, timingFields } from '#core/model'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'

/** Entering a measurement, in one line; what cannot be is refused at the line, and nothing typed is lost. */
const store = useSessionStore()
const timing = useTimingStore()
const edit = useSystemEdit()

const kinds = {
  roundTrips: { text: 'Round trip, by loopback', fields: { milliseconds: timingFields.milliseconds } },
  reported: { text: 'Driver reports', fields: { inMs: timingFields.inMs, outMs: timingFields.outMs } },
  loads: { text: 'Load meter reads', fields: { percent: timingFields.percent } },
  trials: { text: 'Tried', fields: { minutes: timingFields.minutes, dropouts: timingFields.dropouts } },
} as const
type Kind = keyof typeof kinds

const kind = ref<Kind>('roundTrips')
const typed = reactive<Record<string, string>>({})
const refusal = ref<string | null>(null)
const fields = computed(
  () =>
    Object.entries({ sampleRate: sampleRateField, bufferFrames: bufferFramesField, ...kinds[kind.value].fields }) as [
      string,
      NumberField,
    ][],
)
const shown = (key: string) =>
  typed[key] ??
  (key === 'sampleRate'
    ? String(store.session?.system.sampleRate ?? '')
    : key === 'bufferFrames'
      ? String(store.session?.system.bufferFrames ?? '')
      : '')

function type(key: string, event: Event) {
  typed[key] = (event.target as HTMLInputElement).value
  refusal.value = null
}
function add() {
  const item: Record<string, number | string> =
    kind.value === 'roundTrips' && timing.unit ? { unit: timing.unit.id } : {}
  for (const [key, field] of fields.value) {
    const read = readTypedNumber(field, shown(key))
    if (!read.ok) {
      refusal.value = `${field.label}: ${read.message}`
      return
    }
    if (read.value !== undefined) item[key] = read.value
  }
  refusal.value = edit.add(kinds[kind.value].text, kind.value, item)
  if (refusal.value === null)
    for (const key of Object.keys(kinds[kind.value].fields)) Reflect.deleteProperty(typed, key)
}
</script>

<template>
  <form class="flex flex-wrap items-end gap-2" aria-label="Enter a measurement" @submit.prevent="add">
    <select v-model="kind" class="border-b border-dotted border-rule bg-sheet py-0.5" aria-label="What was measured">
      <option v-for="(each, key) in kinds" :key="key" :value="key">{{ each.text }}</option>
    </select>
    <label v-for="[key, field] in fields" :key="key" class="text-xs text-muted"
      >{{ field.label }}, {{ field.unit }}
      <input
        class="figure block w-20 border-b border-dotted border-rule bg-sheet px-1 py-0.5 text-right text-[13px] text-ink"
        inputmode="decimal"
        autocomplete="off"
        :title="field.help"
        :value="shown(key)"
        :aria-label="`${field.label}, ${field.unit}`"
        @input="type(key, $event)"
      />
    </label>
    <button type="submit" class="push">Add</button>
    <p v-if="refusal" role="alert" class="w-full text-ceiling">{{ refusal }} What you typed is still there.</p>
  </form>
</template>
