<script setup lang="ts">
import type { ResolvedSource } from '#core/gear/sound-source/stage'
import { computed } from 'vue'
import type { Specified } from '#core/edits'
import { roomFields, settingFields } from '#core/model'
import { sheetLine, sizeField, soundSourceSpecs, isSoundSource } from '#core/gear'
import { withSize } from '#core/edits'
import { formatShort } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SetRow from '~/shared/fields/SetRow.vue'
import SpecRow from '~/shared/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import DataSheet from './DataSheet.vue'

const props = defineProps<{ stage: ResolvedSource }>()
const edit = useStageEdit()
const store = useSessionStore()
const view = useViewStore()

/** The room as something with figures: what it is taken to be, and what was measured. */
const room = computed(() => {
  const { ambient, temperature, measured } = store.session?.room ?? {}
  return { specs: { ambient, temperature }, measured }
})
const editRoom = (label: string, change: <T extends Specified>(owner: T) => T) =>
  edit.session(label, (session) => {
    const { specs, measured } = change(room.value)
    return { ...session, room: { ...session.room, ...specs, measured } }
  })
/** A distance by eye is known to 10 %, one by the rule to a centimetre. */
const BY_RULE = 0.01
const isMeasured = computed(
  () => view.strip?.stages.find(({ id }) => id === props.stage.id)?.tolerance?.distance !== undefined,
)
const toggleMeasured = () =>
  edit.stage(
    isMeasured.value ? 'Distance estimated' : 'Distance measured',
    props.stage.id,
    ({ tolerance, ...stage }) => {
      const { distance: _, ...others } = tolerance ?? {}
      const next = isMeasured.value ? others : { ...others, distance: BY_RULE }
      return Object.keys(next).length > 0 ? { ...stage, tolerance: next } : stage
    },
  )
const editSpecs = (label: string, change: <T extends typeof props.stage.gear>(gear: T) => T) =>
  edit.box(props.stage.id, props.stage.gear.id)(label, (gear) => (isSoundSource(gear) ? change(gear) : gear))
const setSize = (size: number | undefined) =>
  edit.box(props.stage.id, props.stage.gear.id)('Size of the source', (gear) =>
    isSoundSource(gear) ? withSize(gear, size) : gear,
  )
const { level: _, ...sheet } = soundSourceSpecs
/** Asked for where it was missing when the card was opened; it stays there while it is entered. */
const asksForRoom = room.value.specs.ambient === undefined && !room.value.measured?.ambient
const ambient = computed(() => ({
  owner: room.value,
  spec: 'ambient',
  kind: 'room' as const,
  field: roomFields.ambient,
  edit: editRoom,
}))
const line = computed(() => {
  const { specs, measured } = room.value
  const noise = measured?.ambient?.value ?? specs.ambient
  const own = sheetLine('sound-source', props.stage.gear, sheet)
  return noise === undefined ? own : `${own}; room noise ${formatShort(noise, 1)} dBA`
})
</script>

<template>
  <SetRow :label="settingFields.distance.label" :help="settingFields.distance.help" strong>
    <NumberInput
      :value="stage.distance"
      :field="settingFields.distance"
      :step="0.05"
      :commit="edit.setting(stage.id, 'distance', 'Distance')"
    /><button
      type="button"
      class="-my-1 w-14.5 py-1 text-left text-xs font-normal underline decoration-dotted underline-offset-2"
      :class="isMeasured ? 'text-change' : 'text-muted'"
      :aria-label="`${isMeasured ? 'measured ± 1 cm' : 'estimated ± 10 %'}: how the distance is known`"
      :title="isMeasured ? 'Measured with a rule, ± 1 cm' : 'By eye, ± 10 %. Press where it was measured with a rule.'"
      data-distance-known
      @click="toggleMeasured"
    >
      {{ isMeasured ? 'measured' : 'estimated' }}
    </button>
  </SetRow>
  <SpecRow :owner="stage.gear" spec="level" :field="soundSourceSpecs.level" :edit="editSpecs" />
  <SpecRow v-if="asksForRoom" v-bind="ambient" />
  <DataSheet :kind="stage.kind" :line="line">
    <SpecRow
      v-for="(field, key) in sheet"
      :key="key"
      :owner="stage.gear"
      :spec="key"
      :field="field"
      :edit="editSpecs"
    />
    <SetRow :label="sizeField.label" :help="sizeField.help">
      <NumberInput :value="stage.gear.size" :field="sizeField" :step="0.1" :commit="setSize" /><span class="w-14.5" />
    </SetRow>
    <h4 class="mt-2 border-t border-line pt-1 text-xs text-muted">The room, for every strip</h4>
    <SpecRow v-if="!asksForRoom" v-bind="ambient" />
    <SpecRow :owner="room" spec="temperature" kind="room" :field="roomFields.temperature" :edit="editRoom" />
  </DataSheet>
</template>
