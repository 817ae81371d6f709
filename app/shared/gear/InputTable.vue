<script setup lang="ts">
import { Plus, Trash2 } from '@lucide/vue'
import { ref } from 'vue'
import type { AnalogueInput, AudioInterface } from '#core/gear'
import { inputSpecs } from '#core/gear'
import { withSpec } from '#core/edits'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import TextInput from '~/shared/fields/TextInput.vue'

/** All inputs of a unit in one table: what each is, whether it gives 48 V, and its printed figures. */
const props = defineProps<{
  unit: AudioInterface
  edit: (label: string, change: (unit: AudioInterface) => AudioInterface) => string | null
}>()
const refusal = ref<string | null>(null)

type Input = AudioInterface['inputs'][number]
const types = [
  { value: 'mic', text: 'microphone' },
  { value: 'line', text: 'line' },
  { value: 'instrument', text: 'instrument' },
  { value: 'digital', text: 'digital' },
] as const
const specs = Object.entries(inputSpecs)
const isAnalogue = (input: Input): input is AnalogueInput => input.type !== 'digital'

function setInputs(label: string, change: (inputs: Input[]) => Input[]) {
  const wrong = props.edit(label, (unit) => ({ ...unit, inputs: change(unit.inputs) }))
  refusal.value = wrong
  return wrong
}
const setInput = (label: string, id: string, change: (input: AnalogueInput) => AnalogueInput) =>
  setInputs(label, (inputs) => inputs.map((each) => (each.id === id && isAnalogue(each) ? change(each) : each)))
const setType = (input: Input) => (type: Input['type']) =>
  setInputs('Input type', (inputs) =>
    inputs.map((each) => {
      if (each.id !== input.id) return each
      if (type === 'digital') return { id: each.id, type, ...(each.plug && { plug: each.plug }) }
      return isAnalogue(each) ? { ...each, type } : { ...usual(inputs), id: each.id, type }
    }),
  )

/** What a fresh input starts from: the first analogue one of the unit. */
function usual(inputs: readonly Input[]): AnalogueInput {
  const { socket: _, knob: __, measured: ___, ...first } = inputs.find(isAnalogue) ?? FALLBACK
  return { ...first, measured: undefined }
}
const FALLBACK = {
  id: 'in1',
  type: 'mic',
  phantom: true,
  specs: {
    gainMin: 0,
    gainMax: 60,
    gainStep: 1,
    fullScale: 12,
    ein: -127,
    einWeighting: 'A',
    dynamicRange: 110,
    pad: 0,
  },
} as unknown as AnalogueInput

const numberOf = (input: AnalogueInput, key: string) =>
  input.specs[key as keyof typeof inputSpecs] as number | undefined

const freeId = (inputs: readonly Input[], stem: string) => {
  for (let n = 1; ; n++) if (!inputs.some(({ id }) => id === `${stem}${n}`)) return `${stem}${n}`
}
const add = () => setInputs('Add an input', (inputs) => [...inputs, { ...usual(inputs), id: freeId(inputs, 'in') }])

/** Figures of the three ways into a combined socket, where nothing else is known (common practice, no source). */
const WAYS = [
  { type: 'mic', stem: 'mic', more: {}, phantom: true },
  { type: 'line', stem: 'line', more: { gainMin: 0, gainMax: 20, fullScale: 20, impedance: 10_000 }, phantom: false },
  {
    type: 'instrument',
    stem: 'inst',
    more: { gainMin: 0, gainMax: 40, fullScale: 10, impedance: 1_000_000 },
    phantom: false,
  },
] as const
/** Microphone, line and instrument by one socket: three ways in, one of them at a time. */
const addCombined = () =>
  setInputs('Add a combined socket', (inputs) => {
    const socket = freeSocket(inputs)
    return WAYS.reduce<Input[]>((all, { type, stem, more, phantom }) => {
      const first = usual(inputs)
      return [
        ...all,
        {
          ...first,
          id: freeId(all, stem),
          type,
          phantom,
          socket,
          plug: { connector: 'combo' },
          specs: { ...first.specs, ...more } as AnalogueInput['specs'],
          assumed: specs.map(([key]) => key).filter((key) => key in { ...first.specs, ...more }),
        },
      ]
    }, inputs)
  })
const freeSocket = (inputs: readonly Input[]) => {
  const taken = new Set(inputs.filter(isAnalogue).map(({ socket }) => socket))
  for (let n = 1; ; n++) if (!taken.has(`${n}`)) return `${n}`
}
const remove = (id: string) => setInputs('Remove an input', (inputs) => inputs.filter((each) => each.id !== id))
</script>

<template>
  <div>
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h3 class="grow">Inputs</h3>
      <button type="button" class="action" @click="add">
        <Plus class="inline size-3.5" aria-hidden="true" /> Add an input
      </button>
      <button type="button" class="action" @click="addCombined">
        <Plus class="inline size-3.5" aria-hidden="true" /> Add a combined socket
      </button>
    </div>
    <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
    <div class="overflow-x-auto pb-2" tabindex="0" :aria-label="`Inputs of ${unit.name}`">
      <table class="text-right" data-input-table>
        <thead>
          <tr class="border-b border-ink align-bottom">
            <th scope="col" class="py-1 pr-3 text-left font-semibold">Input</th>
            <th scope="col" class="pr-3 text-left font-semibold">Type</th>
            <th scope="col" class="pr-3 text-left font-semibold">48 V</th>
            <th scope="col" class="pr-3 text-left font-semibold">Socket</th>
            <th v-for="[key, field] in specs" :key="key" scope="col" class="pl-3 font-semibold" :title="field.help">
              {{ field.label }}
            </th>
            <th scope="col"><span class="sr-only">Take out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="input in unit.inputs" :key="input.id" class="border-b border-line" :data-input="input.id">
            <th scope="row" class="pr-3 text-left font-semibold">{{ input.id }}</th>
            <td class="pr-3 text-left">
              <SelectInput
                :value="input.type"
                :label="`Type of ${input.id}`"
                :options="types"
                :commit="setType(input)"
              />
            </td>
            <template v-if="isAnalogue(input)">
              <td class="pr-3 text-left">
                <SwitchChip
                  :on="input.phantom"
                  label="can give 48 V"
                  @change="setInput('Phantom power', input.id, (each) => ({ ...each, phantom: $event }))"
                />
              </td>
              <td class="pr-3 text-left">
                <TextInput
                  class="w-10"
                  optional
                  :value="input.socket ?? ''"
                  :label="`Combined socket of ${input.id}`"
                  :commit="
                    (socket) => setInput('Socket', input.id, (each) => ({ ...each, socket: socket || undefined }))
                  "
                />
              </td>
              <td v-for="[key, field] in specs" :key="key" class="pl-3 whitespace-nowrap">
                <NumberInput
                  :value="numberOf(input, key)"
                  :field="field"
                  :name="`${field.label} of ${input.id}`"
                  :commit="(value) => setInput(field.label, input.id, (each) => withSpec(each, key, value))"
                />
                <span v-if="input.assumed?.includes(key)" class="block text-[11px] text-muted">assumed</span>
              </td>
            </template>
            <td v-else :colspan="specs.length + 2" class="text-left text-muted">passes samples unchanged</td>
            <td>
              <button
                v-if="unit.inputs.length > 1"
                type="button"
                class="icon-button"
                :aria-label="`Take out ${input.id}`"
                @click="remove(input.id)"
              >
                <Trash2 class="size-3.5" aria-hidden="true" />
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
