<script setup lang="ts">
import { formatISO } from 'date-fns'
import { computed, ref } from 'vue'
import { stagesOf } from '#core/resolved/resolve-session'
import { readingPlace } from '#core/chain/target-window'
import type { Reading } from '#core/model'
import { keepReading } from '#core/soundcheck/keep-reading'
import { windowOf } from '#core/uncertainty/window'
import { formatDecimal, formatSigned } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useSessionStore } from '~/stores/session'

/** The loudest passage as the meter shows it, typed: it is kept as a reading, and the source’s level follows it. */
const props = defineProps<{ strip: string; stage: string }>()
const store = useSessionStore()
const told = ref<string | null>(null)

const meter = computed(() => {
  const session = store.session
  const strip = session?.strips.find(({ id }) => id === props.strip)
  if (!session || !strip) return null
  const stages = stagesOf(session, strip)
  const place = readingPlace(stages, windowOf(session, strip, stages))
  const point = store.evaluation?.strips
    .find(({ id }) => id === props.strip)
    ?.points.find(({ stage }) => stage === props.stage)
  return place && point ? { zero: place.zero, unit: point.unit, peak: point.peak - place.zero } : null
})
const field = computed(
  () =>
    ({
      label: 'Highest peak',
      unit: meter.value?.unit === 'dBFS' ? 'dBFS' : 'dB',
      min: -100,
      max: meter.value?.unit === 'dBFS' ? -0.1 : 40,
      optional: true,
      help: 'As the meter shows it during the loudest passage.',
    }) as const,
)

function keep(value: number | undefined): string | null {
  const read = meter.value
  if (value === undefined || !read) return null
  const reading: Reading = {
    id: `reading-${Date.now().toString(36)}`,
    strip: props.strip,
    stage: props.stage,
    reads: 'peak',
    value: value + read.zero,
    unit: read.unit === 'dBSPL' ? 'dB SPL' : read.unit,
    by: 'typed',
    at: formatISO(new Date()),
  }
  let wrong: string | null = null
  const refused = store.edit('Reading', (session) => {
    const kept = keepReading(session, reading, formatISO(new Date(), { representation: 'date' }))
    if (!kept.ok) {
      wrong = kept.message
      return session
    }
    told.value = `${formatSigned(kept.difference, 1)} dB against the plan: the source’s level follows.`
    return kept.session
  })
  return wrong ?? refused
}
</script>

<template>
  <p v-if="meter" class="mt-0.5 flex flex-wrap items-baseline gap-x-2">
    <span class="text-muted">Planned {{ formatDecimal(meter.peak, 1) }}, read</span>
    <NumberInput :value="undefined" :field="field" name="Highest peak read" :commit="keep" />
    <span v-if="told" role="status">{{ told }}</span>
  </p>
</template>
