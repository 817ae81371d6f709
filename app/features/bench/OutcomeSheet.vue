<script setup lang="ts">
import type { Outcome } from '#core/bench/procedure'
import { formatDecimal } from '#core/units'

/** What comes of the recordings: figures with their spread against what is printed, what to think of them, and keeping them. */
defineProps<{ outcome: Outcome; kept: string | null; practice: boolean }>()
const emit = defineEmits<{ keep: [] }>()
const tone = { stop: 'font-semibold text-ceiling', caution: 'text-ceiling', note: 'text-muted' } as const
const words = { stop: 'Not so: ', caution: 'Caution: ', note: '' } as const
</script>

<template>
  <section class="plate mt-2 px-3 py-2" aria-label="Result" data-outcome>
    <table v-if="outcome.figures.length > 0" class="w-full text-right">
      <thead>
        <tr class="border-b border-ink">
          <th scope="col" class="text-left font-semibold">Result</th>
          <th scope="col" class="pl-3 font-semibold">Measured</th>
          <th scope="col" class="pl-3 font-semibold">±</th>
          <th scope="col" class="pl-3 font-semibold">Data sheet</th>
          <th v-if="practice" scope="col" class="pl-3 font-semibold">True</th>
        </tr>
      </thead>
      <tbody v-for="figure in outcome.figures" :key="figure.name" :data-figure="figure.name">
        <tr>
          <th scope="row" class="pt-1 text-left font-semibold">{{ figure.name }}</th>
          <td class="figure pt-1 pl-3 text-[14px] font-semibold whitespace-nowrap" data-measured>
            {{ formatDecimal(figure.value, figure.digits) }} {{ figure.unit }}
          </td>
          <td class="figure pl-3">{{ formatDecimal(figure.spread, figure.digits) }}</td>
          <td class="figure pl-3">{{ formatDecimal(figure.printed, figure.digits) }}</td>
          <td v-if="practice" class="figure pl-3" data-true>{{ formatDecimal(figure.truth, figure.digits) }}</td>
        </tr>
        <tr class="border-b border-line">
          <td colspan="5" class="pb-1 text-left text-muted" data-judgement>{{ figure.judgement }}</td>
        </tr>
      </tbody>
    </table>
    <ul class="mt-1 space-y-0.5">
      <li v-for="remark in outcome.remarks" :key="remark.text" :class="tone[remark.severity]">
        {{ words[remark.severity] }}{{ remark.text }}
      </li>
    </ul>
    <p v-if="practice" class="mt-1 text-muted">
      Made on the simulated interface, not on your unit; its true values are shown beside it. Keep it for practice only;
      Undo takes it back.
    </p>
    <p v-if="outcome.keep" class="mt-1.5 flex items-baseline gap-3">
      <button type="button" class="push-main" @click="emit('keep')">Keep as measured</button
      ><span v-if="kept" role="status" class="text-muted">{{ kept }}</span>
    </p>
    <details v-for="table in outcome.tables" :key="table.title" class="mt-1.5" :open="outcome.tables.length === 1">
      <summary class="cursor-pointer">{{ table.title }}</summary>
      <table class="mt-0.5 w-full text-right">
        <thead>
          <tr class="border-b border-rule text-muted">
            <th
              v-for="(head, i) in table.head"
              :key="head"
              scope="col"
              class="font-normal"
              :class="i === 0 ? 'text-left' : 'pl-3'"
            >
              {{ head }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, k) in table.rows" :key="k" class="border-b border-line">
            <td v-for="(cell, i) in row" :key="i" class="figure" :class="i === 0 ? 'text-left' : 'pl-3'">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>
