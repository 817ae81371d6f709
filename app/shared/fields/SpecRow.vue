<script setup lang="ts">
import { originOf } from '#core/gear'
import { computed } from 'vue'
import type { GearKind } from '#core/gear'
import type { Measurement, NumberField, StatedTolerance } from '#core/model'
import type { Specified } from '#core/edits'
import { toleranceOf } from '#core/model'
import { withMeasurement, withSpec, withTolerance } from '#core/edits'
import NumberInput from './NumberInput.vue'
import OriginPopover from './OriginPopover.vue'

/**
 * One specification: the value in force, edited in place, and where it is from. Editing changes the value in force;
 * the printed one behind a measured one is in the popover.
 */
const props = defineProps<{
  owner: Specified
  spec: string
  field: NumberField
  /** Keeps a changed owner, or says why not. */
  edit: (label: string, change: <T extends Specified>(owner: T) => T) => string | null
  /** What it is a figure of, where the owner does not say: a port of an interface, the room. */
  kind?: GearKind | 'room'
  /** Shown after the unit, such as a weighting. */
  label?: string
}>()

const printed = computed(() => (props.owner.specs as Record<string, number | undefined>)[props.spec])
const measured = computed(
  () => (props.owner.measured as Record<string, Measurement | undefined> | undefined)?.[props.spec],
)
const name = computed(() => props.label ?? props.field.label)

const editPrinted = (value: number | undefined) => props.edit(name.value, (owner) => withSpec(owner, props.spec, value))
const editMeasured = (measurement: Measurement | undefined) =>
  props.edit(`${name.value}, measured`, (owner) => withMeasurement(owner, props.spec, measurement))
const kind = computed(() => props.kind ?? ('kind' in props.owner ? (props.owner.kind as GearKind) : 'interface'))
const origin = computed(() => originOf(kind.value, props.owner, props.spec))
const editTolerance = (stated: StatedTolerance | undefined) =>
  props.edit(`Tolerance of ${name.value}`, (owner) => withTolerance(owner, props.spec, stated))
const editInForce = (value: number | undefined) =>
  measured.value ? editMeasured(value === undefined ? undefined : { ...measured.value, value }) : editPrinted(value)
</script>

<template>
  <div class="card-row">
    <span class="min-w-0 text-muted" :title="field.help">{{ name }}<slot /></span>
    <span class="value-column">
      <NumberInput :value="measured?.value ?? printed" :field="field" :name="name" :commit="editInForce" />
      <OriginPopover
        :name="name"
        :field="field"
        :printed="printed"
        :origin="origin"
        :measured="measured"
        :tolerance="toleranceOf(owner, spec, field)"
        :own-tolerance="owner.tolerance?.[spec]"
        :edit-printed="editPrinted"
        :edit-measured="editMeasured"
        :edit-tolerance="editTolerance"
      />
    </span>
  </div>
  <p v-if="field.missing && !measured && printed === undefined" class="text-xs text-ceiling">{{ field.missing }}</p>
</template>
