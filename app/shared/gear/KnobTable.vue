<script setup lang="ts">
import { Plus, Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import type { KnobTable } from '#core/gear'
import { knobFields } from '#core/gear'
import NumberInput from '~/shared/fields/NumberInput.vue'

/** The marks at a gain knob: which gain at which position. */
const props = defineProps<{
  knob: KnobTable | undefined
  lowest: number
  edit: (knob: KnobTable | undefined) => string | null
}>()
type Mark = KnobTable[number]

const marks = computed(() => props.knob ?? [])
const set = (list: Mark[]) => props.edit(list.length > 0 ? list : undefined)
const setMark = (i: number, part: { position?: number; gain?: number }) =>
  set(marks.value.map((mark, k) => (k === i ? ({ ...mark, ...part } as Mark) : mark)))
function add() {
  const last = marks.value.at(-1)
  set([
    ...marks.value,
    {
      position: last ? Math.min(17, last.position + 1) : knobFields.position.min,
      gain: last?.gain ?? props.lowest,
    } as Mark,
  ])
}
</script>

<template>
  <h4 class="mt-3 flex items-baseline justify-between border-t border-line pt-1 font-semibold">
    Marks at the gain knob
    <button type="button" class="action font-normal" @click="add">
      <Plus class="inline size-3.5" aria-hidden="true" /> Add a mark
    </button>
  </h4>
  <p v-if="marks.length === 0" class="text-muted">None. With two or more, a gain is shown as a knob position.</p>
  <p v-for="(mark, i) in marks" :key="i" class="flex items-baseline justify-between py-px">
    <NumberInput
      :value="mark.position"
      :field="knobFields.position"
      :name="`Mark ${i + 1}, position`"
      :step="0.25"
      :commit="(position) => setMark(i, { position })"
    />
    <NumberInput
      :value="mark.gain"
      :field="knobFields.gain"
      :name="`Mark ${i + 1}, gain`"
      :commit="(gain) => setMark(i, { gain })"
    />
    <button
      type="button"
      class="icon-button"
      :aria-label="`Remove mark ${i + 1}`"
      @click="set(marks.filter((_, k) => k !== i))"
    >
      <Trash2 class="size-3.5" aria-hidden="true" />
    </button>
  </p>
</template>
