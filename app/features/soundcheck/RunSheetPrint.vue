<script setup lang="ts">
import { format } from 'date-fns'
import { computed } from 'vue'
import { sectionsOf } from '#core/soundcheck/sections'
import type { Step } from '#core/soundcheck/step'
import { formatDecimal } from '#core/units'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'

/** The run sheet on paper: boxes to tick, and a line for what was read. */
const store = useSessionStore()
const soundcheck = useSoundcheckStore()
const sections = computed(() => (store.committed ? sectionsOf(store.committed, soundcheck.steps) : []))
const numbers = computed(() => new Map(soundcheck.steps.map(({ id }, i) => [id, i + 1])))
const MARKS = { done: '☑', open: '☐', again: '☐ again:' } as const
const window = ({ read }: Step) =>
  read ? `${formatDecimal(read.low, 1)} … ${formatDecimal(read.high, 1)} ${read.unit} at ${read.meter}` : ''
</script>

<template>
  <article class="space-y-3 text-[11px]" data-run-sheet-print>
    <header class="flex items-baseline justify-between border-b-2 border-ink pb-1">
      <h1 class="text-lg">Run sheet: {{ store.session?.name }}</h1>
      <p>Remetra, {{ format(Date.now(), 'd MMMM yyyy, HH:mm') }}</p>
    </header>
    <div class="columns-2 gap-x-7">
      <section v-for="section in sections" :key="section.key" class="mb-2">
        <h2 class="flex justify-between border-b border-ink">
          {{ section.title }}<span class="font-normal">{{ section.note }}</span>
        </h2>
        <ol>
          <li v-for="step in section.steps" :key="step.id" class="break-inside-avoid border-b border-line py-0.5">
            <p>
              {{ MARKS[step.state] }} <span class="figure">{{ numbers.get(step.id) }}</span> {{ step.title }}
            </p>
            <p v-if="step.caution"><strong>Caution:</strong> {{ step.caution }}</p>
            <p v-if="step.detail" class="text-muted">{{ step.detail }}</p>
            <p v-if="step.read" class="flex justify-between gap-2">{{ window(step) }} <span>read: __________</span></p>
          </li>
        </ol>
      </section>
    </div>
  </article>
</template>
