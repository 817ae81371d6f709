<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { AnalogueInput, AudioInterface, Gear, InterfaceOutput, Plug, Preamp } from '#core/model'
import type { Specified } from '#core/edits'
import { inputSpecs, latencySpecs, outputSpecs, sizeField, traitsOf, withChoice } from '#core/model'
import { withInput, withLatency, withPlug, withSize } from '#core/edits'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import TextInput from '~/components/fields/TextInput.vue'
import { useShelfStore } from '~/stores/shelf'
import DataSheetDialog from './DataSheetDialog.vue'
import GainMap from './GainMap.vue'
import InputTable from './InputTable.vue'
import KnobTable from './KnobTable.vue'
import PlugFields from './PlugFields.vue'
import SpecTable from './SpecTable.vue'

/** A box of the shelf in full: a form made from its kind’s own description. */
const props = defineProps<{ item: Gear }>()
const shelf = useShelfStore()

const edit = (change: (item: Gear) => Gear) => shelf.edit(props.item.id, change)
const choose = (key: string) => (value: string) => edit((item) => withChoice(item, key, value))
const traits = computed(() => traitsOf(props.item))
const choices = computed(() => traits.value.choices(props.item))
const plugs = computed(() => ('plugs' in props.item ? props.item.plugs : undefined))
const sides = computed(() => traits.value.sockets(props.item))
const setPlug = (side: 'in' | 'out') => (plug: Plug | undefined) => edit((item) => withPlug(item, side, plug))
const editSelf = (change: Change) => edit((item) => (item.kind === 'interface' ? item : change(item)))
const setKnob = (knob: KnobTableOf) =>
  edit((item) => (item.kind === 'preamp' || item.kind === 'desk-channel' ? { ...item, knob } : item))
type KnobTableOf = Preamp['knob']
const setSize = (size: number | undefined) =>
  edit((item) => (item.kind === 'sound-source' ? withSize(item, size) : item))
type Change = <T extends Specified>(owner: T) => T

// An interface is shown one port at a time.
const port = ref('')
const ports = computed(() =>
  props.item.kind === 'interface'
    ? [
        ...props.item.inputs.map((each) => ({ value: `in ${each.id}`, text: `input ${each.id}, ${each.type}` })),
        ...props.item.outputs.map((each) => ({ value: `out ${each.id}`, text: `output ${each.id}, ${each.type}` })),
      ]
    : [],
)
watch(
  () => props.item.id,
  () => {
    port.value = ports.value[0]?.value ?? ''
  },
  { immediate: true },
)
const chosen = computed(() => {
  if (props.item.kind !== 'interface') return null
  const [side, id] = port.value.split(' ')
  const input = side === 'in' ? props.item.inputs.find((each) => each.id === id) : undefined
  const output = side === 'out' ? props.item.outputs.find((each) => each.id === id) : undefined
  return { side, id, input: input && input.type !== 'digital' ? input : undefined, output }
})
const editUnit = (change: (unit: AudioInterface) => AudioInterface) =>
  edit((item) => (item.kind === 'interface' ? change(item) : item))
const editInput = (change: (input: AnalogueInput) => AnalogueInput) =>
  editUnit((unit) => withInput(unit, chosen.value?.id ?? '', change))
const editOutput = (change: (output: InterfaceOutput) => InterfaceOutput) =>
  editUnit((unit) => ({
    ...unit,
    outputs: unit.outputs.map((each) => (each.id === chosen.value?.id ? change(each) : each)),
  }))
const sheetOpen = ref(false)
const latencyKeys = Object.keys(latencySpecs) as (keyof typeof latencySpecs)[]
const setLatency = (key: keyof typeof latencySpecs) => (value: number | undefined) =>
  editUnit((unit) => withLatency(unit, key, value))
</script>

<template>
  <section :aria-label="item.name">
    <p class="text-xs text-muted">
      {{ traits.words.box ?? traits.words.title }}
    </p>
    <h3 class="text-[17px]">
      <TextInput
        class="w-full"
        :value="item.name"
        label="Name of the item"
        :commit="(name) => edit((each) => ({ ...each, name }))"
      />
    </h3>
    <p class="flex gap-2 py-1">
      <span class="text-muted">Data sheet</span
      ><TextInput
        class="grow"
        optional
        :value="item.origin ?? ''"
        label="Source of the data sheet"
        :commit="(origin) => edit((each) => ({ ...each, origin: origin || undefined }))"
      />
    </p>
    <p v-if="choices.length > 0" class="flex flex-wrap gap-3 py-1">
      <SelectInput
        v-for="choice in choices"
        :key="choice.key"
        :value="choice.value"
        :label="choice.label"
        :options="choice.options"
        :commit="choose(choice.key)"
      />
    </p>
    <p class="py-1">
      <button type="button" class="action" @click="sheetOpen = true">Read a data sheet…</button>
    </p>
    <DataSheetDialog v-if="sheetOpen" :gear="item" :edit="(_, change) => edit(change)" @close="sheetOpen = false" />
    <PlugFields
      v-for="side in sides"
      :key="side"
      :plug="plugs?.[side]"
      :name="side === 'in' ? 'Input' : 'Output'"
      :edit="setPlug(side)"
    />

    <template v-if="item.kind !== 'interface'">
      <p v-if="item.kind === 'sound-source'" class="py-1">
        <span class="text-muted">{{ sizeField.label }} </span><NumberInput
          :value="item.size"
          :field="sizeField"
          :commit="setSize"
        />
      </p>
      <SpecTable class="mt-2" :owner="item as Specified" :fields="traits.fields(item)" :edit="editSelf" />
      <KnobTable
        v-if="item.kind === 'preamp' || item.kind === 'desk-channel'"
        :knob="item.knob"
        :lowest="item.specs.gainMin"
        :edit="setKnob"
      />
    </template>
    <template v-else>
      <p class="flex flex-wrap gap-x-4 gap-y-1 py-1">
        <span v-for="key in latencyKeys" :key="key"
          ><span class="text-muted">{{ latencySpecs[key].label }} </span
          ><NumberInput
            :value="item.latency?.[key] ?? latencySpecs[key].initial"
            :field="latencySpecs[key]"
            :commit="setLatency(key)"
        /></span>
      </p>
      <InputTable class="mt-2" :unit="item" :edit="(_, change) => editUnit(change)" />
      <p class="mt-2">
        <SelectInput
          class="font-semibold"
          :value="port"
          label="Port"
          :options="ports"
          :commit="
            (value) => {
              port = value
              return null
            }
          "
        />
      </p>
      <template v-if="chosen?.input">
        <PlugFields
          :plug="chosen.input.plug"
          name="Socket"
          :edit="(plug) => editInput((each) => ({ ...each, plug }))"
        />
        <SpecTable :owner="chosen.input" :fields="inputSpecs" :edit="editInput" />
        <GainMap class="mt-3 max-w-2xl" :input="chosen.input" :name="`input ${chosen.input.id}`" />
        <KnobTable
          :knob="chosen.input.knob"
          :lowest="chosen.input.specs.gainMin"
          :edit="(knob) => editInput((each) => ({ ...each, knob }))"
        />
      </template>
      <SpecTable v-else-if="chosen?.output" :owner="chosen.output" :fields="outputSpecs" :edit="editOutput" />
      <p v-else class="text-muted">A digital input passes samples unchanged: it has no figures of its own.</p>
    </template>
  </section>
</template>
