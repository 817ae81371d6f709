<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Gear, Plug, Specified } from '#core/session'
import { inputSpecs, kindWords, latencySpecs, outputSpecs, specFields } from '#core/session'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import TextInput from '~/components/fields/TextInput.vue'
import { useShelfStore } from '~/stores/shelf'
import { choicesOf } from './choices'
import KnobTable from './KnobTable.vue'
import PlugFields from './PlugFields.vue'
import SpecTable from './SpecTable.vue'

/** A box of the shelf in full: a form made from its kind’s own description. */
const props = defineProps<{ item: Gear }>()
const shelf = useShelfStore()

type Loose = Record<string, unknown>
const edit = (change: (item: Loose) => Loose) =>
  shelf.edit(props.item.id, (item) => change(item as unknown as Loose) as unknown as Gear)
const choose = (key: string) => (value: string) =>
  edit((item) => ({ ...item, [key]: value === 'true' ? true : value === 'false' ? false : value }))
const choices = computed(() => choicesOf(props.item))
const plugs = computed(() => ('plugs' in props.item ? props.item.plugs : undefined))
const PLUGGED = new Set([
  'electric-source',
  'microphone',
  'pad',
  'di-box',
  'booster',
  'preamp',
  'processor',
  'desk-channel',
  'fader',
  'link',
])
const sides = computed(() =>
  PLUGGED.has(props.item.kind)
    ? ['electric-source', 'microphone'].includes(props.item.kind)
      ? (['out'] as const)
      : (['in', 'out'] as const)
    : [],
)
const setPlug = (side: 'in' | 'out') => (plug: Plug | undefined) =>
  edit((item) => ({ ...item, plugs: { ...(item.plugs as object), [side]: plug } }))
const editSelf = (change: <T extends Specified>(owner: T) => T) => edit((item) => change(item as never) as never)

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
const editPort = (change: (owner: Loose) => Loose) =>
  edit((item) => {
    const list = chosen.value?.side === 'out' ? 'outputs' : 'inputs'
    return {
      ...item,
      [list]: (item[list] as Loose[]).map((each) => (each.id === chosen.value?.id ? change(each) : each)),
    }
  })
const latencyKeys = Object.keys(latencySpecs) as (keyof typeof latencySpecs)[]
const setLatency = (key: string) => (value: number | undefined) =>
  edit((item) => ({ ...item, latency: { ...(item.latency as object), [key]: value ?? 0 } }))
const directs = [
  { value: 'digital', text: 'in its digital mixer' },
  { value: 'analogue', text: 'in analogue' },
  { value: 'none', text: 'not at all' },
]
</script>

<template>
  <section :aria-label="item.name">
    <p class="text-xs text-muted">
      {{ kindWords[item.kind].title === 'Interface input' ? 'Interface' : kindWords[item.kind].title }}
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
      <span class="text-muted">Printed where</span
      ><TextInput
        class="grow"
        optional
        :value="item.origin ?? ''"
        label="Printed where"
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
    <PlugFields
      v-for="side in sides"
      :key="side"
      :plug="plugs?.[side]"
      :name="side === 'in' ? 'Input' : 'Output'"
      :edit="setPlug(side)"
    />

    <template v-if="item.kind !== 'interface'">
      <SpecTable class="mt-2" :owner="item as Specified" :fields="specFields[item.kind]" :edit="editSelf" />
      <KnobTable
        v-if="item.kind === 'preamp' || item.kind === 'desk-channel'"
        :knob="item.knob"
        :lowest="item.specs.gainMin"
        :edit="(knob) => edit((each) => ({ ...each, knob }))"
      />
    </template>
    <template v-else>
      <p class="flex gap-4 py-1">
        <span class="text-muted">Monitors its inputs</span
        ><SelectInput :value="item.direct" label="Direct monitoring" :options="directs" :commit="choose('direct')" />
      </p>
      <p class="flex flex-wrap gap-x-4 gap-y-1 py-1">
        <span v-for="key in latencyKeys" :key="key"
          ><span class="text-muted">{{ latencySpecs[key].label }} </span
          ><NumberInput
            :value="item.latency?.[key] ?? latencySpecs[key].initial"
            :field="latencySpecs[key]"
            :commit="setLatency(key)"
        /></span>
      </p>
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
        <PlugFields :plug="chosen.input.plug" name="Socket" :edit="(plug) => editPort((each) => ({ ...each, plug }))" />
        <SpecTable
          :owner="chosen.input"
          :fields="inputSpecs"
          :edit="(change) => editPort((each) => change(each as never) as never)"
        />
        <KnobTable
          :knob="chosen.input.knob"
          :lowest="chosen.input.specs.gainMin"
          :edit="(knob) => editPort((each) => ({ ...each, knob }))"
        />
      </template>
      <SpecTable
        v-else-if="chosen?.output"
        :owner="chosen.output as Specified"
        :fields="outputSpecs"
        :edit="(change) => editPort((each) => change(each as never) as never)"
      />
      <p v-else class="text-muted">A digital input takes numbers as they come: it has no figures of its own.</p>
    </template>
  </section>
</template>
