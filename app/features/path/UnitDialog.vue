<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AnalogueInput, AudioInterface, InterfaceLatency, Gear } from '#core/gear'
import type { Specified } from '#core/edits'
import { bufferFramesField, readTypedNumbers, sampleRateField } from '#core/model'
import { inputSpecs, latencySpecs, isInterface } from '#core/gear'
import { frames, hz } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SpecRow from '~/shared/fields/SpecRow.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import GainMap from '~/shared/gear/GainMap.vue'
import InputTable from '~/shared/gear/InputTable.vue'
import DataSheetDialog from '~/shared/gear/DataSheetDialog.vue'
import KnobTable from '~/shared/gear/KnobTable.vue'
import OutputList from '~/shared/gear/OutputList.vue'
import PlugFields from '~/shared/gear/PlugFields.vue'
import ModalDialog from '~/shared/ui/ModalDialog.vue'

/** The whole interface: its driver, its clock, one of its inputs in full, and the marks at its gain knob. */
const props = defineProps<{ unit: AudioInterface; input: AnalogueInput; gain?: number | undefined }>()
const emit = defineEmits<{ close: [] }>()
const edit = useStageEdit()

const inputTypes = [
  { value: 'mic', text: 'microphone' },
  { value: 'line', text: 'line' },
  { value: 'instrument', text: 'instrument' },
] as const
const directs = [
  { value: 'digital', text: 'in its digital mixer' },
  { value: 'analogue', text: 'in analogue' },
  { value: 'none', text: 'not at all' },
] as const
const sheetOpen = ref(false)
const latencyKeys = Object.keys(latencySpecs) as (keyof typeof latencySpecs)[]
const noLatency = {
  converterIn: 0,
  converterOut: 0,
  safetyIn: 0,
  safetyOut: 0,
  buffersIn: 1,
  buffersOut: 1,
  fixed: 0,
} as InterfaceLatency
const latency = computed(() => props.unit.latency ?? noLatency)

const editUnit = (label: string, part: Partial<AudioInterface>) =>
  edit.gear(props.unit.id, 'interface')(label, (unit) => ({ ...unit, ...part }))
const editWhole = (label: string, change: (gear: Gear) => Gear) =>
  edit.gear(props.unit.id, 'interface')(label, (unit) => {
    const next = change(unit)
    return isInterface(next) ? next : unit
  })
const editInput = (label: string, part: Partial<AnalogueInput>) =>
  edit.input(props.unit.id, props.input.id)(label, (input) => ({ ...input, ...part }))
const editSpecs = (label: string, change: <T extends Specified>(input: T) => T) =>
  edit.input(props.unit.id, props.input.id)(label, change)

function setRates(text: string) {
  const read = readTypedNumbers(sampleRateField, text)
  if (!read.ok) return read.message
  return editUnit('Sample rates', { sampleRates: read.values.length > 0 ? read.values.map(hz) : undefined })
}
function setBuffers(text: string) {
  const read = readTypedNumbers(bufferFramesField, text)
  if (!read.ok) return read.message
  return editUnit('Buffer sizes', { bufferSizes: read.values.length > 0 ? read.values.map(frames) : undefined })
}
const setLatency = (key: keyof InterfaceLatency) => (value: number | undefined) =>
  editUnit('Latency', { latency: { ...latency.value, [key]: value ?? 0 } })

/** A fresh input beside the others, with this one’s figures. */
function addInput() {
  const taken = new Set(props.unit.inputs.map((each) => each.id))
  const number = Array.from({ length: 200 }, (_, i) => i + 1).find((n) => !taken.has(`in${n}`)) ?? 1
  editUnit('Add an input', { inputs: [...props.unit.inputs, { ...props.input, id: `in${number}` }] })
}
</script>

