<script setup lang="ts">
import { isInterface } from '#core/gear'
import { computed, onMounted, ref, watch } from 'vue'
import { stagesOf } from '#core/resolved/resolve-session'
import { stageName } from '#core/chain/setting-words'
import { isBus } from '#core/model'
import { deviationOf, performanceAt } from '#core/simulated/performance'
import type { Playing } from '#core/render/performer'
import type { MeterChoice } from '#core/soundcheck/meter-choices'
import { formatShort } from '#core/units'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { COLUMNS } from '~/composables/use-gauge'
import type { LiveGauge } from '~/composables/use-gauge'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'
import { useViewStore } from '~/stores/view'
import GaugeFigures from './GaugeFigures.vue'
import RiverCanvas from './RiverCanvas.vue'

/** The live gauge: what the browser is handed of an input, or of a simulated performer, as it flows. */
const props = defineProps<{ gauge: LiveGauge; taking: (meter: MeterChoice, value: number) => string | null }>()
const store = useSessionStore()
const view = useViewStore()
const soundcheck = useSoundcheckStore()
const { source, opened, snapshot, devices, device, channels, trouble, opening, asleep, elsewhere, processed } =
  props.gauge
const told = ref<string | null>(null)
const playing = ref<Playing>('usual')
const PLAYING: { value: Playing; text: string }[] = [
  { value: 'silent', text: 'silent' },
  { value: 'usual', text: 'playing' },
  { value: 'loudest', text: 'loudest passage' },
  { value: 'surge', text: 'as in the take' },
]
onMounted(() => props.gauge.look())

const stages = computed(() => (store.session && view.strip ? stagesOf(store.session, view.strip) : []))
const points = computed(() => view.evaluated?.points ?? [])
/** Where the gauge stands: the step’s own meter where that is a recorder’s, or the last stage in numbers. */
const at = computed(() => {
  const wanted = soundcheck.step?.read?.stage
  const own = points.value.findIndex(({ stage, unit }) => stage === wanted && unit === 'dBFS')
  return own >= 0
    ? own
    : points.value.findLastIndex(
        ({ unit, stage }) => unit === 'dBFS' && stages.value.some((each) => each.id === stage && isInterface(each)),
      )
})
const point = computed(() => points.value[at.value] ?? null)
const name = computed(() => {
  const stage = stages.value.find(({ id }) => id === point.value?.stage)
  return stage ? stageName(stage) : (view.strip?.name ?? '')
})
const simulated = computed(() => {
  if (!view.strip || isBus(view.strip)) return null
  return performanceAt(points.value, at.value, deviationOf(view.strip.id))
})
const banks = computed(() => {
  const read = soundcheck.step?.read
  const own = view.sure?.points.find(({ stage }) => stage === point.value?.stage)?.peak
  return {
    window:
      read && read.unit === 'dBFS' && read.stage === point.value?.stage ? { low: read.low, high: read.high } : null,
    expected: point.value ? { level: point.value.peak, give: own ? 2 * own.u : 0 } : null,
    held: snapshot.value?.passage.peak ?? null,
    floor: snapshot.value?.floor ?? null,
  }
})

async function simulate() {
  if (!simulated.value || !store.session || !view.strip) return
  const seed = Math.abs(Math.round(1000 * deviationOf(view.strip.id))) + 1
  await props.gauge.simulate(store.session.system.sampleRate, simulated.value, seed, playing.value)
}
// A gain that is turned is heard at once; another strip is another performer.
watch(simulated, (performance) => {
  if (source.value === 'simulated' && performance) props.gauge.setPerformance(performance)
})
watch(
  () => view.strip?.id,
  () => {
    if (source.value !== 'simulated') return
    if (simulated.value) void simulate()
    else void props.gauge.close()
  },
)
function play(next: Playing) {
  playing.value = next
  props.gauge.setPlaying(next)
  props.gauge.startPassage()
}

const nameOf = (strip: string) => store.session?.strips.find(({ id }) => id === strip)?.name ?? 'another strip'
const chosen = computed(() => channels.value.join('+'))
const choices = computed(() => {
  const count = opened.value?.channels ?? 1
  const each = Array.from({ length: count }, (_, i) => ({ value: String(i), text: `channel ${i + 1}` }))
  const pairs = Array.from({ length: Math.floor(count / 2) }, (_, i) => ({
    value: `${2 * i}+${2 * i + 1}`,
    text: `channels ${2 * i + 1} and ${2 * i + 2}`,
  }))
  return [...each, ...pairs]
})
const choose = (event: Event) => props.gauge.choose((event.target as HTMLSelectElement).value.split('+').map(Number))

