<script setup lang="ts">
import { Trash2 } from '@lucide/vue'
import type { Block, Processor } from '#core/gear'
import { block as blockSchema, blockFields } from '#core/gear'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

/** The sections of a processor in their order: threshold, ratio and the like, each with its switch. */
const props = defineProps<{ processor: Processor }>()
const edit = useStageEdit()

const FRESH: Record<Block['type'], object> = {
  compressor: { threshold: -20, ratio: 3 },
  expander: { threshold: -50, ratio: 2, range: 20 },
  limiter: { ceiling: -2 },
  equaliser: { change: 0 },
  gain: { gain: 0 },
}
const types = Object.keys(FRESH) as Block['type'][]
const numbersOf = (block: Block) =>
  (Object.keys(blockFields) as (keyof typeof blockFields)[]).filter(
    (key) =>
      key in block ||
      (key === 'range' && block.type === 'expander') ||
      (key === 'takesOff' && block.type === 'compressor'),
  )
const value = (block: Block, key: keyof typeof blockFields) => (block as Partial<Record<typeof key, number>>)[key]

const setBlocks = (label: string, blocks: Block[]) =>
  edit.gear(props.processor.id, 'processor')(label, (gear) => ({ ...gear, blocks }))
const change = (i: number, part: object, label: string) =>
  setBlocks(
    label,
    props.processor.blocks.map((each, k) => (k === i ? ({ ...each, ...part } as Block) : each)),
  )
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  const type = select.value as Block['type']
  select.value = ''
  setBlocks('Add a section', [...props.processor.blocks, blockSchema.parse({ type, ...FRESH[type] })])
}
</script>

<template>
  <ol class="my-1 border-y border-line">
    <li v-for="(block, i) in processor.blocks" :key="i" class="border-b border-line py-0.5 last:border-b-0">
      <p class="flex items-center justify-between gap-2">
        <SwitchChip
          :on="block.on"
          :label="block.name ?? block.type"
          @change="change(i, { on: $event }, block.name ?? block.type)"
        />
        <button
          type="button"
          class="icon-button"
          :aria-label="`Remove ${block.name ?? block.type}`"
          @click="
            setBlocks(
              'Remove a section',
              processor.blocks.filter((_, k) => k !== i),
            )
          "
        >
          <Trash2 class="size-3.5" aria-hidden="true" />
        </button>
      </p>
      <p class="flex flex-wrap justify-end gap-x-3">
        <span v-for="key in numbersOf(block)" :key="key"
          ><span class="text-muted">{{ blockFields[key].label.toLowerCase() }} </span
          ><NumberInput
            :value="value(block, key)"
            :field="blockFields[key]"
            :name="`${block.name ?? block.type} ${i + 1}, ${blockFields[key].label.toLowerCase()}`"
            :commit="(to) => change(i, { [key]: to }, blockFields[key].label)"
        /></span>
      </p>
    </li>
    <li class="py-0.5">
      <select class="bg-sheet text-change" aria-label="Add a section" value="" @change="add">
        <option value="">add a section…</option>
        <option v-for="type in types" :key="type" :value="type">{{ type }}</option>
      </select>
    </li>
  </ol>
</template>
