<script setup lang="ts">
import { computed, nextTick, useId } from 'vue'
import type { NumberField } from '#core/model'
import { rangeInWords, readTypedNumber } from '#core/model'
import { formatShort } from '#core/units'
import { useTypedField } from '~/composables/use-typed-field'
import { inGesture } from '~/stores/gesture'
import { useSessionStore } from '~/stores/session'

/**
 * A number that is edited where it stands. Enter or leaving takes it, Esc gives the old one back, the arrow keys step.
 * A number that cannot be is refused in words, and the last good value stays.
 */
const props = defineProps<{
  value: number | undefined
  field: NumberField
  /** Takes the value, or says in words why not. */
  commit: (value: number | undefined) => string | null
  name?: string
  step?: number
  /** Its unit stands in the head of its column. */
  bare?: boolean
}>()

const id = useId()
const store = useSessionStore()
const kept = computed(() =>
  props.value === undefined ? 'It stays empty.' : `Kept ${formatShort(props.value, 4)} ${props.field.unit}.`,
)
const { typed, refusal, type, take, giveBack } = useTypedField((text) => {
  const read = readTypedNumber(props.field, text)
  return explained(read.ok ? props.commit(read.value) : read.message)
})
const shown = computed(() => typed.value ?? (props.value === undefined ? '' : formatShort(props.value, 4)))

const explained = (message: string | null) => message && `${message} ${kept.value}`

async function nudge(event: KeyboardEvent, direction: number) {
  event.preventDefault()
  take()
  await nextTick()
  // A key held down is one step of undo.
  if (!event.repeat) store.endGesture()
  const by = props.step || (props.field.whole ? 1 : 0.5)
  const next = Math.round(((props.value ?? props.field.min) + direction * by) * 1e6) / 1e6
  const inside = next >= props.field.min && next <= props.field.max
  refusal.value = explained(
    inside ? inGesture(`nudge ${id}`, () => props.commit(next)) : `The range is ${rangeInWords(props.field)}.`,
  )
}
</script>

<template>
  <span class="relative inline-flex items-baseline gap-1">
    <input
      :id="id"
      class="field-number figure -mt-[5px] border-b border-dotted border-rule bg-transparent px-0.5 pt-[5px] pb-px text-right hover:border-change focus:border-solid focus:border-change"
      :class="bare ? 'min-w-8' : 'min-w-12'"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      spellcheck="false"
      :aria-label="[name ?? field.label, field.unit].filter(Boolean).join(', ')"
      :aria-invalid="refusal !== null"
      :aria-describedby="refusal ? `${id}-why` : undefined"
      :title="`${field.help} ${rangeInWords(field)}`"
      :placeholder="field.optional ? 'none' : undefined"
      :value="shown"
      :data-typed="typed === null ? undefined : ''"
      :style="{ width: `${shown.length + 1.5}ch` }"
      @focus="($event.target as HTMLInputElement).select()"
      @input="type"
      @blur="take"
      @keydown.enter.prevent="take"
      @keydown.esc="giveBack"
      @keydown.up="nudge($event, 1)"
      @keydown.down="nudge($event, -1)"
    />
    <span v-if="!bare" class="unit-of text-muted whitespace-nowrap">{{ field.unit }}</span>
    <span v-if="refusal" :id="`${id}-why`" role="alert" class="refusal">{{ refusal }}</span>
  </span>
</template>

<style scoped>
.refusal {
  position: absolute;
  z-index: 30;
  top: calc(100% + 3px);
  right: 0;
  width: max-content;
  max-width: 15rem;
  padding: 0.3rem 0.5rem;
  background: var(--sheet);
  color: var(--ceiling);
  border: 1px solid var(--ceiling);
  text-align: left;
  font-size: 12px;
}
</style>
