<script setup lang="ts">
import { computed } from 'vue'
import { gainTrade } from '#core/evaluation/gain-trade'
import { noiseWords } from '#core/evaluation/verdict'
import { formatDecimal, formatShort } from '#core/units'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** What makes the noise at the recorder, ranked, and what more gain would buy. */
const store = useSessionStore()
const view = useViewStore()

const { stages, isLong } = useStripStages()
const gearName = (id: string) => stages.value.find((stage) => stage.id === id)?.gear.name ?? ''
const noise = computed(() => view.evaluated?.noise ?? [])
const trade = computed(() => (store.session && view.strip ? gainTrade(store.session, view.strip.id, 10) : null))
const percent = (share: number) => (share < 0.0005 ? '<0.1' : formatDecimal(100 * share, share < 0.0995 ? 1 : 0))
</script>

<template>
  <section id="floor-panel" tabindex="-1" aria-labelledby="floor-title">
    <h2 id="floor-title" class="flex justify-between border-b border-ink pb-0.5">
      What sets the floor <span class="text-xs font-normal text-muted">dBFS(A), recorded</span>
    </h2>
    <ol class="mt-1 leading-snug">
      <li
        v-for="each in noise"
        :key="`${each.stage} ${each.name}`"
        class="grid grid-cols-[minmax(0,1fr)_auto_3.2rem] items-baseline gap-x-2"
        :data-noise="each.name"
      >
        <span class="min-w-0 truncate" :title="gearName(each.stage)"
          >{{ noiseWords[each.name]
          }}<span v-if="isLong && each.name !== 'room'" class="ml-1 text-xs text-muted">{{
            gearName(each.stage)
          }}</span></span
        >
        <span class="figure text-right">{{ formatDecimal(each.level, 1) }}</span>
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
    <p v-else class="mt-1">The gain is at the end of its range; there is no more to buy.</p>
  </section>
</template>
