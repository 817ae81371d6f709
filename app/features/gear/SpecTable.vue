<script setup lang="ts">
import { isPerformance } from '#core/gear'
import { computed } from 'vue'
import type { GearKind } from '#core/gear'
import type { FieldTable, Measurement, NumberField } from '#core/model'
import type { Specified } from '#core/edits'
import { spreadOf, spreadWith } from '#core/model'
import { withMeasurement, withSpec } from '#core/edits'
import { formatSigned } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import TextInput from '~/shared/fields/TextInput.vue'

/** Printed and measured values side by side, with their difference and where the measured ones are from. */
const props = defineProps<{
  owner: Specified
  fields: FieldTable
  edit: (change: <T extends Specified>(owner: T) => T) => string | null
}>()

const rows = computed(() =>
  Object.entries(props.fields).map(([key, field]) => {
    const printed = (props.owner.specs as Record<string, number | undefined>)[key]
    const measured = (props.owner.measured as Record<string, Measurement | undefined> | undefined)?.[key]
    return {
      key,
      field,
      printed,
      measured,
      difference: measured && printed !== undefined ? measured.value - printed : null,
    }
  }),
)
/** Nobody printed it: a usual figure, or how somebody plays. */
const isAssumed = (key: string) =>
  props.owner.assumed?.includes(key) || ('kind' in props.owner && isPerformance(props.owner.kind as GearKind, key))
const optional = (field: NumberField): NumberField => ({ ...field, optional: true })
const setPrinted = (key: string) => (value: number | undefined) => props.edit((owner) => withSpec(owner, key, value))
const setMeasured = (key: string, before: Measurement | undefined) => (value: number | undefined) =>
  props.edit((owner) => withMeasurement(owner, key, value === undefined ? undefined : { ...before, value }))
const setPart = (key: string, before: Measurement, part: Partial<Measurement>) =>
  props.edit((owner) => withMeasurement(owner, key, { ...before, ...part }))
const spread = (field: NumberField): NumberField => ({
  label: 'Spread',
  unit: field.unit,
  min: 0,
  max: 100,
  optional: true,
  help: 'Half the spread of the repeats.',
})
</script>

<template>
  <table class="w-full">
    <thead>
      <tr class="border-b border-ink text-right">
        <th scope="col" class="py-1 text-left font-semibold">Specification</th>
        <th scope="col" class="font-semibold">Data sheet</th>
        <th scope="col" class="font-semibold">Measured</th>
        <th scope="col" class="font-semibold">Differs</th>
        <th scope="col" class="font-semibold">±</th>
        <th scope="col" class="pl-3 text-left font-semibold">On</th>
        <th scope="col" class="pl-2 text-left font-semibold">How</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="{ key, field, printed, measured, difference } in rows"
        :key="key"
        class="border-b border-line text-right"
        :data-spec="key"
      >
        <th scope="row" class="py-1 text-left font-normal" :title="field.help">{{ field.label }}</th>
        <td class="whitespace-nowrap">
          <NumberInput :value="printed" :field="field" :name="`${field.label}, data sheet`" :commit="setPrinted(key)" />
          <span v-if="isAssumed(key)" class="ml-1 text-xs text-muted">assumed</span>
        </td>
        <td class="whitespace-nowrap">
          <NumberInput
            :value="measured?.value"
            :field="optional(field)"
            :name="`${field.label}, measured`"
            :commit="setMeasured(key, measured)"
          />
        </td>
        <td class="figure">{{ difference === null ? '' : formatSigned(difference, 2) }}</td>
        <template v-if="measured">
          <td class="whitespace-nowrap">
            <NumberInput
              :value="spreadOf(measured)?.value"
              :field="spread(field)"
              :name="`${field.label}, spread`"
              :commit="(value) => setPart(key, measured, { spread: spreadWith(measured, value) })"
            />
          </td>
          <td class="pl-3 text-left">
            <input
              type="date"
              class="bg-transparent"
              :aria-label="`${field.label}, measured on`"
              :value="measured.on"
              @change="setPart(key, measured, { on: ($event.target as HTMLInputElement).value || undefined })"
            />
          </td>
          <td class="pl-2 text-left">
            <TextInput
              class="w-full"
              optional
              :value="measured.method ?? ''"
              :label="`${field.label}, how measured`"
              :commit="(method) => setPart(key, measured, { method: method || undefined })"
            />
          </td>
        </template>
        <td v-else colspan="3" />
      </tr>
    </tbody>
  </table>
</template>
