<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { EUROPEAN, MOST_PROPOSED } from '#core/monitoring/exposure'
import type { PerformerMonitor } from '#core/monitoring/monitor-session'
import type { Specified } from '#core/edits'
import { blankGear } from '#core/edits'
import { headphonesSpecs, isHeadphones } from '#core/gear'
import { inForce, monitorFields } from '#core/model'
import { freeGearId } from '#core/checks/remedies'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SpecRow from '~/shared/fields/SpecRow.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'
import { useViewStore } from '~/stores/view'
import LoudnessLadder from './LoudnessLadder.vue'

/** What the headphones bring to the ear, how long one may listen to that, and the volume for a wished level. */
const props = defineProps<{ monitor: PerformerMonitor }>()
const store = useSessionStore()
const view = useViewStore()
const shelf = useShelfStore()
const edit = useStageEdit()
const system = useSystemEdit()

const outputs = computed(() => [
  { value: '', text: 'not set' },
  ...(props.monitor.unit?.outputs ?? []).map(({ id, type }) => ({ value: id, text: `${id}, ${type}` })),
])
/** Headphones that the session does not have yet: of the shelf, and others. */
const NEW = 'new '
onMounted(shelf.open)
const models = computed(() => [
  { value: '', text: 'not set' },
  ...(store.session?.gear ?? [])
    .filter((item) => isHeadphones(item))
    .map(({ id, name }) => ({ value: id, text: name })),
  ...shelf.items
    .filter((item) => isHeadphones(item) && !store.session?.gear.some((each) => each.shelf === item.id))
    .map(({ id, name }) => ({ value: `${NEW}${id}`, text: `${name}, from the shelf` })),
  { value: NEW, text: 'others, to be entered' },
])
function setHeadphones(id: string) {
  if (!id.startsWith(NEW)) return system.monitor('Headphones', { headphones: id || undefined })
  const kept = shelf.get(id.slice(NEW.length))
  return edit.session('Add headphones', (session) => {
    const wanted = freeGearId(session, kept?.id ?? 'headphones')
    const gear = kept ? { ...kept, id: wanted, shelf: kept.id } : blankGear('headphones', wanted, 'My headphones')
    return {
      ...session,
      gear: [...session.gear, gear],
      strips: session.strips.map((strip) =>
        strip.id === view.strip?.id ? { ...strip, monitor: { ...strip.monitor, headphones: gear.id } } : strip,
      ),
    }
  })
}
const editSpecs = (label: string, change: <T extends Specified>(gear: T) => T) =>
  edit.gear(props.monitor.headphones?.id ?? '', 'headphones')(label, change)
const setVolume = (value: number | undefined) => system.monitor('Volume', { volume: value })
const wishes = computed(() =>
  [70, 75, 80].map((level) => {
    const volume = props.monitor.ear?.volumeFor(level) ?? null
    return { level, volume: volume === null ? null : Math.round(10 * volume) / 10 }
  }),
)
const hours = (value: number) =>
  value >= 24 ? 'over 24 h' : value >= 1 ? `${formatDecimal(value, 1)} h` : `${formatDecimal(60 * value, 0)} min`
const grades = {
  calm: 'below every action value',
  caution: 'caution: over an action value',
  danger: 'danger: harmful within an hour',
} as const
</script>

<template>
  <section aria-labelledby="phones-title" data-headphones>
    <h2 id="phones-title" class="border-b border-ink pb-0.5">How loud: {{ view.strip?.name }}</h2>
    <LoudnessLadder v-if="monitor.ear" :ear="monitor.ear" />
    <p class="mt-1.5 flex flex-wrap gap-x-4">
      <span
        ><span class="text-muted">from </span
        ><SelectInput
          :value="view.strip?.monitor.output ?? ''"
          label="Output"
          :options="outputs"
          :commit="(output) => system.monitor('Output', { output: output || undefined })"
      /></span>
      <span
        ><span class="text-muted">into </span
        ><SelectInput
          :value="view.strip?.monitor.headphones ?? ''"
          label="Headphones"
          :options="models"
          :commit="setHeadphones"
      /></span>
    </p>
    <template v-if="monitor.headphones">
      <p class="mt-1">
        <TextInput
          class="w-full font-semibold"
          :value="monitor.headphones.name"
          label="Name of the headphones"
          :commit="
            (name) => edit.gear(monitor.headphones?.id ?? '', 'headphones')('Name', (gear) => ({ ...gear, name }))
          "
        />
      </p>
      <SpecRow
        v-for="(field, key) in headphonesSpecs"
        :key="key"
        :owner="monitor.headphones"
        :spec="key"
        :field="field"
        :edit="editSpecs"
      />
    </template>
    <p v-if="!monitor.ear" class="mt-1 text-muted">
      Choose the output that feeds the performer, and the headphones on it, on a strip that reaches the recorder. The
      level at the ear then appears here.
    </p>
    <template v-else>
      <p class="flex justify-between py-px">
        <span class="font-semibold">Volume</span
        ><NumberInput :value="view.strip?.monitor.volume" :field="monitorFields.volume" :step="1" :commit="setVolume" />
      </p>
      <p v-if="monitor.volumeIsProposed" class="text-muted">
        Not set. Shown: {{ formatDecimal(monitor.volume, 1) }} dB, which keeps the average at 75 dBA or below.
      </p>
      <p
        class="mt-1"
        :class="monitor.ear.grade === 'calm' ? '' : 'plate border-l-4 border-l-ceiling px-2 py-1'"
        data-ear
      >
        <strong
          >{{ monitor.ears === 'both' ? '' : `On the ${monitor.ears} ear `
          }}<span class="figure">{{ formatDecimal(monitor.ear.average, 1) }}</span>
          dBA average,
          <span class="figure">{{ formatDecimal(monitor.ear.peak, 1) }}</span> dB peak:
          {{ grades[monitor.ear.grade] }}.</strong
        >
        By NIOSH {{ hours(monitor.ear.nioshHours) }} a day; by the WHO’s measure
        {{ formatDecimal(Math.min(168, monitor.ear.weeklyHours), monitor.ear.weeklyHours < 10 ? 1 : 0) }} h a week.
        European action values {{ EUROPEAN.lower }} and {{ EUROPEAN.upper }} dB(A), limit {{ EUROPEAN.limit }}.
      </p>
      <p class="mt-1 flex flex-wrap gap-2">
        <template v-for="wished in wishes" :key="wished.level">
          <button v-if="wished.volume !== null" type="button" class="push" @click="setVolume(wished.volume)">
            {{ wished.level }} dBA: {{ formatDecimal(wished.volume, 1) }} dB
          </button>
          <span v-else class="py-1 text-muted">{{ wished.level }} dBA is out of reach</span>
        </template>
      </p>
      <p class="mt-1 text-xs text-muted">
        Turn the headphones down before switching phantom power, plugging or testing, and put them on afterwards. At
        full volume the average is {{ formatDecimal(monitor.ear.fullyUp, 1) }} dBA. Nothing over {{ MOST_PROPOSED }} dBA
        is ever proposed. These are cautions, not advice on anyone’s hearing: local rules and a qualified person decide.
        Output {{ formatDecimal(monitor.output ? inForce(monitor.output).fullScale : null, 1) }} dBu at full scale.
      </p>
    </template>
  </section>
</template>
