<script setup lang="ts">
import { useId } from 'vue'
import { useTypedField } from '~/composables/use-typed-field'

/** A text that is edited where it stands: Enter or leaving takes it, Esc gives the old one back. */
const props = defineProps<{
  value: string
  label: string
  commit: (value: string) => string | null
  /** May be left empty. */
  optional?: boolean
}>()

const id = useId()
const { typed, refusal, type, take, giveBack } = useTypedField((typedText) => {
  const text = typedText.trim()
  if (text === props.value) return null
  return text === '' && !props.optional ? 'This needs a name. The old one stays.' : props.commit(text)
})
</script>

<template>
  <span class="relative inline-block min-w-0">
    <input
      class="-mt-1 min-h-6 w-full pt-1 min-w-0 truncate border-b border-transparent bg-transparent hover:border-dotted hover:border-rule focus:border-change"
      type="text"
      autocomplete="off"
      maxlength="200"
      :aria-label="label"
      :aria-invalid="refusal !== null"
      :aria-describedby="refusal ? id : undefined"
      :value="typed ?? value"
      :title="value"
      :data-typed="typed === null ? undefined : ''"
      @input="type"
      @blur="take"
      @keydown.enter.prevent="($event.target as HTMLInputElement).blur()"
      @keydown.esc="giveBack"
    />
    <span
      v-if="refusal"
      :id="id"
      role="alert"
      class="plate absolute top-full left-0 z-30 px-2 py-1 text-xs font-normal text-ceiling"
      >{{ refusal }}</span
    >
  </span>
</template>
