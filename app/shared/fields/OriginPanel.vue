<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Measurement, NumberField, SpreadStatistic, UnitSymbol, StatedTolerance } from '#core/model'
import { rangeInWords, spreadOf, spreadWith, toleranceInWords, toleranceUnits } from '#core/model'
import { formatDecimal, formatSigned } from '#core/units'
import type { KnownOfValue } from './known-of-value'
import NumberInput from './NumberInput.vue'
import SelectInput from './SelectInput.vue'
import TextInput from './TextInput.vue'

/** What is known of a value’s origin, to be edited: printed, or measured here with its day, method and spread; both, and their difference. */
const props = defineProps<KnownOfValue>()

const statistics = [
  { value: 'half-range', text: 'half the range of repeats' },
  { value: 'sd', text: 'a standard deviation' },
  { value: 'ci95', text: 'a half-width of 95 %' },
] as const
const measuredField = computed<NumberField>(() => ({ ...props.field, optional: true, label: `${props.name} measured` }))
const spreadField = computed<NumberField>(() => ({
  label: 'Spread',
  unit: props.field.unit,
  min: 0,
  max: 100,
  optional: true,
  help: 'Half the spread of the repeats.',
}))
/** Nobody printed it: a usual figure, or how somebody plays. */
const assumed = computed(() => props.origin === 'assumed')
/** Half of a width and its unit, as stated; without one, in the unit that the maker is likely to state it in. */
const stated = computed(() => {
  const own = props.ownTolerance
  if (typeof own === 'object') return own
  const usual = own === undefined && props.tolerance?.of === 'decibels' ? 'dB' : toleranceUnits(props.field)[0]
  const unit = usual ?? props.field.unit
  return { value: own, unit }
})
const unitOptions = computed(() => toleranceUnits(props.field).map((unit) => ({ value: unit, text: `in ${unit}` })))
/** In the value’s own unit the bare number says enough. */
const inUnit = (value: number, unit: string): StatedTolerance =>
  unit === toleranceUnits(props.field)[0] ? value : { value, unit }
const setTolerance = (value: number | undefined) =>
  props.editTolerance(value === undefined ? undefined : inUnit(value, chosenUnit.value))
const chosen = ref<string | null>(null)
/** A choice counts until there is a figure: that says its own unit, after an undo too. */
const chosenUnit = computed(() =>
  stated.value.value === undefined ? (chosen.value ?? stated.value.unit) : stated.value.unit,
)
function setUnit(unit: string): string | null {
  chosen.value = unit
  const { value } = stated.value
  return value === undefined ? null : props.editTolerance(inUnit(value, unit))
}
const toleranceField = computed<NumberField>(() => ({
  label: 'Tolerance',
  unit: chosenUnit.value as UnitSymbol,
  min: 0,
  max: 10_000,
  optional: true,
  help: 'Half the width of the range the value may lie in.',
}))
const difference = computed(() =>
  props.measured && props.printed !== undefined ? props.measured.value - props.printed : null,
)

const setValue = (value: number | undefined) =>
  props.editMeasured(value === undefined ? undefined : { ...props.measured, value })
const setPart = (part: Partial<Measurement>) =>
  props.measured ? props.editMeasured({ ...props.measured, ...part }) : null
const setSpread = (value: number | undefined) => setPart({ spread: spreadWith(props.measured, value) })
const setStatistic = (is: SpreadStatistic) =>
  setPart({ spread: { value: (props.measured && spreadOf(props.measured)?.value) ?? 0, is } })
const setDay = (event: Event) => setPart({ on: (event.target as HTMLInputElement).value || undefined })
</script>

<template>
  <div class="space-y-1.5">
    <h4 class="font-semibold">{{ name }}</h4>
    <p class="text-muted">{{ field.help }} {{ rangeInWords(field) }}.</p>
    <p class="flex justify-between">
      <span class="text-muted">{{ assumed ? 'Assumed' : 'Data sheet' }}</span><NumberInput
        :value="printed"
        :field="field"
        :name="`${name}, data sheet`"
        :commit="editPrinted"
      />
    </p>
    <p class="flex justify-between">
      <span class="text-muted">Measured here</span
      ><NumberInput :value="measured?.value" :field="measuredField" :commit="setValue" />
    </p>
    <template v-if="measured">
      <p v-if="difference !== null" class="flex justify-between">
        <span class="text-muted">Differs by</span
        ><span class="figure"
          >{{ formatSigned(difference, 2) }} <span class="font-sans text-muted">{{ field.unit }}</span></span
        >
      </p>
      <p class="flex justify-between">
        <span class="text-muted">Spread ±</span
        ><NumberInput :value="spreadOf(measured)?.value" :field="spreadField" :commit="setSpread" />
      </p>
      <p v-if="spreadOf(measured)" class="flex justify-between">
        <span class="text-muted">Spread is</span>
        <SelectInput
          :value="spreadOf(measured)?.is ?? 'half-range'"
          label="What the spread is"
          :options="statistics"
          :commit="setStatistic"
        />
      </p>
      <label class="flex justify-between"
        ><span class="text-muted">On</span
        ><input type="date" class="bg-transparent" :value="measured.on" @change="setDay"
      /></label>
      <p class="flex gap-2">
        <span class="text-muted">How</span
        ><TextInput
          class="grow"
          :value="measured.method ?? ''"
          :label="`How ${name} was measured`"
          optional
          :commit="(method) => setPart({ method: method || undefined })"
        />
      </p>
      <button type="button" class="action" @click="editMeasured(undefined)">
        Go back to the {{ assumed ? 'assumed' : 'data sheet' }} value, {{ formatDecimal(printed, 2) }}
      </button>
    </template>
    <template v-else>
      <p v-if="tolerance && printed !== undefined" class="flex justify-between gap-2">
        <span class="text-muted"
          >Tolerance ±{{ ownTolerance === undefined ? `, usually ${toleranceInWords(tolerance, field)}` : '' }}</span
        ><NumberInput
          :value="stated.value"
          :field="toleranceField"
          :name="`Tolerance of ${name}`"
          :commit="setTolerance"
        />
        <SelectInput
          v-if="unitOptions.length > 1"
          :value="chosenUnit"
          :label="`Unit of the tolerance of ${name}`"
          :options="unitOptions"
          :commit="setUnit"
        />
      </p>
      <p class="text-muted">
        A measured value wins over the {{ assumed ? 'assumed one' : 'data sheet' }}. Both are kept.
      </p>
    </template>
  </div>
</template>
