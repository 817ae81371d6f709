<script setup lang="ts">
import { format } from 'date-fns'
import { computed } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import { settingWords } from '#core/chain/setting-words'
import { noiseWords } from '#core/evaluation/verdict'
import { routeTime } from '#core/latency/route-words'
import { kinds, isDigitalInput, isInterface } from '#core/gear'
import { inItsUnit, unitOfSpread } from '#core/model'
import { nameOfInput } from '#core/uncertainty/input'
import { formatDecimal, formatShort, formatSigned } from '#core/units'
import type { Send } from '~/shared/sends/use-sends'
import { useSends } from '~/shared/sends/use-sends'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'
import { useViewStore } from '~/stores/view'
import PathTable from './PathTable.vue'

/** The path on paper: the verdict, the settings to dial in, the levels, the noise, and what to see to. */
const store = useSessionStore()
const view = useViewStore()
const timing = useTimingStore()
const { stages } = useStripStages()

const statements = computed(() => (view.statements ? Object.values(view.statements) : []))
const settings = computed(() => stages.value.map((stage) => ({ name: stage.gear.name, words: wordsOf(stage) })))

/** The values of this strip, each with where it is from and how well it is known. */
const rests = computed(() =>
  (view.sureness?.inputs ?? []).filter(({ strips }) => strips.includes(view.strip?.id ?? '')),
)

const sends = useSends()
const into = computed(() => (view.strip ? sends.sendsInto(view.strip) : []))
const out = computed(() => (view.strip ? sends.sendsOf(view.strip) : []))
const sendWords = ({ feed }: Send) => `send ${formatShort(feed.gain, 1)} dB, ${feed.tap} fader`
/** On a bus the strip that a noise is from. */
const whose = (id: string) =>
  id === view.strip?.id ? '' : (store.session?.strips.find((strip) => strip.id === id)?.name ?? '')

/** What is to be dialled in at a stage, in words. */
function wordsOf(stage: ResolvedStage): string {
  const words = settingWords(stage).map(({ name, words: each }) => `${uncapital(name)} ${each}`)
  const port = isInterface(stage) || isDigitalInput(stage) ? `input ${stage.input.id}: ` : ''
  return port + (words.length > 0 ? words.join(', ') : kinds[stage.gear.kind].words.title.toLowerCase())
}
const uncapital = (name: string) => name.charAt(0).toLowerCase() + name.slice(1)
</script>

