<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { fullScaleAt } from '#core/chain/compile/interface-input'
import { gainToPosition, positionInWords } from '#core/chain/knob'
import type { ResolvedInput } from '#core/chain/resolve'
import type { SettingChange, Specified } from '#core/session'
import { applyChanges, inputSpecs, settingFields } from '#core/session'
import { formatShort, formatSigned } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import SwitchChip from '~/components/fields/SwitchChip.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useViewStore } from '~/stores/view'
import GainScale from './GainScale.vue'

const UnitDialog = defineAsyncComponent(() => import('./UnitDialog.vue'))

const props = defineProps<{ stage: ResolvedInput, planned: number | null }>()
const edit = useStageEdit()
const view = useViewStore()
const unitOpen = ref(false)

const gainField = computed(() => ({ ...settingFields.gain, min: props.stage.specs.gainMin, max: props.stage.specs.gainMax }))
const ports = computed(() => props.stage.gear.inputs.map(({ id, type }) => ({ value: id, text: `${id}, ${type}` })))
const weightings = [{ value: 'A', text: 'A' }, { value: 'Z', text: 'Z' }] as const
const knob = computed(() => {
  const position = props.stage.input.knob && gainToPosition(props.stage.input.knob, props.stage.gain)
  return position ? positionInWords(position) : null
})

const editInput = (label: string, change: <T extends Specified>(input: T) => T) =>
  edit.input(props.stage.gear.id, props.stage.input.id)(label, change)
const setWeighting = (einWeighting: 'A' | 'Z') =>
  editInput('EIN weighting', (input) => ({ ...input, specs: { ...input.specs, einWeighting } }))

/** Another input may have another range: its gain is held inside, and what it lacks is switched off. */
function setPort(port: string) {
  const next = props.stage.gear.inputs.find((input) => input.id === port)
  const strip = view.strip?.id
  if (!next || !strip) return null
  const to = (setting: SettingChange['setting'], value: number | boolean): SettingChange => ({ strip, stage: props.stage.id, setting, to: value })
  return edit.session('Input', (session) => applyChanges({
    ...session,
    strips: session.strips.map((each) => (each.id === strip
      ? { ...each, stages: each.stages.map((stage) => (stage.id === props.stage.id ? { ...stage, port } : stage)) }
      : each)),
  }, [
    to('gain', Math.min(next.specs.gainMax, Math.max(next.specs.gainMin, props.stage.gain))),
    to('phantom', props.stage.phantom && next.phantom),
    to('pad', props.stage.pad && next.specs.pad > 0),
  ]))
}
</script>

<template>
  <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
    <SelectInput :value="stage.input.id" label="Input" :options="ports" :commit="setPort" />
    <SwitchChip
      v-if="stage.input.phantom" :on="stage.phantom" label="48 V"
      caution="Mute the outputs first, wait before plugging or unplugging, and mind what else the bank feeds."
      @change="edit.phantom(stage.id)($event)"
    />
    <SwitchChip v-if="stage.specs.pad > 0" :on="stage.pad" label="pad" @change="edit.setting(stage.id, 'pad', 'Pad')($event)" />
    <button type="button" class="action ml-auto" @click="unitOpen = true">Unit…</button>
  </div>
  <p v-if="stage.input.phantom" class="mt-1 text-xs text-muted">Mute the outputs before switching 48 V{{ stage.input.phantomBank ? `; bank ${stage.input.phantomBank} gets it together` : '' }}.</p>

  <template v-if="stage.specs.gainMax > stage.specs.gainMin">
    <div class="mt-1 flex items-baseline justify-between">
      <span class="font-semibold">Gain</span>
      <span class="mr-16 font-semibold"><NumberInput :value="stage.gain" :field="gainField" :step="stage.specs.gainStep || 0.5" :commit="edit.setting(stage.id, 'gain', 'Gain')" /></span>
    </div>
    <GainScale :input="stage" :planned="planned" />
  </template>
  <p class="mb-1 text-muted"><template v-if="knob">Knob about {{ knob }}. </template>0 dBFS is at <span class="figure text-ink">{{ formatSigned(fullScaleAt(stage), 1) }}</span> dBu.</p>

  <SpecRow :owner="stage.input" spec="fullScale" :field="inputSpecs.fullScale" :label="`0 dBFS, gain ${formatShort(stage.specs.gainMin, 1)}`" :edit="editInput" />
  <SpecRow :owner="stage.input" spec="ein" :field="inputSpecs.ein" :edit="editInput">
    <SelectInput class="ml-1.5 text-xs text-ink" :value="stage.input.specs.einWeighting" label="EIN weighting" :options="weightings" :commit="setWeighting" />
  </SpecRow>
  <SpecRow v-for="key in (['dynamicRange', 'impedance', 'pad'] as const)" :key="key" :owner="stage.input" :spec="key" :field="inputSpecs[key]" :edit="editInput" />
  <UnitDialog v-if="unitOpen" :unit="stage.gear" :input="stage.input" @close="unitOpen = false" />
</template>
