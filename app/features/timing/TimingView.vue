<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed } from 'vue'
import { LARGEST_RIFF, recordingBytes } from '#core/latency/disk'
import { listeningKinds, performerLimit } from '#core/latency/performer'
import { routeTime } from '#core/latency/route-words'
import { roundTripsOf } from '#core/latency/round-trip'
import type { Listening, Performer } from '#core/model'
import { channelsOf, drivers, performerFields, timingFields } from '#core/model'
import { withPart } from '#core/edits'
import { formatDecimal, formatShort, formatSigned } from '#core/units'
import { fitChart } from './fit-chart'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useRecommendation } from '~/composables/use-recommendation'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'
import { useViewStore } from '~/stores/view'
import DeviceList from './DeviceList.vue'
import GuidedTrial from './GuidedTrial.vue'
import MeasureLine from './MeasureLine.vue'
import MeasureList from './MeasureList.vue'
import RouteBar from './RouteBar.vue'
import TimingMap from './TimingMap.vue'

const ChartCanvas = lateComponent(() => import('~/shared/charts/ChartCanvas.vue'))

/** Which buffer and rate: what each comes to, what the machine sustains, what the performer can bear. */
const store = useSessionStore()
const view = useViewStore()
const timing = useTimingStore()
const edit = useSystemEdit()

const system = computed(() => store.session?.system)
const listenings = Object.entries(listeningKinds).map(([value, { words }]) => ({
  value: value as Listening,
  text: words,
}))
const driverOptions: { value: (typeof drivers)[number] | ''; text: string }[] = [
  { value: '', text: 'not set' },
  ...drivers.map((value) => ({
    value,
    text: { exclusive: 'exclusive, low latency', class: 'class driver', shared: 'shared mixer' }[value],
  })),
]
const depths = [
  { value: 16, text: '16 bits' },
  { value: 24, text: '24 bits' },
  { value: 32, text: '32, float' },
] as const
const kind = computed(() => listeningKinds[view.strip?.performer?.listensTo ?? 'plucked'])
const setListening = (listensTo: Listening) =>
  edit.strip('Performer', (strip) => ({ ...strip, performer: { ...strip.performer, listensTo } }))
const setLimit = (limit: number | undefined) =>
  edit.strip('Limit', (strip) => ({
    ...strip,
    performer: withPart<Performer>({ listensTo: strip.performer?.listensTo ?? 'plucked' }, { limit }),
  }))

const routes = computed(() => view.evaluated?.latency ?? [])
const longest = computed(() => Math.max(...routes.value.map((route) => route.milliseconds), 0.1))
const names = { direct: 'Direct monitoring', software: 'Software monitoring' } as const

const measured = computed(() =>
  (system.value && timing.unit ? roundTripsOf(system.value, timing.unit) : []).map((each) => ({
    bufferMs: (1000 * each.bufferFrames) / each.sampleRate,
    milliseconds: each.milliseconds,
  })),
)
const chart = computed(() => {
  const { fit } = timing.timing ?? {}
  const rate = system.value?.sampleRate ?? 48_000
  const line = (fit ? [0, Math.max(...measured.value.map((each) => each.bufferMs)) * 1.15] : []).map((bufferMs) => ({
    bufferMs,
    milliseconds: (fit?.buffers ?? 0) * bufferMs + (1000 * (fit?.frames ?? 0)) / rate + (fit?.fixedMs ?? 0),
  }))
  return fitChart(measured.value, line)
})
const plusMinus = (value: number | null | undefined, digits: number) =>
  value == null ? '' : ` ± ${formatDecimal(value, digits)}`
