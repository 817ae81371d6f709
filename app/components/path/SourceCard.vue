<script setup lang="ts">
import { computed } from 'vue'
import type { ResolvedSource } from '#core/chain/resolve'
import type { Specified } from '#core/session'
import { roomFields, settingFields, sizeField, soundSourceSpecs, withSize } from '#core/session'
import NumberInput from '~/components/fields/NumberInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

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
  edit.box(props.stage.id, props.stage.gear.id)(label, (gear) => (gear.kind === 'sound-source' ? change(gear) : gear))
const setSize = (size: number | undefined) =>
  edit.box(props.stage.id, props.stage.gear.id)('Size of the source', (gear) =>
    gear.kind === 'sound-source' ? withSize(gear, size) : gear,
  )
</script>

<template>
  <div class="flex items-baseline justify-between py-px">
    <span class="font-semibold">To the capsule</span>
    <span class="flex shrink-0 items-baseline gap-1.5 font-semibold"
      ><NumberInput
        :value="stage.distance"
        :field="settingFields.distance"
        :step="0.05"
        :commit="edit.setting(stage.id, 'distance', 'Distance')"
      /><button
        type="button"
        class="-my-1 w-14.5 py-1 text-left text-xs font-normal underline decoration-dotted underline-offset-2"
        :class="isMeasured ? 'text-change' : 'text-muted'"
        :aria-label="`${isMeasured ? 'measured ± 1 cm' : 'estimated ± 10 %'}: how the distance is known`"
        :title="
          isMeasured ? 'Measured with a rule, ± 1 cm' : 'By eye, ± 10 %. Press where it was measured with a rule.'
        "
        data-distance-known
        @click="toggleMeasured"
      >
        {{ isMeasured ? 'measured' : 'estimated' }}
      </button></span
    >
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
  <SpecRow :owner="room" spec="ambient" kind="room" :field="roomFields.ambient" :edit="editRoom" />
  <SpecRow :owner="room" spec="temperature" kind="room" :field="roomFields.temperature" :edit="editRoom" />
</template>
