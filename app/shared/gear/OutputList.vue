<script setup lang="ts">
import { Plus, Trash2 } from '@lucide/vue'
import { ref } from 'vue'
import type { InterfaceOutput } from '#core/gear'
import type { Specified } from '#core/edits'
import { outputSpecs } from '#core/gear'
import { dbu } from '#core/units'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SpecRow from '~/shared/fields/SpecRow.vue'

/** The outputs of an interface, each with its figures, printed or measured. */
const props = defineProps<{
  outputs: readonly InterfaceOutput[]
  edit: (label: string, outputs: InterfaceOutput[]) => string | null
}>()
const refusal = ref<string | null>(null)
const types = [
  { value: 'line', text: 'line' },
  { value: 'headphone', text: 'headphones' },
  { value: 'monitor', text: 'loudspeakers' },
] as const
/** What a line output of a small unit often gives (common practice, no source); to be replaced by the printed figure. */
const USUAL = 12

const change = (id: string, label: string, part: (output: InterfaceOutput) => InterfaceOutput) =>
  props.edit(
    label,
    props.outputs.map((each) => (each.id === id ? part(each) : each)),
  )
const editSpecs = (id: string) => (label: string, part: <T extends Specified>(owner: T) => T) => change(id, label, part)
function add() {
  const number =
    Array.from({ length: 200 }, (_, i) => i + 1).find((n) => !props.outputs.some(({ id }) => id === `out${n}`)) ?? 1
  refusal.value = props.edit('Add an output', [
    ...props.outputs,
    { id: `out${number}`, type: 'line', specs: { fullScale: dbu(USUAL) }, measured: undefined },
  ])
}
const remove = (id: string) => {
  refusal.value = props.edit(
    'Remove an output',
    props.outputs.filter((each) => each.id !== id),
  )
}
</script>

<template>
  <div>
    <h4 class="mt-3 flex items-baseline justify-between border-t border-line pt-1 font-semibold">
      Outputs
      <button type="button" class="action font-normal" @click="add">
        <Plus class="inline size-3.5" aria-hidden="true" /> Add an output
      </button>
    </h4>
    <p v-if="outputs.length === 0" class="text-muted">
      None yet. The Bench needs one for its loopback cables, and headphones for the level at the ear.
    </p>
    <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
    <div v-for="output in outputs" :key="output.id" class="py-0.5" :data-output="output.id">
      <p class="flex items-baseline gap-2">
        <span class="font-semibold">{{ output.id }}</span><SelectInput
          :value="output.type"
          :label="`Type of ${output.id}`"
          :options="types"
          :commit="(type) => change(output.id, 'Output type', (each) => ({ ...each, type }))"
        /><button
          type="button"
          class="icon-button ml-auto"
          :aria-label="`Take out ${output.id}`"
          @click="remove(output.id)"
        >
          <Trash2 class="size-3.5" aria-hidden="true" />
        </button>
      </p>
      <SpecRow
        v-for="(field, key) in outputSpecs"
        :key="key"
        :owner="output as Specified"
        :spec="key"
        :field="field"
        :edit="editSpecs(output.id)"
      />
    </div>
  </div>
</template>