<template>
  <article v-if="view.strip && view.evaluated && store.session" class="space-y-5 text-[12px]">
    <header class="flex items-baseline justify-between border-b-2 border-ink pb-1">
      <h1 class="text-xl">{{ store.session.name }}: {{ view.strip.name }}</h1>
      <p>Remetra, {{ format(Date.now(), 'd MMMM yyyy, HH:mm') }}</p>
    </header>
    <ul>
      <li v-for="each in statements" :key="each.headline">
        <strong>{{ each.headline }}</strong>, {{ each.detail }}
      </li>
      <li>
        {{ formatShort(store.session.system.sampleRate / 1000) }} kHz, {{ store.session.system.bitDepth }} bits, buffer
        {{ store.session.system.bufferFrames }} frames
      </li>
    </ul>
    <section>
      <h2 class="mb-1 text-base">Settings</h2>
      <table class="w-full">
        <tbody>
          <tr v-for="each in into" :key="each.strip.id" class="border-b border-line">
            <th scope="row" class="w-1/2 py-1 text-left font-semibold">From {{ each.strip.name }}</th>
            <td>{{ sendWords(each) }}</td>
          </tr>
          <tr v-for="(each, i) in settings" :key="i" class="border-b border-line">
            <th scope="row" class="w-1/2 py-1 text-left font-semibold">{{ i + 1 }} {{ each.name }}</th>
            <td>{{ each.words }}</td>
          </tr>
          <tr v-for="each in out" :key="each.bus.id" class="border-b border-line">
            <th scope="row" class="py-1 text-left font-semibold">To {{ each.bus.name }}</th>
            <td>{{ sendWords(each) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section>
      <h2 class="mb-1 text-base">Levels</h2>
      <PathTable :points="view.evaluated.points" :stages="stages" />
    </section>
    <section>
      <h2 class="mb-1 text-base">Noise at its end, A-weighted</h2>
      <table>
        <tbody>
          <tr v-for="each in view.evaluated.noise" :key="each.stage + each.name">
            <th scope="row" class="pr-6 text-left font-normal">{{ noiseWords[each.name] }} {{ whose(each.strip) }}</th>
            <td class="figure pr-6 text-right">{{ formatDecimal(each.level, 1) }}</td>
            <td class="figure text-right">{{ formatDecimal(100 * each.share, 1) }} %</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="rests.length > 0">
      <h2 class="mb-1 text-base">What the figures rest on</h2>
      <table>
        <tbody>
          <tr v-for="each in rests" :key="each.path" class="border-b border-line">
            <th scope="row" class="pr-6 text-left font-normal">{{ nameOfInput(each) }}</th>
            <td class="figure pr-2 text-right">{{ formatShort(each.value) }}</td>
            <td class="pr-6">{{ each.unit }}</td>
            <td class="figure pr-6 text-right">
              ± {{ formatShort(2 * inItsUnit(each.value, each.doubt), 2) }} {{ unitOfSpread(each.doubt, '') }}
            </td>
            <td>{{ each.origin }}{{ each.on ? ` ${each.on}` : '' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="view.evaluated.latency.length > 0">
      <h2 class="mb-1 text-base">Timing and monitoring</h2>
      <table class="w-full">
        <tbody>
          <tr v-for="route in view.evaluated.latency" :key="route.route" class="border-b border-line">
            <th scope="row" class="w-1/2 py-1 text-left font-semibold">
              {{ route.route === 'direct' ? 'Direct monitoring' : 'Software monitoring'
              }}{{ route.route === view.strip.monitor.route ? ', in use' : '' }}
            </th>
            <td>
              <span class="figure">{{ routeTime(route) }}</span>
            </td>
          </tr>
          <tr v-if="view.recommendation" class="border-b border-line">
            <th scope="row" class="py-1 text-left font-semibold">Recommended</th>
            <td>
              {{
                view.recommendation.route === 'direct'
                  ? 'direct'
                  : `${formatShort(view.recommendation.sampleRate / 1000)} kHz, ${view.recommendation.bufferFrames} frames`
              }}, {{ routeTime(view.recommendation) }}
            </td>
          </tr>
          <tr v-if="timing.timing?.overdubOffsetFrames !== undefined" class="border-b border-line">
            <th scope="row" class="py-1 text-left font-semibold">Recording offset</th>
            <td>
              {{ formatSigned(timing.timing.overdubOffsetFrames, 0) }} frames,
              {{ formatSigned(timing.timing.overdubOffsetMs, 2) }} ms (positive: shift recordings earlier)
            </td>
          </tr>
          <tr v-if="view.strip.monitor.volume !== undefined" class="border-b border-line">
            <th scope="row" class="py-1 text-left font-semibold">Headphone volume</th>
            <td>{{ formatShort(view.strip.monitor.volume, 1) }} dB</td>
          </tr>
          <tr v-if="view.strip.monitor.blend !== undefined" class="border-b border-line">
            <th scope="row" class="py-1 text-left font-semibold">Own signal against playback</th>
            <td>{{ formatShort(view.strip.monitor.blend) }} % towards the playback</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="view.evaluated.findings.length > 0">
      <h2 class="mb-1 text-base">Needs attention</h2>
      <ul class="list-disc pl-5">
        <li v-for="each in view.evaluated.findings" :key="each.code + each.message">
          {{ each.message }} {{ each.action }}
        </li>
      </ul>
    </section>
    <section v-if="store.session.notes">
      <h2 class="mb-1 text-base">Notes</h2>
      <p class="whitespace-pre-line">{{ store.session.notes }}</p>
    </section>
  </article>
</template>