<template>
  <ModalDialog :title="unit.name" closing="Done" @close="emit('close')">
    <div class="max-w-full card:w-[64rem]">
      <div class="grid gap-x-8 gap-y-4 rail:grid-cols-2 pt-3">
        <div>
          <h3>The unit and its driver</h3>
          <p class="flex justify-between py-1">
            <span class="text-muted">Monitors its inputs</span
            ><SelectInput
              :value="unit.direct"
              label="Direct monitoring"
              :options="directs"
              :commit="(direct) => editUnit('Direct monitoring', { direct })"
            />
          </p>
          <p class="flex justify-between gap-3 py-1">
            <span class="shrink-0 text-muted">Sample rates, Hz</span
            ><TextInput
              class="figure w-60 min-w-0"
              label="Sample rates"
              optional
              :value="unit.sampleRates?.join(', ') ?? ''"
              :commit="setRates"
            />
          </p>
          <p class="flex justify-between gap-3 py-1">
            <span class="shrink-0 text-muted">Buffer sizes, frames</span
            ><TextInput
              class="figure w-60 min-w-0"
              label="Buffer sizes"
              optional
              :value="unit.bufferSizes?.join(', ') ?? ''"
              :commit="setBuffers"
            />
          </p>
          <h4 class="mt-3 border-t border-line pt-1 font-semibold">Delay beyond the buffers</h4>
          <p v-if="!unit.latency" class="text-muted">
            Nothing is known yet. Enter the data sheet’s figures, or what the driver reports.
          </p>
          <p v-for="key in latencyKeys" :key="key" class="flex justify-between py-px">
            <span class="text-muted">{{ latencySpecs[key].label }}</span>
            <NumberInput :value="latency[key]" :field="latencySpecs[key]" :step="1" :commit="setLatency(key)" />
          </p>
          <OutputList :outputs="unit.outputs" :edit="(label, outputs) => editUnit(label, { outputs })" />
        </div>
        <div>
          <div class="flex items-baseline justify-between">
            <h3>Input {{ input.id }}</h3>
            <span class="flex gap-3">
              <button type="button" class="action" @click="sheetOpen = true">Read a data sheet…</button>
              <button type="button" class="action" @click="addInput">Add another like it</button>
            </span>
          </div>
          <div class="flex flex-wrap items-baseline gap-3 py-1">
            <SelectInput
              :value="input.type"
              label="Input type"
              :options="inputTypes"
              :commit="(type) => editInput('Input type', { type })"
            />
            <SwitchChip
              label="can give 48 V"
              :on="input.phantom"
              @change="(phantom) => editInput('Phantom power', { phantom })"
            />
            <span v-if="input.phantom"
              >bank
              <TextInput
                class="w-14"
                label="Phantom bank"
                optional
                :value="input.phantomBank ?? ''"
                :commit="(bank) => editInput('Phantom bank', { phantomBank: bank || undefined })"
            /></span>
          </div>
          <SpecRow
            v-for="(field, key) in inputSpecs"
            :key="key"
            :owner="input"
            :spec="key"
            :field="field"
            :edit="editSpecs"
          />
          <PlugFields :plug="input.plug" name="Socket" :edit="(plug) => editInput('Socket', { plug })" />
          <GainMap class="mt-3" :input="input" :name="`input ${input.id}`" :set="gain" />
          <KnobTable
            :knob="input.knob"
            :lowest="input.specs.gainMin"
            :edit="(knob) => editInput('Knob table', { knob })"
          />
        </div>
      </div>
      <InputTable class="mt-4" :unit="unit" :edit="edit.gear(unit.id, 'interface')" />
      <p class="mt-4 text-xs text-muted">
        Power order: sources, then the interface, amplifiers and loudspeakers last; off in the reverse order. Follow the
        makers’ instructions and local rules.
      </p>
    </div>
    <DataSheetDialog v-if="sheetOpen" :gear="unit" :edit="editWhole" undone @close="sheetOpen = false" />
  </ModalDialog>
</template>
