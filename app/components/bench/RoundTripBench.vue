<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { formatDecimal } from '#core/units'
import { useMeasuring } from '~/composables/use-measuring'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import FilePick from './FilePick.vue'
import MeasuringLine from './MeasuringLine.vue'

/** The round trip from a loopback recording that holds both: what was played, and what came back. */
const store = useSessionStore()
const edit = useSystemEdit()
const { progress, trouble, name, result, start, cancel } = useMeasuring<'loopback'>()
const [reference, returned] = [ref(1), ref(2)]
const file = shallowRef<File | null>(null)
const kept = ref<string | null>(null)

const found = computed(() => (result.value?.ok ? result.value.loopback : null))
const fault = computed(() => trouble.value ?? (result.value && !result.value.ok ? result.value.fault.message : null))
const sure = computed(() => (found.value?.confidence ?? 0) >= 1.3 && (found.value?.milliseconds ?? 0) > 0)
const sameRate = computed(() => result.value?.ok && result.value.format.sampleRate === store.session?.system.sampleRate)
function measure(chosen = file.value) {
  file.value = chosen
  kept.value = null
  if (chosen) start(chosen.name, { kind: 'loopback', file: chosen, reference: reference.value, returned: returned.value })
}
function keep() {
  if (!found.value || !store.session || !result.value?.ok) return
  kept.value = edit.add('Round trip measured', 'roundTrips', {
    sampleRate: result.value.format.sampleRate, bufferFrames: store.session.system.bufferFrames, milliseconds: Math.round(1000 * found.value.milliseconds) / 1000, note: `loopback, ${name.value}`.slice(0, 200),
  }) ?? 'Kept: see Timing.'
}
</script>

<template>
  <section aria-labelledby="loop-title" data-loopback>
    <h2 id="loop-title" class="border-b border-ink pb-0.5">Round trip by loopback</h2>
    <ol class="mt-1 list-decimal pl-5 text-muted">
      <li>Monitors and headphones down, phantom power off. A lead from a line output to a line input.</li>
      <li>Play a sequence, a sweep or the pulses from the host, and record the return on a second channel through the host’s input, its latency compensation off.</li>
      <li>Export both as one file: what was played, and what came back.</li>
    </ol>
    <p class="mt-1 flex flex-wrap gap-3"><label>played: channel <select v-model="reference" class="bg-sheet" aria-label="Reference channel" @change="measure()"><option v-for="n in 32" :key="n" :value="n">{{ n }}</option></select></label><label>came back: channel <select v-model="returned" class="bg-sheet" aria-label="Return channel" @change="measure()"><option v-for="n in 32" :key="n" :value="n">{{ n }}</option></select></label></p>
    <div class="mt-1.5"><FilePick label="Choose a loopback recording" @file="measure($event)" /></div>
    <MeasuringLine :name="name" :progress="progress" :trouble="fault" @cancel="cancel" />
    <div v-if="found" class="plate mt-1.5 px-2 py-1" data-lag>
      <p><strong><span class="figure">{{ formatDecimal(found.lagFrames, 2) }}</span> frames, <span class="figure">{{ formatDecimal(found.milliseconds, 3) }}</span> ms</strong>, {{ found.polarity < 0 ? 'polarity turned over' : 'same polarity' }}, return at <span class="figure">{{ formatDecimal(found.level, 1) }}</span> dB. {{ sure ? 'Beyond doubt' : 'Doubtful' }}: the best fit is {{ formatDecimal(Math.min(found.confidence, 999), 1) }} times the next.</p>
      <p v-if="!sure" class="text-ceiling">Not kept as it is: raise the level, check the channels, or use a sequence or a sweep instead.</p>
      <p v-else>At {{ store.session?.system.bufferFrames }} frames, as set. <span v-if="!sameRate" class="text-ceiling">The file has another rate than the session.</span> <button type="button" class="action" @click="keep">Keep as a round trip</button> <span v-if="kept" role="status" class="text-muted">{{ kept }}</span></p>
    </div>
  </section>
</template>
