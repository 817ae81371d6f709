<script setup lang="ts">
import { computed } from 'vue'
import { gainTrade } from '#core/evaluation/gain-trade'
import { noiseWords } from '#core/evaluation/verdict'
import { formatDecimal, formatShort } from '#core/units'
import FigureButton from '~/shared/explaining/FigureButton.vue'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** What makes the noise at the recorder, ranked, and what more gain would buy. */
const store = useSessionStore()
const view = useViewStore()

const { stages, controls, isLong } = useStripStages()
const isFed = computed(() => view.evaluated?.sum != null)
/** On a bus the strip that brings a noise, elsewhere the box that makes it. */
const whose = ({ strip, stage }: { strip: string; stage: string }) =>
  strip !== view.strip?.id
    ? (store.session?.strips.find((each) => each.id === strip)?.name ?? '')
    : (stages.value.find((each) => each.id === stage)?.gear.name ?? '')
const unit = computed(() => view.evaluated?.points.at(-1)?.unit)
const UNITS = { dBFS: 'dBFS(A), recorded', dBu: 'dBu(A), at its end', dBSPL: 'dB SPL(A), at the listener' } as const
const noise = computed(() => view.evaluated?.noise ?? [])
const trade = computed(() => (store.session && view.strip ? gainTrade(store.session, view.strip.id, 10) : null))
const percent = (share: number) => (share < 0.0005 ? '<0.1' : formatDecimal(100 * share, share < 0.0995 ? 1 : 0))
</script>

<template>
  <section id="floor-panel" tabindex="-1" aria-labelledby="floor-title">
    <h2 id="floor-title" class="flex justify-between border-b border-ink pb-0.5">
      Noise floor <span class="text-xs font-normal text-muted">{{ UNITS[unit ?? 'dBFS'] }}</span>
    </h2>
    <ol class="mt-1 leading-snug">
      <li
        v-for="each in noise"
        :key="`${each.strip} ${each.stage} ${each.name}`"
        class="grid grid-cols-[minmax(0,1fr)_auto_3.2rem] items-baseline gap-x-2"
        :data-noise="each.name"
      >
        <span class="min-w-0 truncate" :title="whose(each)"
          >{{ noiseWords[each.name]
          }}<span v-if="isFed || (isLong && each.name !== 'room')" class="ml-1 text-xs text-muted">{{
            whose(each)
          }}</span></span
        >
        <FigureButton
          class="figure text-right"
          :figure="`noise:${each.name}`"
          :stage="each.stage"
          :strip="each.strip"
          :name="`${noiseWords[each.name]}, ${formatDecimal(each.level, 1)}`"
          >{{ formatDecimal(each.level, 1) }}</FigureButton
        >
        <span class="figure text-right">{{ percent(each.share) }} %</span>
        <span
          class="col-span-3 mb-1 h-[3px] bg-floor"
          :style="{ width: `${Math.max(0.6, 100 * each.share)}%` }"
          aria-hidden="true"
        />
      </li>
    </ol>
    <p v-if="trade" class="mt-1" data-trade>
      {{ formatShort(trade.gain, 1) }} dB more gain: <span class="figure">{{ formatDecimal(trade.snr, 2) }}</span> dB
      less noise, <span class="figure">{{ formatDecimal(trade.headroom, 1) }}</span> dB less headroom.
    </p>
    <p v-else-if="controls.length > 0 && !isFed" class="mt-1">The last gain is at its maximum.</p>
  </section>
</template>
