<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { NumberField } from '#core/model'
import { readTypedNumber } from '#core/model'
import type { Layout, Signal, SignalKind } from '#core/signals/signal'
import { layouts, longestSignal, signalNames } from '#core/signals/signal'
import type { SampleFormat } from '#core/signals/write-wav'
import { formatShort } from '#core/units'
import { useSignalFile } from './use-signal-file'

/** Test signals as WAV files, to be played out and recorded again. */
const fields = {
  frequency: { label: 'Frequency', unit: 'Hz', min: 1, max: 96_000, help: 'Of the sine.' },
  level: { label: 'Level', unit: 'dBFS', min: -120, max: 0, help: 'AES17: a sine of 0 dBFS just touches full scale.' },
  minutes: { label: 'Length', unit: 'min', min: 0.01, max: 20, help: 'In minutes.' },
} as const satisfies Record<string, NumberField>
const presets = [
  { text: '997 Hz, −1', frequency: 997, level: -1 },
  { text: '997 Hz, −20', frequency: 997, level: -20 },
  { text: '997 Hz, −60', frequency: 997, level: -60 },
  { text: '100 Hz, −20, for a multimeter', frequency: 100, level: -20 },
]
const uses: Record<SignalKind, string> = {
  sine: 'Full scale, gain, distortion. 997 Hz divides no sample rate; 60 to 400 Hz for a hand multimeter.',
  silence: 'Keeps the path open while noise is recorded.',
  white: 'Equal power in every hertz; the same every time.',
  pink: 'Equal power in every octave, much like programme; the same every time.',
  sweep: '20 Hz to 20 kHz, equal time for every octave: delay, and the response of a path.',
  sequence: 'Five passes with silence between: the most reliable delay, and its spread.',
  pulses: 'One a second at uneven distances: a delay you can see in any editor.',
  stairs: '−10 to −60 dBFS, three seconds each: the marks of a gain knob over a wide range.',
  polarity: 'A short positive pulse twice a second: the polarity of a path.',
}
const STAIRS = { levels: [-10, -20, -30, -40, -50, -60], stepSeconds: 3 }

const kind = ref<SignalKind>('sine')
const rate = ref(48_000)
const format = ref<SampleFormat>(24)
const layout = ref<Layout>('mono')
const typed = reactive({ frequency: '997', level: '-20', minutes: '0.5' })
const refusal = ref<string | null>(null)
const { making, trouble, save: saveSignal } = useSignalFile()
const hasFrequency = computed(() => kind.value === 'sine' || kind.value === 'stairs')
const hasLevel = computed(() => kind.value !== 'silence' && kind.value !== 'stairs')

function asked(frequency: number, level: number, seconds: number): Signal {
  switch (kind.value) {
    case 'sine':
      return { kind: 'sine', frequency, level, seconds }
    case 'silence':
      return { kind: 'silence', seconds }
    case 'sequence':
      return { kind: 'sequence', level }
    case 'stairs':
      return { kind: 'stairs', frequency, ...STAIRS }
    default:
      return { kind: kind.value, level, seconds }
  }
}
function take({ frequency, level }: { frequency: number; level: number }) {
  typed.frequency = String(frequency)
  typed.level = String(level)
}
async function save() {
  const values: Record<string, number> = {}
  for (const [key, field] of Object.entries(fields)) {
    const read = readTypedNumber(field, typed[key as keyof typeof typed])
    if (!read.ok || read.value === undefined) {
      refusal.value = read.ok ? `${field.label} is missing.` : `${field.label}: ${read.message}`
      return
    }
    values[key] = read.value
  }
  if (hasFrequency.value && (values.frequency ?? 0) >= rate.value / 2) {
    refusal.value = `Frequency: ${values.frequency} Hz is not under half the sample rate. Choose a lower one, or a higher rate.`
    return
  }
  const { frequency = 997, level = -20, minutes = 0.5 } = values
  const longest = longestSignal(rate.value) / 60
  if (minutes > longest) {
    refusal.value = `Length: at ${rate.value / 1000} kHz a signal lasts ${formatShort(Math.floor(10 * longest) / 10)} min at most. Choose a shorter one, or a lower rate.`
    return
  }
  refusal.value = null
  await saveSignal({
    signal: asked(frequency, level, 60 * minutes),
    sampleRate: rate.value,
    format: format.value,
    layout: layout.value,
  })
}
</script>

<template>
  <section aria-labelledby="signals-title" class="max-w-3xl" data-signals>
    <h2 id="signals-title" class="border-b border-ink pb-1 text-[15px]">Test signals</h2>
    <form class="mt-1.5 space-y-1.5" @submit.prevent="save">
      <p class="flex flex-wrap gap-2">
        <select v-model="kind" class="border-b border-dotted border-rule bg-sheet" aria-label="Signal">
          <option v-for="(words, key) in signalNames" :key="key" :value="key">{{ words }}</option>
        </select>
        <select
          v-model="rate"
          class="border-b border-dotted border-rule bg-sheet"
          aria-label="Sample rate of the signal"
        >
          <option v-for="each in [44100, 48000, 88200, 96000, 176400, 192000]" :key="each" :value="each">
            {{ each / 1000 }} kHz
          </option>
        </select>
        <select v-model="format" class="border-b border-dotted border-rule bg-sheet" aria-label="Sample format">
          <option :value="16">16 bits</option>
          <option :value="24">24 bits</option>
          <option value="float">32, float</option>
        </select>
        <select
          v-model="layout"
          class="border-b border-dotted border-rule bg-sheet"
          aria-label="Channels of the signal"
        >
          <option v-for="(words, key) in layouts" :key="key" :value="key">{{ words }}</option>
        </select>
      </p>
      <p class="flex flex-wrap items-end gap-2">
        <template v-for="(field, key) in fields" :key="key"
          ><label
            v-if="
              key === 'frequency' ? hasFrequency : key === 'level' ? hasLevel : kind !== 'sequence' && kind !== 'stairs'
            "
            class="text-xs text-muted"
            >{{ field.label }}, {{ field.unit
            }}<input
              v-model="typed[key]"
              class="figure block w-20 border-b border-dotted border-rule bg-sheet px-1 py-0.5 text-right text-[13px] text-ink"
              inputmode="decimal"
              :aria-label="`${field.label} of the signal, ${field.unit}`" /></label
        ></template>
        <button type="submit" class="push-main">Save as WAV</button>
      </p>
      <p v-if="kind === 'sine'" class="flex flex-wrap gap-2">
        <button v-for="preset in presets" :key="preset.text" type="button" class="push" @click="take(preset)">
          {{ preset.text }}
        </button>
      </p>
      <p v-if="making" role="status" class="text-muted">Making the file…</p>
      <p v-if="refusal ?? trouble" role="alert" class="text-ceiling">{{ refusal ?? trouble }}</p>
    </form>
    <dl class="mt-3 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-0.5 text-muted">
      <template v-for="(use, key) in uses" :key="key"
        ><dt :class="{ 'text-ink font-semibold': kind === key }">{{ signalNames[key] }}</dt>
        <dd :class="{ 'text-ink': kind === key }">{{ use }}</dd></template
      >
    </dl>
    <p class="mt-3 border-l-3 border-ceiling pl-2">
      Before playing one: monitors and headphones down, phantom power off, amplifiers off; never an amplifier’s
      loudspeaker output into an input. Come up slowly from silence.
    </p>
  </section>
</template>
