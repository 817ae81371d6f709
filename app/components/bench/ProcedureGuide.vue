<script setup lang="ts">
import type { Guide } from '#core/bench/procedure'
import type { Signal } from '#core/signals/signal'
import { makeSignal, signalNames } from '#core/signals/signal'
import { writeWav } from '#core/signals/write-wav'
import { formatShort } from '#core/units'
import { saveFile } from '~/composables/file-access'

/** What the engineer does: cautions first, then leads, then settings, with the signal to be played. */
const props = defineProps<{ guide: Guide, signal: Signal | null, sampleRate: number }>()

function words(signal: Signal): string {
  const level = 'level' in signal ? ` at ${formatShort(signal.level)} dBFS` : ''
  return `${signalNames[signal.kind]}${'frequency' in signal ? `, ${formatShort(signal.frequency)} Hz` : ''}${level}`
}
async function save() {
  const { signal, sampleRate } = props
  if (signal) await saveFile(writeWav([makeSignal(signal, sampleRate)], sampleRate, 24), 'audio/wav', `remetra-${signal.kind}-${sampleRate}.wav`, 'remetra-signal')
}
</script>

<template>
  <div class="space-y-2">
    <div class="border-l-3 border-ceiling pl-2">
      <h3 class="text-ceiling">First</h3>
      <p v-for="each in guide.cautions" :key="each">{{ each }}</p>
    </div>
    <ol class="list-decimal space-y-1 pl-5">
      <li v-for="each in guide.connect" :key="each">{{ each }}</li>
      <li v-if="signal">Play <strong>{{ words(signal) }}</strong>, {{ formatShort(sampleRate / 1000) }} kHz, 24 bits. <button type="button" class="action" @click="save">Save it as WAV</button></li>
      <li v-for="each in guide.set" :key="each">{{ each }}</li>
    </ol>
  </div>
</template>
