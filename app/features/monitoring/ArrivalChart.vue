<script setup lang="ts">
import { computed } from 'vue'
import { listeningKinds, performerLimit } from '#core/latency/performer'
import { routeFigure, routeTime } from '#core/latency/route-words'
import type { Route, RouteName } from '#core/latency/routes'
import type { PerformerMonitor } from '#core/monitoring/monitor-session'
import { formatDecimal, formatShort } from '#core/units'
import { routePartWords } from '~/shared/timing/route-words'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** All performers on one ruler of time: when the sound is at the ear by either way, what takes the time, and the limit. */
const props = defineProps<{ monitors: readonly PerformerMonitor[] }>()
const emit = defineEmits<{ listen: [strip: string, route: RouteName] }>()
const store = useSessionStore()
const view = useViewStore()
const { isCompact } = useStripStages()

const NAMES = { direct: 'direct', software: 'software' } as const
const rows = computed(() =>
  props.monitors.flatMap((monitor) => {
    const strip = store.session?.strips.find((each) => each.id === monitor.strip)
    if (!strip) return []
    const listener = strip.performer ? listeningKinds[strip.performer.listensTo].words : null
    const heard = new Set(
      monitor.heard.flatMap(({ what }) => (what === 'own-direct' ? 'direct' : what === 'own-host' ? 'software' : [])),
    )
    return [{ monitor, strip, listener, limit: performerLimit(strip.performer), heard }]
  }),
)
/** The ruler ends on a round number beyond the longest way and the limits that lie near. */
const end = computed(() => {
  const longest = Math.max(5, ...rows.value.flatMap(({ monitor }) => monitor.routes.map((each) => each.milliseconds)))
  const limits = rows.value.map(({ limit }) => limit).filter((limit) => limit < 1.6 * longest)
  const step = stepFor(Math.max(longest, ...limits))
  return Math.ceil((1.04 * Math.max(longest, ...limits)) / step) * step
})
const stepFor = (span: number) => [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find((step) => span / step <= 10) ?? 1000
const ticks = computed(() => {
  const step = stepFor(end.value)
  return Array.from({ length: Math.round(end.value / step) + 1 }, (_, i) => i * step)
})
const place = (ms: number) => `${(100 * ms) / end.value}%`

/** The parts one after the other; the words only where they have room. */
const partsOf = (route: Route) => {
  let at = 0
  return route.parts
    .filter((part) => part.milliseconds > 0)
    .map((part, i) => {
      const from = at
      at += part.milliseconds
      return {
        ...part,
        from,
        tone: i % 2,
        words: routePartWords[part.name],
        roomy: part.milliseconds / end.value > (isCompact.value ? 0.24 : 0.1),
      }
    })
}
const described = (route: Route, heard: boolean) =>
  `${NAMES[route.route]}, ${heard ? 'heard' : 'not heard'}: ${routeTime(route)}`
</script>

<template>
  <section aria-labelledby="arrival-title">
    <h2 id="arrival-title" class="flex justify-between border-b border-ink pb-0.5">
      When it arrives
      <span class="text-xs font-normal text-muted">ms after the sound; press a path to use it</span>
    </h2>
    <div class="arrival relative mt-1">
      <div class="ruler pointer-events-none absolute inset-y-0 right-0" aria-hidden="true">
        <div
          v-for="tick in ticks"
          :key="tick"
          class="absolute inset-y-0 border-l border-line"
          :style="{ left: place(tick) }"
        />
      </div>
      <div v-for="row in rows" :key="row.strip.id" class="relative py-1.5" :data-arrival="row.strip.id">
        <div class="who" :class="{ 'border-l-change!': row.strip.id === view.strip?.id }">
          <button
            type="button"
            class="block max-w-full text-left font-semibold"
            :aria-current="row.strip.id === view.strip?.id ? 'true' : undefined"
            @click="view.select(row.strip.id)"
          >
            {{ row.strip.name }}
          </button>
          <span class="block text-xs text-muted"
            >{{ row.listener ? `${row.listener}, limit ${formatShort(row.limit)} ms` : 'no performer named'
            }}<template v-if="row.monitor.ears !== 'both'">, {{ row.monitor.ears }} ear only</template></span
          >
        </div>
        <div class="ruler relative">
          <p v-if="row.monitor.routes.length === 0" class="text-xs text-muted">not connected to an interface yet</p>
          <button
            v-for="route in row.monitor.routes"
            :key="route.route"
            type="button"
            class="lane"
            :class="{ heard: row.heard.has(route.route) }"
            :aria-pressed="row.heard.has(route.route)"
            :aria-label="`${row.strip.name}, ${described(route, row.heard.has(route.route))}`"
            :data-lane="route.route"
            @click="emit('listen', row.strip.id, route.route)"
          >
            <span class="way">{{ NAMES[route.route] }}</span>
            <span
              v-for="part in partsOf(route)"
              :key="part.name"
              class="part"
              :class="{ odd: part.tone === 1 }"
              :style="{ left: place(part.from), width: place(part.milliseconds) }"
              :title="`${part.words} ${formatDecimal(part.milliseconds, 2)} ms`"
              ><template v-if="part.roomy">{{ part.words }}</template></span
            >
            <span class="figure total" :style="{ left: place(route.milliseconds) }">{{ routeFigure(route) }}</span>
          </button>
          <span
            v-if="row.listener && row.limit <= end"
            class="limit"
            :style="{ left: place(row.limit) }"
            :title="`Limit ${formatShort(row.limit)} ms`"
            aria-hidden="true"
          />
        </div>
      </div>
      <div class="ruler relative h-5 border-t border-rule" aria-hidden="true">
        <span
          v-for="tick in ticks"
          :key="tick"
          class="figure absolute top-0.5 -translate-x-1/2 text-[11px] text-muted"
          :style="{ left: place(tick) }"
          >{{ formatShort(tick) }}</span
        >
      </div>
    </div>
    <details>
      <summary class="cursor-pointer text-muted">Every part as a table</summary>
      <div class="overflow-x-auto" tabindex="0" aria-label="Parts of every path">
        <table class="text-right">
          <thead>
            <tr class="border-b border-ink">
              <th scope="col" class="pr-3 text-left font-semibold">Path</th>
              <th v-for="(words, name) in routePartWords" :key="name" scope="col" class="pl-3 font-semibold">
                {{ words }}
              </th>
              <th scope="col" class="pl-3 font-semibold">Total, ms</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="row in rows" :key="row.strip.id">
              <tr v-for="route in row.monitor.routes" :key="route.route" class="border-b border-line">
                <th scope="row" class="py-0.5 pr-3 text-left font-normal whitespace-nowrap">
                  {{ row.strip.name }}, {{ NAMES[route.route] }}
                </th>
                <td v-for="(_, name) in routePartWords" :key="name" class="figure pl-3">
                  {{ formatDecimal(route.parts.find((part) => part.name === name)?.milliseconds ?? null, 2) }}
                </td>
                <td class="figure pl-3 font-semibold">{{ routeFigure(route) }}</td>
              </tr>
            </template>
          </tbody>
        </table>
      </div>
    </details>
  </section>
</template>

<style scoped>
/* The ruler begins behind the names, or below them where there is no room beside. */
.arrival {
  --names: 0rem;
  --ways: 3.9rem;
  --total: 3rem;
}
.ruler {
  margin-left: calc(var(--names) + var(--ways));
  left: 0;
  margin-right: var(--total);
}
.who {
  border-left: 3px solid transparent;
  padding-left: 0.4rem;
}
@media (width >= 40rem) {
  .arrival {
    --names: 11rem;
  }
  .who {
    position: absolute;
    top: 0.4rem;
    width: 10.5rem;
  }
}
.lane {
  position: relative;
  display: block;
  width: 100%;
  height: 26px;
}
.way {
  position: absolute;
  right: calc(100% + 0.4rem);
  top: 50%;
  translate: 0 -50%;
  color: var(--muted);
  font-size: 12px;
}
.part {
  position: absolute;
  top: 3px;
  bottom: 3px;
  overflow: hidden;
  padding-inline: 2px;
  border-right: 1px solid var(--paper);
  background: var(--floor-soft);
  color: var(--ink);
  font-size: 11px;
  display: grid;
  place-content: center;
  white-space: nowrap;
}
.heard .part {
  background: var(--body);
  color: var(--on-body);
  &.odd {
    background: color-mix(in srgb, var(--body) 85%, black);
  }
}
.total {
  position: absolute;
  top: 50%;
  z-index: 1;
  margin-left: 0.25rem;
  padding-inline: 0.15rem;
  translate: 0 -50%;
  background: var(--paper);
  color: var(--muted);
}
.heard .way,
.heard .total {
  color: var(--ink);
  font-weight: 650;
}
.limit {
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 2.5px;
  background: var(--ceiling);
  pointer-events: none;
}
</style>
