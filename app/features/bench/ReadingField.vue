<script setup lang="ts">
import { reactive, ref } from 'vue'
import type { Typed } from '#core/bench/procedure'
import type { FieldTable } from '#core/model'
import { readTypedNumber } from '#core/model'

/** A reading that is typed, where nothing is recorded. */
const props = defineProps<{ fields: FieldTable }>()
const emit = defineEmits<{ read: [values: Typed] }>()
const texts = reactive<Record<string, string>>({})
const refusal = ref<string | null>(null)

function add() {
  const values: Record<string, number | undefined> = {}
  for (const [key, field] of Object.entries(props.fields)) {
    const read = readTypedNumber(field, texts[key] ?? '')
    if (!read.ok) {
      refusal.value = `${field.label}: ${read.message}`
      return
    }
    values[key] = read.value
  }
  refusal.value = null
  for (const key of Object.keys(texts)) texts[key] = ''
  emit('read', values)
}
</script>

<template>
  <form class="mt-2 flex flex-wrap items-baseline gap-3" @submit.prevent="add">
    <label v-for="(field, key) in fields" :key="key"
      >{{ field.label }}
      <input
        v-model="texts[key]"
        class="figure w-20 border-b border-dotted border-rule bg-sheet px-1 py-0.5 text-right"
        inputmode="decimal"
        :aria-label="`${field.label}, ${field.unit}`"
        :title="field.help"
      />
      <span class="text-muted">{{ field.unit }}</span></label
    >
    <button type="submit" class="push">Add the reading</button>
    <p v-if="refusal" role="alert" class="basis-full text-ceiling">{{ refusal }}</p>
  </form>
</template>
