<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import { ArrowDown, ArrowUp, Check, Ellipsis } from '@lucide/vue'
import type { TurnGuide } from '#core/watch/turn-guide'
import { formatDecimal } from '#core/units'
import SlideRule from '~/shared/fields/SlideRule.vue'

/** A gain as a hand at the knob reads it from a metre away: where it stands, how far it is to go, what comes in against its window. */
const props = defineProps<{ guide: TurnGuide; name: string; window: { low: number; high: number } | null }>()

const ICONS: Record<TurnGuide['state'], Component> = { up: ArrowUp, down: ArrowDown, right: Check, unknown: Ellipsis }
const [LOWEST, WIDTH] = [-60, 300]
const x = (level: number) => ((Math.max(LOWEST, Math.min(0, level)) - LOWEST) / -LOWEST) * WIDTH
const said = computed(() => {
  const { level } = props.guide
  const { window } = props
  const now = level === null ? 'nothing sounds' : `${formatDecimal(level, 1)} dBFS now`
  return window
    ? `${now}, window ${formatDecimal(window.low, 0)} to ${formatDecimal(window.high, 0)} dBFS`
    : `${now}, no target`
})
</script>

<template>
  <div class="plate px-3 py-2" data-knob :data-knob-state="guide.state">
    <p class="flex items-center gap-2 text-2xl font-semibold" role="status">
      <component
        :is="ICONS[guide.state]"
        class="size-7 shrink-0"
        :class="guide.state === 'right' ? 'text-change' : 'text-ceiling'"
        aria-hidden="true"
      />
      <span data-to-go>{{ guide.says }}</span>
    </p>
    <dl class="mt-1 grid grid-cols-2 gap-x-4">
      <div>
        <dt class="text-muted">Set</dt>
        <dd class="text-lg" data-set>{{ guide.set }}</dd>
      </div>
      <div v-if="guide.wanted">
        <dt class="text-muted">Wanted</dt>
        <dd class="text-lg" data-wanted>{{ guide.wanted.words }}</dd>
      </div>
    </dl>
    <SlideRule
      class="mt-2 max-w-none!"
      :value="guide.control.value"
      :range="guide.control.range"
      :wanted="guide.wanted?.gain ?? null"
    />
    <svg class="mt-1 block w-full" viewBox="-6 0 312 40" role="img" :aria-label="`Level of ${name}: ${said}`">
      <rect
        v-if="window"
        class="opacity-60"
        style="fill: var(--lip)"
        :x="x(window.low)"
        y="4"
        :width="x(window.high) - x(window.low)"
        height="16"
      />
      <path
        v-if="window"
        class="fill-none stroke-ink"
        stroke-width="1.5"
        :d="`M${x(window.low)} 8V2H${x(window.high)}V8`"
      />
      <path class="stroke-muted" :d="`M0 20H${WIDTH}`" />
      <path class="stroke-ceiling" stroke-width="2" :d="`M${WIDTH} 2V22`" />
      <g v-for="mark in [-60, -40, -20, 0]" :key="mark">
        <path class="stroke-muted" :d="`M${x(mark)} 20V24`" />
        <text class="figure fill-muted text-[10px]" :x="x(mark)" y="36" text-anchor="middle">
          {{ formatDecimal(mark, 0) }}
        </text>
      </g>
      <path v-if="guide.level !== null" class="fill-change" :d="`M${x(guide.level)} 20l5 9h-10z`" data-level />
    </svg>
    <p class="figure text-muted">{{ said }}</p>
  </div>
</template>
