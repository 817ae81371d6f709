<script setup lang="ts">
import { computed, ref } from 'vue'
import { stagesOf } from '#core/resolved/resolve-session'
import { stageName } from '#core/chain/setting-words'
import { loudestPassage } from '#core/measure/loudest-passage'
import type { NumberField } from '#core/model'
import { readingWorth } from '#core/model'
import { expectedAt, meterChoices } from '#core/soundcheck/meter-choices'
import type { Step } from '#core/soundcheck/step'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useMeasuring } from '~/composables/use-measuring'
import { useSoundcheck } from './use-soundcheck'
import { useSessionStore } from '~/stores/session'

/** What a meter shows on the loudest passage, typed or taken from a recording: at any stage of the strip, with the worth of its kind. */
const props = defineProps<{ step: Step }>()
const store = useSessionStore()
const soundcheck = useSoundcheck()
const measuring = useMeasuring()
const told = ref<string | null>(null)

const stages = computed(() => {
  const strip = store.session?.strips.find(({ id }) => id === props.step.strip)
  return store.session && strip ? stagesOf(store.session, strip) : []
})
const points = computed(() => store.evaluation?.strips.find(({ id }) => id === props.step.strip)?.points ?? [])
const readable = computed(() =>
  stages.value.flatMap((stage) => {
    const point = points.value.find((each) => each.stage === stage.id)
    return point ? [{ stage, point }] : []
  }),
)
const chosenStage = ref<string | null>(null)
const at = computed(
  () =>
    readable.value.find(
      ({ stage }) => stage.id === (chosenStage.value ?? props.step.read?.stage ?? props.step.stage),
    ) ?? readable.value.at(-1),
)
const meters = computed(() => (at.value ? meterChoices(at.value.stage, at.value.point) : []))
const chosenMeter = ref<string | null>(null)
const meter = computed(
  () =>
    meters.value.find(({ words }) => words === chosenMeter.value) ??
    meters.value.find(({ reads }) => reads === props.step.read?.reads) ??
    meters.value[0],
)
const spread = ref<number | undefined>(undefined)
const worth = computed(() => spread.value ?? (meter.value ? 2 * readingWorth[meter.value.reads] : 1))
const expected = computed(() =>
  store.session && at.value && meter.value && props.step.strip
    ? expectedAt(store.session, { strip: props.step.strip, stage: at.value.stage.id, ...meter.value })
    : null,
)

const field = computed<NumberField>(() => ({
  label: 'Read',
  unit: meter.value?.unit === 'VU' ? 'dB' : (meter.value?.unit ?? 'dBFS'),
  min: -160,
  max: meter.value?.unit === 'dBFS' ? 0 : 160,
  optional: true,
  help: 'As the meter shows it during the loudest passage.',
}))
const WORTH: NumberField = {
  label: 'Uncertainty ±',
  unit: 'dB',
  min: 0.02,
  max: 40,
  help: 'The true level lies within this with 95 %. For a meter of unknown ballistics allow about ± 3 dB.',
}

function take(value: number | undefined, by: 'typed' | 'file' = 'typed'): string | null {
  if (value === undefined || !at.value || !meter.value || !props.step.strip) return null
  told.value = null
  return soundcheck.take({
    strip: props.step.strip,
    stage: at.value.stage.id,
    meter: meter.value,
    value,
    by,
    spread: spread.value === undefined ? undefined : spread.value / 2,
  })
}

/** The loudest passage of a recording that was made through this strip. */
async function takeFile(event: Event) {
  const input = event.target as HTMLInputElement
  const [recording] = input.files ?? []
  input.value = ''
  if (!recording) return
  const answer = await measuring.measure(recording.name, { recording, question: { kind: 'levels' } })
  if (!answer) {
    told.value = measuring.trouble.value ?? 'It was not measured.'
    return
  }
  const passage = loudestPassage(answer.report)
  const peak = Math.max(...answer.report.channels.map((each) => each.peak ?? -Infinity))
  const value = meter.value?.reads === 'average' ? passage?.level : passage ? peak : undefined
  told.value =
    value === undefined
      ? 'The recording is silent: nothing was read.'
      : (take(value, 'file') ?? `From “${recording.name}”.`)
}
</script>

<template>
  <div v-if="at && meter" class="mt-1.5 space-y-1" data-typed-reading>
    <p class="flex flex-wrap items-baseline gap-x-2 gap-y-1">
      <span>Read:</span>
      <NumberInput :value="undefined" :field="field" name="Read" :commit="take" />
      <SelectInput
        :value="meter.words"
        label="By which meter"
        :options="meters.map(({ words }) => ({ value: words, text: words }))"
        :commit="
          (words) => {
            chosenMeter = words
            return null
          }
        "
      />
    </p>
    <p class="flex flex-wrap items-baseline gap-x-2 gap-y-1 text-muted">
      <SelectInput
        :value="at.stage.id"
        label="At which stage"
        :options="readable.map(({ stage }) => ({ value: stage.id, text: `at ${stageName(stage)}` }))"
        :commit="
          (id) => {
            chosenStage = id
            chosenMeter = null
            return null
          }
        "
      />
      <span
        >±
        <NumberInput
          :value="worth"
          :field="WORTH"
          name="Uncertainty ±"
          :commit="
            (value) => {
              spread = value
              return null
            }
          "
      /></span>
      <span v-if="expected !== null" class="whitespace-nowrap"
        >planned <span class="figure">{{ formatDecimal(expected, 1) }}</span></span
      >
    </p>
    <p v-if="at.point.unit === 'dBFS'" class="text-muted">
      <label class="action cursor-pointer"
        >or from a WAV file<input
          type="file"
          accept=".wav,.wave,audio/wav"
          class="sr-only"
          aria-label="Reading from a WAV file"
          @change="takeFile"
      /></label>
      <span v-if="measuring.progress.value !== null" role="status"> Measuring…</span>
      <span v-if="told" role="status"> {{ told }}</span>
    </p>
  </div>
</template>
