<script setup lang="ts">
import { computed } from 'vue'
import { noiseBudget } from '#core/evaluation/noise-budget'
import { noiseWords } from '#core/evaluation/verdict'
import { formatDecimal, formatSigned } from '#core/units'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Every noise of the strip, where it is recorded and as a sound in the room, and what would help against it. */
const store = useSessionStore()
const view = useViewStore()
const budget = computed(() => (store.session && view.strip ? noiseBudget(store.session, view.strip.id) : null))
const unit = computed(() => (view.evaluated?.points.at(-1)?.unit === 'dBFS' ? 'dBFS(A)' : 'dBu(A)'))

/** A bar is a noise’s share of the power, as the figure beside it; the least is still seen. */
const width = (share: number) => `${Math.max(0.5, 100 * share)}%`
</script>

<template>
  <div
    v-if="budget"
    class="grid h-full gap-x-6 gap-y-3 overflow-y-auto card:pl-13 rail:grid-cols-[minmax(0,1fr)_15rem]"
    tabindex="0"
    aria-label="Noise budget"
  >
    <p v-if="budget.lines.length === 0" class="text-muted">
      No noise is known on this strip. Enter the room noise and the noise figures of the gear.
    </p>
    <table
      v-else
      class="w-full self-start text-right"
      :style="{ height: `min(100%, ${2.6 * (budget.lines.length + 2)}rem)` }"
    >
      <caption class="sr-only">
        Noises of the strip, the loudest first
      </caption>
      <thead>
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 text-left font-semibold">Noise</th>
          <th scope="col" class="w-[24%] text-left font-semibold"><span class="sr-only">Share as a bar</span></th>
          <th scope="col" class="pl-2 font-semibold">{{ unit }}</th>
          <th scope="col" class="pl-2 font-semibold">Share</th>
          <th scope="col" class="pl-2 font-semibold whitespace-nowrap">In air, dBA</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in budget.lines"
          :key="line.stage + line.name"
          class="border-b border-line"
          :data-budget="line.name"
        >
          <th scope="row" class="py-1 text-left font-normal">
            {{ noiseWords[line.name] }} <span class="text-muted">{{ line.gear }} {{ line.from }}</span>
          </th>
          <td><span class="block h-2.5 bg-floor" :style="{ width: width(line.share) }" aria-hidden="true" /></td>
          <td class="figure pl-2">{{ formatDecimal(line.level, 1) }}</td>
          <td class="figure pl-2 whitespace-nowrap">{{ formatDecimal(100 * line.share, 1) }} %</td>
          <td class="figure pl-2">{{ formatDecimal(line.inAir, 1) }}</td>
        </tr>
        <tr class="border-t border-ink font-semibold">
          <th scope="row" class="py-1 text-left">together</th>
          <td />
          <td class="figure pl-2">{{ formatDecimal(budget.total, 1) }}</td>
          <td class="figure pl-2">100 %</td>
          <td />
        </tr>
      </tbody>
    </table>
    <section aria-labelledby="helps-title">
      <h3 id="helps-title" class="border-b border-ink pb-0.5">What would improve it</h3>
      <ul>
        <li v-for="help in budget.helps" :key="help.words" class="flex justify-between gap-2 border-b border-line py-1">
          <span>{{ help.words }}</span><span class="figure shrink-0">{{ formatSigned(help.snr, 1) }} dB</span>
        </li>
      </ul>
      <p v-if="budget.helps.length === 0" class="py-1">No setting of this strip changes its SNR.</p>
      <p v-else class="mt-1 text-muted">Signal-to-noise gained at the recorder, one change at a time.</p>
    </section>
  </div>
</template>
