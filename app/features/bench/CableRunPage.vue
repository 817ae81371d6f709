<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { LOOP_CAUTIONS } from '#core/bench/remarks'
import type { Bench, Procedure } from '#core/bench/procedure'
import { procedures } from '#core/bench/procedures'
import { fields } from '#core/model'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useMeasuredSheets } from '~/stores/measured-sheets'
import BenchChoice from './BenchChoice.vue'
import DeviceChoice from './DeviceChoice.vue'
import CableMove from './CableMove.vue'
import MeasuredSheetView from './MeasuredSheetView.vue'
import SimulatedNumber from './SimulatedNumber.vue'
import type { AtHand } from './use-cable-run'
import { simulatedCables, useCableRun } from './use-cable-run'

/** A whole interface by one cable: what is at hand on the left, the run and the sheet that comes of it on the right. */
const props = defineProps<{ bench: Bench }>()
const measured = useMeasuredSheets()
const run = useCableRun(() => props.bench)
const { devices, outputs, device, output, atHand, state, move, progress, trouble, isSimulated, otherBuffer } = run
onMounted(run.look)

const chosen = procedures.find(({ id }) => id === 'input-full-scale') as Procedure
const isSafe = ref(false)
const refusal = ref<string | null>(null)
const cables = ref('good')
const numbers = fields({
  marks: { label: 'Gain marks', unit: '', min: 1, max: 10, whole: true, help: 'From fully down to fully up.' },
  meterAccuracy: { label: 'Multimeter ±', unit: '%', min: 0, max: 10, help: 'As its manual has it.' },
  level: {
    label: 'Sound level',
    unit: 'dB SPL',
    min: 60,
    max: 130,
    help: 'Of the calibrator, or read beside the microphone.',
  },
  give: {
    label: 'Known within ±',
    unit: 'dB',
    min: 0,
    max: 10,
    help: 'A calibrator about 0.5 dB, a phone’s meter 2 dB or more.',
  },
})
const set = (key: keyof typeof numbers) => (value: number | undefined) => {
  if (value !== undefined) atHand[key] = value
  return null
}
const switches = computed(() => {
  const all: { key: Exclude<keyof AtHand, keyof typeof numbers>; text: string }[] = [
    { key: 'plug', text: 'A plug with 150 Ω in it' },
    { key: 'meter', text: 'A multimeter' },
    { key: 'otherBuffer', text: `The buffer can be set to ${otherBuffer.value} frames too` },
    { key: 'microphone', text: 'A microphone and a sound of known level' },
  ]
  return all
})
const steps = computed(() => `${formatDecimal(100 * (progress.value?.part ?? 0), 0)} %`)

async function start() {
  refusal.value = isSafe.value ? null : 'Turn the monitors down first, then confirm it here.'
  if (isSafe.value) await run.startLive()
}
const simulate = () => {
  refusal.value = null
  return run.startSimulated(cables.value)
}
</script>

