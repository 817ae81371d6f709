<script setup lang="ts">
import type { Guide } from '#core/bench/procedure'
import type { Signal } from '#core/signals/signal'
import { signalNames } from '#core/signals/signal'
import { formatShort } from '#core/units'
import { useSignalFile } from './use-signal-file'

/** What the engineer does: cautions first, then cables, then settings, with the signal to be played. */
const props = defineProps<{ guide: Guide; signal: Signal | null; sampleRate: number }>()

function words(signal: Signal): string {
  const level = 'level' in signal ? ` at ${formatShort(signal.level)} dBFS` : ''
  return `${signalNames[signal.kind]}${'frequency' in signal ? `, ${formatShort(signal.frequency)} Hz` : ''}${level}`
}
const { making, trouble, save: saveSignal } = useSignalFile()
async function save() {
  if (props.signal) await saveSignal({ signal: props.signal, sampleRate: props.sampleRate, format: 24, layout: 'mono' })
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
      <li v-if="signal">
        Play <strong>{{ words(signal) }}</strong>, {{ formatShort(sampleRate / 1000) }} kHz, 24 bits.
        <button type="button" class="action" @click="save">Save it as WAV</button
        ><span v-if="making" role="status" class="text-muted"> Making the file…</span
        ><span v-if="trouble" role="alert" class="text-ceiling"> {{ trouble }}</span>
      </li>
      <li v-for="each in guide.set" :key="each">{{ each }}</li>
    </ol>
  </div>
</template>
