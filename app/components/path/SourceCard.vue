<script setup lang="ts">
import type { ResolvedSource } from '#core/chain/resolve'
import { roomFields, settingFields, sizeField, soundSourceSpecs, withSize } from '#core/session'
import { celsius, dbSpl } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'

const props = defineProps<{ stage: ResolvedSource }>()
const edit = useStageEdit()
const store = useSessionStore()

const setAmbient = (value: number | undefined) =>
  edit.session('Room noise', (session) => ({
    ...session,
    room: { ...session.room, ambient: value === undefined ? undefined : dbSpl(value) },
  }))
const setTemperature = (value: number | undefined) =>
  edit.session('Temperature', (session) => ({
    ...session,
    room: { ...session.room, temperature: value === undefined ? undefined : celsius(value) },
  }))
const editSpecs = (label: string, change: <T extends typeof props.stage.gear>(gear: T) => T) =>
  edit.box(props.stage.id, props.stage.gear.id)(label, (gear) => (gear.kind === 'sound-source' ? change(gear) : gear))
const setSize = (size: number | undefined) =>
  edit.box(props.stage.id, props.stage.gear.id)('Size of the source', (gear) =>
    gear.kind === 'sound-source' ? withSize(gear, size) : gear,
  )
</script>

<template>
  <div class="flex items-baseline justify-between py-px">
    <span class="font-semibold">To the capsule</span>
    <span class="mr-16 font-semibold"
      ><NumberInput
        :value="stage.distance"
        :field="settingFields.distance"
        :step="0.05"
        :commit="edit.setting(stage.id, 'distance', 'Distance')"
    /></span>
  </div>
  <SpecRow
    v-for="(field, key) in soundSourceSpecs"
    :key="key"
    :owner="stage.gear"
    :spec="key"
    :field="field"
    :edit="editSpecs"
  />
  <div class="flex items-baseline justify-between py-px">
    <span class="text-muted" :title="sizeField.help">{{ sizeField.label }}</span>
    <span class="mr-16"><NumberInput :value="stage.gear.size" :field="sizeField" :step="0.1" :commit="setSize" /></span>
  </div>
  <h4 class="mt-2 border-t border-line pt-1 text-xs text-muted">The room, for every strip</h4>
  <div class="flex items-baseline justify-between py-px">
    <span class="text-muted">Noise</span>
    <span class="mr-16"
      ><NumberInput :value="store.session?.room.ambient" :field="roomFields.ambient" :commit="setAmbient"
    /></span>
  </div>
  <div class="flex items-baseline justify-between py-px">
    <span class="text-muted">Temperature</span>
    <span class="mr-16"
      ><NumberInput :value="store.session?.room.temperature" :field="roomFields.temperature" :commit="setTemperature"
    /></span>
  </div>
</template>
