<script setup lang="ts">
import { routeTime } from '#core/latency/route-words'
import { computed } from 'vue'
import type { PerformerMonitor } from '#core/monitoring/monitor-session'
import { monitorFields } from '#core/model'
import { airTime, celsius, formatDecimal, formatShort, formatSigned, frames, metres } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** What comes to the performer's ears, each with its time and level; and how own sound and playback are mixed. */
const props = defineProps<{ monitor: PerformerMonitor }>()
const store = useSessionStore()
const view = useViewStore()
const edit = useSystemEdit()

const WORDS = { 'own-direct': 'own signal, direct', 'own-host': 'own signal, software', 'playback': 'playback' }
const settings = computed(() => view.strip?.monitor)
const sides = [
  { value: 'both', text: 'in the middle' },
  { value: 'left', text: 'on the left only' },
  { value: 'right', text: 'on the right only' },
] as const
const isPanned = computed(() =>
  store.session?.pairs?.some(
    (each) => each.monitoring === 'panned' && [each.left, each.right].includes(props.monitor.strip),
  ),
)
const setSide = (side: (typeof sides)[number]['value']) =>
  edit.monitor('Heard on', { side: side === 'both' ? undefined : side })
const gain = (value: number) => (value === -Infinity ? 'off' : `${formatSigned(value, 1)} dB`)
const speakerMs = computed(() =>
  settings.value?.speakerDistance
    ? airTime(metres(settings.value.speakerDistance), celsius(store.session?.room.temperature ?? 20))
    : null,
)
</script>

<template>
  <section v-if="settings" aria-labelledby="heard-title">
    <h2 id="heard-title" class="border-b border-ink pb-0.5">{{ view.strip?.name }} hears</h2>
    <p v-if="monitor.heard.length === 0" class="mt-1 text-muted">The performer does not hear this strip.</p>
    <table v-else class="mt-1 w-full text-right" data-heard>
      <thead class="sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col">Late by</th>
          <th scope="col">At the ear</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in monitor.heard" :key="each.what" class="border-b border-line align-baseline">
          <th scope="row" class="py-0.5 text-left font-normal">{{ WORDS[each.what] }}</th>
          <td class="pl-2 whitespace-nowrap">
            <span v-if="each.late" class="figure">{{ routeTime(each.late) }}</span>
          </td>
          <td class="pl-2 whitespace-nowrap">
            <template v-if="each.level === -Infinity">off</template>
            <template v-else-if="each.level !== null"
              ><span class="figure">{{ formatDecimal(each.level, 1) }}</span> dBA</template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 flex items-baseline justify-between gap-3">
      <span class="text-muted">Heard</span>
      <SelectInput
        v-if="!isPanned"
        :value="settings.side ?? 'both'"
        label="Heard on"
        :options="sides"
        :commit="setSide"
      />
      <span v-else>{{ monitor.ears }} ear, the other side of the pair on the other</span>
    </p>
    <p
      v-if="monitor.ears !== 'both' && !isPanned"
      class="plate mt-1 border-l-4 border-l-ceiling px-2 py-1"
      data-one-side
    >
      Heard on the {{ monitor.ears }} only.
      <button type="button" class="action" @click="setSide('both')">Centre it</button>
    </p>

    <h3 class="mt-3 border-b border-line pb-0.5">Mix: own signal and playback</h3>
    <p class="mt-1 flex justify-between">
      <span class="text-muted">Mix control, 0 own signal, 100 playback</span
      ><NumberInput
        :value="settings.blend"
        :field="monitorFields.blend"
        :step="5"
        :commit="(value) => edit.monitor('Own signal against playback', { blend: value })"
      />
    </p>
    <template v-if="settings.blend !== undefined">
      <p class="flex justify-between">
        <span class="text-muted">Playback, average</span
        ><NumberInput
          :value="settings.playback ?? monitorFields.playback.initial"
          :field="monitorFields.playback"
          :step="1"
          :commit="(value) => edit.monitor('Playback level', { playback: value })"
        />
      </p>
      <p v-if="monitor.mix" data-mix>
        Own signal {{ gain(monitor.mix.ownGain) }}, playback {{ gain(monitor.mix.playbackGain) }}:
        <strong>{{
          monitor.mix.own === -Infinity || monitor.mix.playback === -Infinity
            ? 'only one of them is heard'
            : monitor.mix.own >= monitor.mix.playback
              ? `own signal ${formatDecimal(monitor.mix.own - monitor.mix.playback, 1)} dB louder at the ear`
              : `playback ${formatDecimal(monitor.mix.playback - monitor.mix.own, 1)} dB louder at the ear`
        }}</strong>.
        <span class="text-muted">Both are at full level in the middle, the usual start (common practice).</span>
      </p>
    </template>
    <p v-else class="text-muted">Not set: only the own signal is counted. The middle is the usual start.</p>
    <p class="mt-1 flex justify-between">
      <span class="text-muted">Plug-ins on this path</span
      ><NumberInput
        :value="settings.pluginFrames"
        :field="monitorFields.pluginFrames"
        :commit="(value) => edit.monitor('Plug-in delay', { pluginFrames: frames(value ?? 0) })"
      />
    </p>
    <p class="flex justify-between">
      <span class="text-muted">Loudspeaker at</span
      ><NumberInput
        :value="settings.speakerDistance"
        :field="monitorFields.speakerDistance"
        :step="0.5"
        :commit="(value) => edit.monitor('Loudspeaker', { speakerDistance: value })"
      />
    </p>
    <p v-if="speakerMs !== null" class="text-muted">
      {{ formatDecimal(speakerMs, 2) }} ms of air at {{ formatShort(store.session?.room.temperature ?? 20) }} °C.
    </p>
  </section>
</template>
