<script setup lang="ts">
import type { ResolvedSource } from '#core/chain/resolve'
import { roomFields, settingFields, soundSourceSpecs } from '#core/session'
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
  edit.gear(props.stage.gear.id, 'sound-source')(label, change)
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
