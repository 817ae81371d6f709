<script setup lang="ts">
import { computed } from 'vue'
import type { RoutePartName } from '#core/latency/routes'
import type { AudioInterface, Monitor, Session, System } from '#core/session'
import { monitorFields } from '#core/session'
import { formatDecimal, formatShort, frames, framesToMilliseconds, hz } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Rate, buffer and word length, and how late the performer hears it by either route. */
const props = defineProps<{ unit: AudioInterface | null }>()
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()

const words: Record<RoutePartName, string> = {
  'air': 'air', 'link': 'link', 'converter-in': 'A/D', 'safety-in': 'safety in', 'buffer-in': 'buffer in', 'plug-ins': 'plug-ins',
  'buffer-out': 'buffer out', 'safety-out': 'safety out', 'converter-out': 'D/A', 'fixed': 'fixed',
}
const routeNames = { direct: 'Direct', software: 'Through the host' } as const
const system = computed(() => store.session?.system)

/** What the unit offers, and what is set even if it does not offer it. */
const withCurrent = (offered: readonly number[], current: number) => [...new Set([...offered, current])].sort((a, b) => a - b)
const rates = computed(() => withCurrent(props.unit?.sampleRates ?? [44_100, 48_000, 88_200, 96_000], system.value?.sampleRate ?? 0)
  .map((value) => ({ value, text: `${formatShort(value / 1000)} kHz` })))
const buffers = computed(() => withCurrent(props.unit?.bufferSizes ?? [32, 64, 128, 256, 512, 1024], system.value?.bufferFrames ?? 0)
  .map((value) => ({ value, text: `${value} · ${formatDecimal(framesToMilliseconds(frames(value), hz(system.value?.sampleRate ?? 1)), 2)} ms` })))
const outputs = computed(() => [{ value: '', text: 'not said' }, ...props.unit?.outputs.map(({ id, type }) => ({ value: id, text: `${id}, ${type}` })) ?? []])
const depths = [{ value: 16, text: '16 bits' }, { value: 24, text: '24 bits' }, { value: 32, text: '32, float' }] as const

const setSystem = (label: string, part: Partial<System>) => edit.session(label, (session: Session) => ({ ...session, system: { ...session.system, ...part } }))
const setMonitor = (label: string, part: Partial<Monitor>) => edit.strip(label, (strip) => ({ ...strip, monitor: { ...strip.monitor, ...part } }))
const tidy = (value: number | undefined) => frames(value ?? 0)
</script>

<template>
  <section v-if="system && view.strip" id="timing-panel" aria-labelledby="timing-title">
    <h2 id="timing-title" class="border-b border-ink pb-0.5">When it is heard</h2>
    <div class="mt-1.5 flex flex-wrap gap-x-1.5 gap-y-1">
      <SelectInput label="Sample rate" :value="system.sampleRate as number" :options="rates" :commit="(value) => setSystem('Sample rate', { sampleRate: hz(value) })" />
      <SelectInput label="Buffer" :value="system.bufferFrames as number" :options="buffers" :commit="(value) => setSystem('Buffer', { bufferFrames: frames(value) })" />
      <SelectInput label="Word length" :value="system.bitDepth" :options="depths" :commit="(value) => setSystem('Word length', { bitDepth: value })" />
    </div>
    <fieldset class="mt-1.5">
      <legend class="sr-only">Monitoring route</legend>
      <div v-for="each in view.evaluated?.latency" :key="each.route" class="mb-1">
        <label class="flex items-baseline gap-1.5">
          <input
            type="radio" name="route" class="accent-change" :value="each.route" :checked="view.strip.monitor.route === each.route"
            @change="setMonitor('Monitoring route', { route: each.route })"
          >
          <span :class="{ 'font-semibold': view.strip.monitor.route === each.route }">{{ routeNames[each.route] }}</span>
          <span class="figure ml-auto" :data-route="each.route">{{ formatDecimal(each.milliseconds, 2) }} ms</span>
        </label>
        <p v-if="view.strip.monitor.route === each.route" class="ml-5 text-xs text-muted">
          <template v-for="(part, i) in each.parts.filter((one) => one.milliseconds > 0)" :key="part.name">{{ i > 0 ? ' + ' : '' }}{{ words[part.name] }} {{ formatDecimal(part.milliseconds, 2) }}</template>
        </p>
      </div>
    </fieldset>
    <p v-if="outputs.length > 1" class="flex items-baseline justify-between"><span class="text-muted">Heard at output</span>
      <SelectInput label="Output to the performer" :value="view.strip.monitor.output ?? ''" :options="outputs" :commit="(output) => setMonitor('Output', { output: output || undefined })" /></p>
    <p class="flex items-baseline justify-between"><span class="text-muted">Plug-ins on this path</span>
      <NumberInput :value="view.strip.monitor.pluginFrames" :field="monitorFields.pluginFrames" :step="16" :commit="(value) => setMonitor('Plug-in delay', { pluginFrames: tidy(value) })" /></p>
    <p class="mt-1 text-xs text-muted">Turn the headphones down before changing the route, rate or buffer.</p>
  </section>
</template>