<template>
  <article aria-labelledby="cable-title" data-cable-run>
    <header class="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 border-b border-ink pb-1">
      <h2 id="cable-title" class="text-[15px]">Measure this interface</h2>
      <BenchChoice :bench="bench" :procedure="chosen" />
      <p class="basis-full text-muted">
        One cable from an output to an input, and one run of about two minutes. It measures levels, gain, noise,
        distortion, response and round trip: a data sheet of your own.
      </p>
    </header>
    <div class="grid gap-x-8 rail:grid-cols-[minmax(0,21rem)_minmax(0,1fr)]">
      <section aria-label="Before the run">
        <ul class="border-l-3 border-ceiling pl-2">
          <li v-for="caution in LOOP_CAUTIONS" :key="caution">{{ caution }}</li>
        </ul>
        <ol class="mt-2 list-decimal space-y-0.5 pl-5">
          <li>Gain fully down, pads and low cuts out, output volume fully up.</li>
          <li>A cable from an output to input {{ bench.input.id }}. Add a second cable for balance and crosstalk.</li>
          <li>Start. Tones begin at −60 dBFS and get louder in steps of 6 dB until one comes back.</li>
        </ol>
        <template v-if="state === 'idle'">
          <h3 class="mt-3 border-b border-line">At hand</h3>
          <p class="mt-1">
            <label
              >{{ numbers.marks.label }}
              <NumberInput :value="atHand.marks" :field="numbers.marks" :commit="set('marks')"
            /></label>
          </p>
          <p v-for="each in switches" :key="each.key">
            <label class="inline-flex items-baseline gap-1.5"
              ><input v-model="atHand[each.key]" type="checkbox" class="accent-change" /> {{ each.text }}</label
            >
            <span v-if="each.key === 'meter' && atHand.meter" class="ml-5 block"
              ><label
                >accuracy ±
                <NumberInput
                  :value="atHand.meterAccuracy"
                  :field="numbers.meterAccuracy"
                  :commit="set('meterAccuracy')" /></label
            ></span>
            <span v-if="each.key === 'microphone' && atHand.microphone" class="ml-5 flex flex-wrap gap-x-4"
              ><label>level <NumberInput :value="atHand.level" :field="numbers.level" :commit="set('level')" /></label
              ><label>± <NumberInput :value="atHand.give" :field="numbers.give" :commit="set('give')" /></label
            ></span>
          </p>
          <p v-if="!atHand.meter" class="text-muted">Without a multimeter, levels are relative to full scale.</p>
        </template>
      </section>
      <div class="min-w-0">
        <template v-if="state === 'idle'">
          <p class="flex flex-wrap items-center gap-x-3 gap-y-1 max-rail:mt-3">
            <DeviceChoice v-model:output="output" v-model:input="device" :outputs="outputs" :inputs="devices" />
            <label class="inline-flex items-baseline gap-1.5"
              ><input v-model="isSafe" type="checkbox" class="accent-change" /> Monitors and headphones are down, 48 V
              is off</label
            >
            <button type="button" class="push-main" data-start @click="start">Start</button>
          </p>
          <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
          <p class="mt-2 flex flex-wrap items-baseline gap-3">
            <button type="button" class="push" data-simulate @click="simulate">
              Try it on the simulated interface
            </button>
            <SimulatedNumber />
            <label class="text-muted"
              >with
              <select v-model="cables" class="bg-sheet text-ink" aria-label="Its cable">
                <option v-for="(each, key) in simulatedCables" :key="key" :value="key">{{ each.text }}</option>
              </select></label
            >
          </p>
        </template>
        <p v-else-if="state === 'opening'" role="status">Opening the interface…</p>
        <template v-else>
          <p role="status" class="flex items-center gap-2" data-progress>
            <span class="grow">{{ progress?.doing }}{{ isSimulated ? ', on the simulated interface' : '' }}</span>
            <progress class="w-40 accent-change" :value="progress?.part ?? 0" max="1" aria-label="Done of the run" />
            <span class="figure">{{ steps }}</span>
            <button type="button" class="action" @click="run.stop">Cancel</button>
          </p>
          <CableMove
            v-if="move"
            :key="JSON.stringify(move)"
            :move="move"
            :input="bench.input.id"
            :name-of="run.nameOf"
            :simulated="isSimulated"
            @answer="run.answer"
            @make="run.makeMove"
          />
        </template>
        <p v-if="trouble" role="alert" class="mt-2 text-ceiling">{{ trouble }}</p>
        <MeasuredSheetView v-if="measured.open && state === 'idle'" class="mt-3" :bench="bench" />
        <p v-else-if="state === 'idle'" class="mt-3 text-muted">
          It passes the browser and the system mixer: set their volume to 100 % and the system’s sample rate to the
          session’s. Two input channels at most.
        </p>
      </div>
    </div>
  </article>
</template>
