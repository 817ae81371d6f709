<script setup lang="ts">
import { computed } from 'vue'
import type { Strip } from '#core/model'
import { stripFields } from '#core/model'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Who brings what to a bus; the sum they make; and, of a stream, how loud it will be. */
const props = defineProps<{ bus: Strip }>()
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()

const sum = computed(() => view.evaluated?.sum ?? null)
const stream = computed(() => view.evaluated?.stream ?? null)
const feedback = computed(() => view.evaluated?.feedback ?? null)
const nameOf = (id: string) => store.session?.strips.find((strip) => strip.id === id)?.name ?? ''
const percent = (share: number) => `${share < 0.005 && share > 0 ? '<1' : formatDecimal(100 * share, 0)} %`
const unit = computed(() => (sum.value?.unit === 'dBFS' ? 'dBFS' : 'dBu'))
const isStream = computed(() => props.bus.loudness !== undefined || view.evaluated?.points.at(-1)?.unit === 'dBFS')
/** Strips that clip before they come here: no limiter behind them can fix it. */
const clipping = computed(() =>
  (sum.value?.brought ?? []).filter(({ strip }) =>
    store.evaluation?.strips
      .find(({ id }) => id === strip)
      ?.points.some(({ clipped, carriesClipping }) => clipped || carriesClipping),
  ),
)
/** AES TD1008 from memory. */
const USUAL = [
  { value: -23, text: 'broadcast, EBU R 128: −23' },
  { value: -16, text: 'web stream: −16' },
] as const
const setLoudness = (loudness: number | undefined) =>
  edit.strip('Loudness wanted', ({ loudness: _, ...strip }) =>
    loudness === undefined ? strip : { ...strip, loudness },
  )
</script>

<template>
  <section v-if="sum" aria-labelledby="brought-title" data-brought>
    <h2 id="brought-title" class="flex justify-between border-b border-ink pb-0.5">
      Contributions <span class="text-xs font-normal text-muted">average, noise</span>
    </h2>
    <ul class="mt-1">
      <li
        v-for="each in sum.brought"
        :key="each.strip"
        class="grid grid-cols-[minmax(0,1fr)_3.2rem_3.2rem] items-baseline gap-x-2"
        :data-brings="each.strip"
      >
        <span class="min-w-0 truncate" :title="nameOf(each.strip)">{{ nameOf(each.strip) }}</span>
        <span class="figure text-right">{{ percent(each.share) }}</span>
        <span class="figure text-right">{{ percent(each.noiseShare) }}</span>
        <span
          class="col-span-3 mb-px h-[3px] bg-body"
          :style="{ width: `${Math.max(0.6, 100 * each.share)}%` }"
          aria-hidden="true"
        />
        <span
          class="col-span-3 mb-1 h-[3px] bg-floor"
          :style="{ width: `${Math.max(0.6, 100 * each.noiseShare)}%` }"
          aria-hidden="true"
        />
      </li>
    </ul>
    <dl class="mt-1 grid grid-cols-[1fr_auto] gap-x-2" data-sum>
      <dt class="text-muted">Average together</dt>
      <dd class="figure text-right">{{ formatDecimal(sum.average, 1) }} {{ unit }}</dd>
      <dt class="text-muted">Likely peak</dt>
      <dd class="figure text-right">{{ formatDecimal(sum.likely, 1) }} {{ unit }}</dd>
      <dt class="text-muted">Highest possible peak</dt>
      <dd class="figure text-right">{{ formatDecimal(sum.bound, 1) }} {{ unit }}</dd>
      <dt class="text-muted">With {{ nameOf(sum.surges) }} surging</dt>
      <dd class="figure text-right">{{ formatDecimal(sum.surge, 1) }} {{ unit }}</dd>
    </dl>
  </section>
  <section v-if="isStream" aria-labelledby="stream-title" data-stream>
    <h2 id="stream-title" class="border-b border-ink pb-0.5">Stream</h2>
    <p class="flex justify-between py-px">
      <span class="text-muted">Loudness wanted</span
      ><NumberInput :value="bus.loudness" :field="stripFields.loudness" :commit="setLoudness" />
    </p>
    <p class="flex flex-wrap gap-x-3">
      <button v-for="each in USUAL" :key="each.value" type="button" class="action" @click="setLoudness(each.value)">
        {{ each.text }}
      </button>
    </p>
    <template v-if="stream">
      <p>
        <strong class="figure"
          >{{ formatDecimal(stream.loudness, 1) }} ± {{ formatDecimal(stream.give, 1) }} LUFS</strong
        >
        estimated in loud passages<template v-if="stream.gain !== null && Math.abs(stream.gain) >= 0.1"
          >; {{ formatDecimal(stream.gain, 1) }} dB before the limiter reach the wanted loudness</template
        >.
      </p>
      <p class="text-muted">
        The limiter takes <span class="figure">{{ formatDecimal(stream.reduction.average, 1) }}</span> dB off the
        average, <span class="figure">{{ formatDecimal(stream.reduction.peak, 1) }}</span> off the peak,
        <span class="figure">{{ formatDecimal(stream.reduction.surge, 1) }}</span> off the surge.
      </p>
      <p class="text-muted">
        Estimated from levels: pauses and the sound of the programme are not included. The whole stream will measure
        lower; check with a meter or a file.
      </p>
    </template>
    <p v-if="clipping.length > 0" class="border-l-4 border-l-ceiling pl-2" data-clips-before>
      {{ clipping.map(({ strip }) => nameOf(strip)).join(' and ') }} clips before it gets here. No limiter can fix that.
    </p>
  </section>
  <section v-if="feedback" aria-labelledby="howl-title" data-feedback>
    <h2 id="howl-title" class="border-b border-ink pb-0.5">Room</h2>
    <p v-if="feedback.margin === null" class="mt-1">
      The distance from microphone to loudspeaker is not set: enter it on Monitoring.
    </p>
    <p v-else class="mt-1">
      <strong class="figure">{{ formatDecimal(feedback.margin, 1) }} dB</strong> gain before feedback,
      {{ feedback.microphones.length }} {{ feedback.microphones.length === 1 ? 'microphone' : 'microphones' }} open.
    </p>
    <ul v-if="feedback.margin !== null" class="text-muted">
      <li v-for="each in feedback.microphones" :key="each.strips.join()">
        {{ each.strips.map(nameOf).join(' and ') }}: 6 dB lower, {{ formatDecimal(each.lowered, 1) }} dB; out of it,
        {{ each.without === null ? 'no feedback is possible' : `${formatDecimal(each.without, 1)} dB` }}.
      </li>
    </ul>
  </section>
</template>