/** The passage’s highest peak, or its loudest average where that is what the target reads. */
function take() {
  const passage = snapshot.value?.passage
  const reads = soundcheck.step?.read?.reads === 'average' ? 'average' : 'peak'
  const value = reads === 'average' ? passage?.loudest : passage?.peak
  if (processed.value.length > 0)
    told.value = `Not used: the browser could not switch off ${processed.value.join(' and ')}, so this level is not the input’s. Type what the recorder shows.`
  else if (value == null) told.value = 'No signal yet. Play the loudest passage, then take the reading.'
  else
    told.value = props.taking(
      { reads, unit: 'dBFS', words: reads === 'average' ? 'average (RMS)' : 'sample peak' },
      value,
    )
}
defineExpose({ take, startPassage: () => props.gauge.startPassage() })
</script>

<template>
  <section aria-labelledby="gauge-title" data-gauge :data-source="source">
    <h2 id="gauge-title" class="flex flex-wrap items-baseline justify-between gap-x-3 border-b border-ink pb-0.5">
      Gauge: {{ name }}
      <span class="font-normal text-muted" data-gauge-source>{{
        source === 'device'
          ? `${opened?.name}, ${formatShort((opened?.sampleRate ?? 0) / 1000)} kHz, ${processed.length === 0 ? 'processing off' : 'processing on'}`
          : source === 'simulated'
            ? 'a simulated performer, for practice'
            : source === 'remote'
              ? 'heard by the other device'
              : 'not listening'
      }}</span>
    </h2>
    <p v-if="trouble" role="alert" class="mt-1 border-l-3 border-ceiling pl-2" data-trouble>
      {{ trouble }}
      <button v-if="asleep" type="button" class="action" @click="gauge.wake">Wake it</button>
    </p>
    <p v-if="processed.length > 0" role="alert" class="mt-1 border-l-3 border-ceiling pl-2">
      The browser could not switch off {{ processed.join(' and ') }}: the gauge does not show the true input, and takes
      no readings.
    </p>
    <p v-if="elsewhere" class="mt-1 border-l-3 border-change pl-2" data-elsewhere>
      The other device is listening to {{ nameOf(elsewhere) }}.
      <button type="button" class="action" @click="view.select(elsewhere)">Go to {{ nameOf(elsewhere) }}</button>
    </p>
    <RiverCanvas
      class="mt-1"
      :columns="gauge.river"
      :most="COLUMNS"
      :banks="banks"
      :drawn="snapshot"
      :label="`Level of ${name} over the last half minute, under its ceiling at 0 dBFS`"
    />
    <GaugeFigures class="mt-1" :snapshot="snapshot" />
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <template v-if="source === 'none'">
        <button type="button" class="push-main" :disabled="opening" data-open @click="gauge.open()">
          {{ opening ? 'Opening…' : 'Listen to an input' }}
        </button>
        <label v-if="devices.length > 0" class="flex min-w-0 items-center gap-1"
          ><span class="sr-only">Input of this computer</span>
          <select v-model="device" class="max-w-44 border-b border-dotted border-rule bg-sheet">
            <option :value="null">the default input</option>
            <option v-for="each in devices" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select></label
        >
        <button v-if="simulated" type="button" class="push" data-simulate @click="simulate">
          Try a simulated performer
        </button>
      </template>
      <template v-else>
        <button type="button" class="push-main" data-take @click="take">Take the reading</button>
        <button type="button" class="push" data-passage @click="gauge.startPassage()">New passage</button>
        <span class="text-xs text-muted">Space takes, R restarts the passage</span>
        <label v-if="source === 'device' && choices.length > 1" class="flex items-center gap-1"
          ><span class="sr-only">Channel</span>
          <select :value="chosen" class="border-b border-dotted border-rule bg-sheet" data-channel @change="choose">
            <option v-for="each in choices" :key="each.value" :value="each.value">{{ each.text }}</option>
          </select></label
        >
        <ChoiceBar
          v-if="source === 'simulated'"
          :options="PLAYING"
          :chosen="playing"
          label="How it plays"
          @choose="play"
        />
        <button v-if="source !== 'remote'" type="button" class="action ml-auto" data-close @click="gauge.close()">
          Stop listening
        </button>
      </template>
    </div>
    <p v-if="told" role="status" class="mt-1" data-told>{{ told }}</p>
    <p class="mt-1 text-xs text-muted">
      {{
        source === 'simulated'
          ? 'Made up from the strip as it is set, and up to 5 dB off the plan, as a performer may be. Its readings are practice: undo them, or work in a copy of the session.'
          : 'This is what the browser is handed, after the driver and the system’s slider. Nothing is kept of the sound, and nothing leaves this computer.'
      }}
    </p>
  </section>
</template>
