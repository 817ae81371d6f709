<script setup lang="ts">
import { ref, useId } from 'vue'

/** A text that is edited where it stands: Enter or leaving takes it, Esc gives the old one back. */
const props = defineProps<{
  value: string
  label: string
  commit: (value: string) => string | null
  /** May be left empty. */
  optional?: boolean
}>()

const id = useId()
const typed = ref<string | null>(null)
const refusal = ref<string | null>(null)

function take() {
  if (typed.value === null) return
  const text = typed.value.trim()
  refusal.value = text === props.value ? null : text === '' && !props.optional ? 'This needs a name. The old one stays.' : props.commit(text)
  typed.value = null
}

function giveBack(event: KeyboardEvent) {
  if (typed.value === null && refusal.value === null) return
  event.stopPropagation()
  typed.value = null
  refusal.value = null
}
</script>

<template>
  <span class="relative inline-block min-w-0">
    <input
      class="w-full min-w-0 truncate border-b border-transparent bg-transparent hover:border-dotted hover:border-rule focus:border-change"
      type="text" autocomplete="off" maxlength="200"
      :aria-label="label" :aria-invalid="refusal !== null" :aria-describedby="refusal ? id : undefined"
      :value="typed ?? value"
      @input="typed = ($event.target as HTMLInputElement).value; refusal = null"
      @blur="take" @keydown.enter.prevent="($event.target as HTMLInputElement).blur()" @keydown.esc="giveBack"
    >
    <span v-if="refusal" :id="id" role="alert" class="plate absolute top-full left-0 z-30 px-2 py-1 text-xs font-normal text-ceiling">{{ refusal }}</span>
  </span>
</template>
