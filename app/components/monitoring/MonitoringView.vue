<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { combOf } from '#core/monitoring/comb'
import { monitorSession } from '#core/monitoring/monitor-session'
import { monitorFields } from '#core/session'
import { airTime, celsius, formatDecimal, formatShort, frames, metres } from '#core/units'
import { combChart } from '~/charts/comb-chart'
import NumberInput from '~/components/fields/NumberInput.vue'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import HeadphonesPanel from './HeadphonesPanel.vue'
import RouteLane from './RouteLane.vue'
import SendsPanel from './SendsPanel.vue'

const ChartCanvas = defineAsyncComponent(() => import('~/components/charts/ChartCanvas.vue'))

/** What the performer hears, by which way, how late, how loud, and whether twice. */
const store = useSessionStore()
const view = useViewStore()
const edit = useSystemEdit()

const monitor = computed(() =>
  store.session ? (monitorSession(store.session).find((each) => each.strip === view.strip?.id) ?? null) : null,
)
const settings = computed(() => view.strip?.monitor)
const names = { direct: 'Direct, inside the interface', software: 'Through the host' } as const
const ways = [
  { value: 'direct', text: 'Direct' },
  { value: 'software', text: 'Through the host' },
  { value: 'both', text: 'Both at once' },
] as const
const way = computed(() => (settings.value?.alsoHeard !== undefined ? 'both' : (settings.value?.route ?? 'software')))
/** Where both are heard, the other path is taken to be 6 dB lower until it is said otherwise. */
const setWay = (value: (typeof ways)[number]['value']) =>
  edit.monitor('Listens by', value === 'both' ? { alsoHeard: -6 } : { route: value, alsoHeard: undefined })

const ear = computed(() => (monitor.value?.ear ? `${formatDecimal(monitor.value.ear.average, 1)} dBA` : null))
const doubling = computed(() => monitor.value?.doubling ?? null)
/** What it would be, were both heard, for the comparison. */
const difference = computed(() => {
  const [direct, software] = (['direct', 'software'] as const).map(
    (route) => monitor.value?.routes.find((each) => each.route === route)?.milliseconds,
  )
  return direct === undefined || software === undefined ? null : Math.abs(software - direct)
})
const chart = computed(() => combChart(doubling.value?.delayMs ?? 0, doubling.value?.difference ?? 0))
const hz = (value: number) =>
  value >= 1000 ? `${formatDecimal(value / 1000, 2)} kHz` : `${formatDecimal(value, 1)} Hz`
const speakerMs = computed(() =>
  settings.value?.speakerDistance
    ? airTime(metres(settings.value.speakerDistance), celsius(store.session?.room.temperature ?? 20))
    : null,
)
const blend = computed(() => settings.value?.blend ?? 50)
</script>