const fitWords = computed(() => {
  const fit = timing.timing?.fit
  if (!fit) return null
  const { buffers, frames, fixedMs, spreads } = fit
  const fixed = `${formatDecimal(fixedMs, 2)}${plusMinus(spreads.fixedMs, 2)} ms`
  const besides = fit.separable
    ? `${formatDecimal(frames, 1)}${plusMinus(spreads.frames, 1)} frames and ${fixed} fixed`
    : `${fixed} besides`
  const residual = `residual ${formatDecimal(fit.residualMs, 2)} ms over ${fit.points} points`
  return `${formatDecimal(buffers, 2)}${plusMinus(spreads.buffers, 2)} buffers, ${besides}; ${residual}.`
})
const channels = computed(() => (store.session ? channelsOf(store.session).length : 0))
const bytes = (seconds: number) =>
  recordingBytes(system.value?.sampleRate ?? 0, system.value?.bitDepth ?? 24, channels.value, seconds)
const gb = (value: number) => formatDecimal(value / 1e9, 2)
const { adopted, adopt } = useRecommendation()
</script>

<template>
  <div
    v-if="system && timing.timing"
    id="timing-place"
    tabindex="-1"
    class="grow gap-5 px-3 pt-2 card:px-5 column:grid column:min-h-0 column:grid-cols-[minmax(0,1fr)_19rem] column:overflow-hidden"
  >
    <div
      class="min-w-0 space-y-4 pb-4 column:min-h-0 column:overflow-y-auto"
      tabindex="0"
      aria-label="Rates, buffers and measurements"
    >
      <TimingMap v-if="timing.unit" />
      <p v-else class="text-muted">
        No strip reaches an interface yet. Add an interface input on Path: Timing is about its driver and buffers.
      </p>
      <section v-if="routes.length > 0" aria-labelledby="parts-title" class="space-y-2">
        <h2 id="parts-title" class="border-b border-ink pb-0.5">{{ view.strip?.name }}: parts of the delay</h2>
        <RouteBar
          v-for="route in routes"
          :key="route.route"
          :route="route"
          :name="names[route.route]"
          :temperature="store.session?.room.temperature ?? 20"
          :longest="longest"
        />
      </section>
      <section aria-labelledby="measured-title">
        <h2 id="measured-title" class="border-b border-ink pb-0.5">Measured</h2>
        <div class="mt-1.5 grid gap-5 card:grid-cols-[minmax(0,1fr)_16rem]">
          <div class="space-y-2">
            <MeasureLine />
            <MeasureList />
            <p v-if="fitWords" class="text-muted" data-fit>Fitted: {{ fitWords }}</p>
            <p v-if="timing.timing.overdubOffsetFrames !== undefined" data-offset>
              Recording offset to enter in the host:
              <strong class="figure">{{ formatSigned(timing.timing.overdubOffsetFrames, 0) }}</strong> frames (<span
                class="figure"
                >{{ formatSigned(timing.timing.overdubOffsetMs, 2) }}</span
              >
              ms), measured less reported. Positive: recordings are late, and the host has to shift them earlier by that
              much.
            </p>
          </div>
          <div class="h-44">
            <ChartCanvas
              v-if="measured.length > 0"
              :config="chart"
              label="Measured round trips over the time of one buffer, with the fitted line; the list beside has every figure."
            />
            <p v-else class="text-muted">
              With one or two measured points, the line for all untested buffers appears here.
            </p>
          </div>
        </div>
      </section>
    </div>
    <aside
      class="min-h-0 space-y-3 overflow-y-auto pb-4"
      tabindex="0"
      aria-label="Performer, recommendation, findings and remedies"
    >
      <section aria-labelledby="performer-title">
        <h2 id="performer-title" class="border-b border-ink pb-0.5">{{ view.strip?.name }} listens to</h2>
        <p class="mt-1 flex flex-wrap items-baseline gap-x-3">
          <SelectInput
            :value="view.strip?.performer?.listensTo ?? 'plucked'"
            label="Listens to"
            :options="listenings"
            :commit="setListening"
          />
          <span
            >limit
            <NumberInput
              :value="view.strip?.performer?.limit"
              :field="performerFields.limit"
              :step="0.5"
              :commit="setLimit"
          /></span>
        </p>
        <p class="mt-1 text-muted">
          Under {{ formatShort(performerLimit(view.strip?.performer)) }} ms: {{ kind.why }}. (Common practice and
          published listening tests; your own limit wins.)
        </p>
      </section>
      <section v-if="view.recommendation" aria-labelledby="best-title" data-recommendation>
        <h2 id="best-title" class="border-b border-ink pb-0.5">Recommended</h2>
        <p class="mt-1">
          <strong
            >{{
              view.recommendation.route === 'direct'
                ? 'Direct'
                : `${formatShort(view.recommendation.sampleRate / 1000)} kHz, ${view.recommendation.bufferFrames} frames`
            }}, <span class="figure">{{ routeTime(view.recommendation) }}</span>.</strong
          >
          <span class="text-muted">{{ view.recommendation.reason }}</span>
          <button v-if="!adopted" type="button" class="action" @click="adopt">Set it</button
          ><span v-else class="text-muted"> In use.</span>
        </p>
      </section>
      <GuidedTrial />
      <section aria-labelledby="machine-title">
        <h2 id="machine-title" class="border-b border-ink pb-0.5">Machine</h2>
        <p class="mt-1 flex justify-between">
          <span class="text-muted">Driver</span
          ><SelectInput
            :value="system.driver ?? ''"
            label="Driver"
            :options="driverOptions"
            :commit="(driver) => edit.system('Driver', { driver: driver || undefined })"
          />
        </p>
        <p v-if="system.driver === 'shared'" class="flex justify-between">
          <span class="text-muted">Engine period, each way</span
          ><NumberInput
            :value="system.sharedPeriod"
            :field="timingFields.sharedPeriod"
            :commit="(sharedPeriod) => edit.system('Engine period', { sharedPeriod: sharedPeriod })"
          />
        </p>
        <p class="flex justify-between">
          <span class="text-muted">Bit depth</span
          ><SelectInput
            :value="system.bitDepth"
            label="Bit depth"
            :options="depths"
            :commit="(bitDepth) => edit.system('Bit depth', { bitDepth })"
          />
        </p>
        <p class="flex justify-between">
          <span class="text-muted">To record</span
          ><NumberInput
            :value="system.takeMinutes"
            :field="timingFields.takeMinutes"
            :commit="(takeMinutes) => edit.system('To record', { takeMinutes: takeMinutes })"
          />
        </p>
        <p class="text-muted">
          {{ channels }} {{ channels === 1 ? 'channel' : 'channels' }}:
          <span class="figure text-ink">{{ gb(bytes(3600)) }}</span> GB an hour<template v-if="system.takeMinutes"
            >, <span class="figure text-ink" data-disk>{{ gb(bytes(60 * system.takeMinutes)) }}</span> GB in all{{
              bytes(60 * system.takeMinutes) > LARGEST_RIFF ? ', over the 4 GiB of one classic WAV file' : ''
            }}</template
          >.
        </p>
        <DeviceList />
      </section>
      <section v-if="timing.timing.findings.length > 0" aria-labelledby="clock-title">
        <h2 id="clock-title" class="border-b border-ink pb-0.5">Needs attention</h2>
        <ul class="mt-1 space-y-1.5">
          <li
            v-for="finding in timing.timing.findings"
            :key="finding.code + finding.message"
            class="plate px-2 py-1"
            :class="finding.severity === 'note' ? '' : 'border-l-4 border-l-ceiling'"
            :data-finding="finding.code"
          >
            <strong>{{ { stop: 'Stop', caution: 'See to', note: 'Note' }[finding.severity] }}.</strong>
            {{ finding.message }} <span class="text-muted">{{ finding.action }}</span>
          </li>
        </ul>
      </section>
      <section v-if="timing.remedies.length > 0" aria-labelledby="remedies-title">
        <h2 id="remedies-title" class="border-b border-ink pb-0.5">If it crackles, try in this order</h2>
        <ol class="mt-1 list-decimal space-y-0.5 pl-5" data-remedies>
          <li v-for="remedy in timing.remedies" :key="remedy">{{ remedy }}</li>
        </ol>
      </section>
    </aside>
  </div>
</template>