<template>
  <div
    v-if="monitor && settings"
    class="grid min-h-0 grow grid-cols-[minmax(0,1fr)_21rem] gap-5 overflow-hidden px-5 pt-2"
  >
    <div class="min-h-0 space-y-3 overflow-y-auto pb-4" tabindex="0" aria-label="Routes and what is heard">
      <div class="flex items-center justify-between">
        <h2>{{ view.strip?.name }}: from the source to the ear</h2>
        <div class="flex border border-rule" role="radiogroup" aria-label="The performer listens by">
          <button
            v-for="each in ways"
            :key="each.value"
            type="button"
            role="radio"
            :aria-checked="way === each.value"
            class="px-2 py-0.5"
            :class="way === each.value ? 'bg-ink text-paper' : 'bg-sheet'"
            @click="setWay(each.value)"
          >
            {{ each.text }}
          </button>
        </div>
      </div>
      <p v-if="monitor.routes.length === 0" class="text-muted">The strip reaches no interface yet: add one on Path.</p>
      <RouteLane
        v-for="route in monitor.routes"
        :key="route.route"
        :route="route"
        :name="names[route.route]"
        :heard="way === 'both' || route.route === settings.route"
        :from="view.strip?.name ?? ''"
        :to="settings.speakerDistance ? 'loudspeaker, ear' : 'ear'"
        :level="ear"
      />
      <p v-if="view.recommendation" class="text-muted">
        Recommended:
        <span class="text-ink"
          >{{ view.recommendation.route === 'direct' ? 'direct' : 'through the host' }},
          {{ formatDecimal(view.recommendation.milliseconds, 2) }} ms.</span
        >
        {{ view.recommendation.reason }}
      </p>
      <ul class="list-disc pl-5">
        <li v-for="note in monitor.notes" :key="note">{{ note }}</li>
      </ul>

      <section v-if="doubling" aria-labelledby="comb-title" data-doubling>
        <h2 id="comb-title" class="border-b border-ink pb-0.5">Heard twice</h2>
        <p class="mt-1">
          <strong
            >First notch at {{ hz(doubling.firstNotch) }}, ripple
            {{ doubling.ripple === Infinity ? 'down to silence' : `${formatDecimal(doubling.ripple, 2)} dB` }}.</strong
          >
          The two paths are {{ formatDecimal(doubling.delayMs, 2) }} ms apart; the other path is
          <NumberInput
            :value="settings.alsoHeard"
            :field="monitorFields.alsoHeard"
            :step="1"
            :commit="(alsoHeard) => edit.monitor('Other path', { alsoHeard: alsoHeard })"
          />. Switch off {{ doubling.switchOff }}.
        </p>
        <div class="mt-1 h-52">
          <ChartCanvas
            :config="chart"
            :label="`Response of the two paths together from 20 Hz to 20 kHz: first notch ${hz(doubling.firstNotch)}, ripple ${formatDecimal(doubling.ripple, 2)} dB.`"
          />
        </div>
        <details>
          <summary class="cursor-pointer text-muted">The notches as a table</summary>
          <table>
            <thead>
              <tr>
                <th scope="col" class="pr-6 text-left font-semibold">Notch</th>
                <th scope="col" class="text-right font-semibold">Frequency</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="n in 6" :key="n">
                <th scope="row" class="text-left font-normal">{{ n }}</th>
                <td class="figure text-right">{{ hz(doubling.firstNotch * (2 * n - 1)) }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </section>
      <p v-else-if="difference !== null" class="text-muted">
        Were both heard, they would be {{ formatDecimal(difference, 2) }} ms apart, with the first notch at
        {{ hz(combOf(difference, -6).firstNotch) }}: listen by one only.
      </p>
    </div>
    <aside
      class="min-h-0 space-y-4 overflow-y-auto pb-4"
      tabindex="0"
      aria-label="Headphones, loudspeaker, own sound against playback and sends"
    >
      <HeadphonesPanel :monitor="monitor" />
      <section aria-labelledby="blend-title">
        <h2 id="blend-title" class="border-b border-ink pb-0.5">Own sound against playback</h2>
        <p class="mt-1 flex justify-between">
          <span class="text-muted">Own sound against playback</span
          ><NumberInput
            :value="settings.blend"
            :field="monitorFields.blend"
            :step="5"
            :commit="(value) => edit.monitor('Own sound against playback', { blend: value })"
          />
        </p>
        <div
          class="relative mt-1 h-3 border-y border-rule bg-sheet"
          role="img"
          :aria-label="`Own sound against playback at ${formatShort(blend)} %: 0 the own sound alone, 100 the playback alone`"
        >
          <span class="absolute inset-y-0 w-0.5 bg-change" :style="{ left: `${blend}%` }" /><span
            class="absolute inset-y-0 left-1/2 w-px bg-rule"
          />
        </div>
        <p class="text-xs text-muted">
          Left is one’s own sound only, right the playback only;
          {{
            settings.blend === undefined
              ? 'start in the middle.'
              : settings.blend < 45
                ? 'more of oneself than of the others.'
                : settings.blend > 55
                  ? 'more of the others than of oneself.'
                  : 'the middle, the usual start.'
          }}
        </p>
        <p class="mt-1 flex justify-between">
          <span class="text-muted">Plug-ins on this path</span
          ><NumberInput
            :value="settings.pluginFrames"
            :field="monitorFields.pluginFrames"
            :commit="(value) => edit.monitor('Plug-in delay', { pluginFrames: frames(value ?? 0) })"
          />
        </p>
        <p class="flex justify-between">
          <span class="text-muted">Loudspeaker at</span
          ><NumberInput
            :value="settings.speakerDistance"
            :field="monitorFields.speakerDistance"
            :step="0.5"
            :commit="(value) => edit.monitor('Loudspeaker', { speakerDistance: value })"
          />
        </p>
        <p v-if="speakerMs !== null" class="text-muted">
          {{ formatDecimal(speakerMs, 2) }} ms of air at {{ formatShort(store.session?.room.temperature ?? 20) }} °C.
        </p>
      </section>
      <SendsPanel :monitor="monitor" />
    </aside>
  </div>
</template>
