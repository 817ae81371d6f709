<script setup lang="ts">
import { computed, ref } from 'vue'
import { hearingOf } from '#core/trainer/planted/sound'
import { meterReading } from '#core/chain/target-window'
import type { NumberField } from '#core/model'
import { applySettings } from '#core/edits'
import { drillTitles } from '#core/trainer/drill'
import { viewOf } from '#core/trainer/exercise'
import { LOUDNESS } from '#core/trainer/words'
import { db, formatDecimal, formatSigned } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useInTurn } from '~/composables/use-in-turn'
import type { RunningDrill } from './trainer-store'
import { useTrainerStore } from './trainer-store'

/** One estimate: what is given, the answer typed or turned, and how far it was off. */
const props = defineProps<{ running: RunningDrill }>()
const trainer = useTrainerStore()
const ear = useInTurn()
const drill = computed(() => props.running.drill)
const result = computed(() => props.running.result)

/** Where the gain stands while it is turned. */
const gain = ref(props.running.drill.turns?.from ?? 0)
const turned = computed(() => {
  const { turns, session, strip } = drill.value
  return turns ? applySettings(session, [{ strip, stage: turns.stage, setting: 'gain', to: db(gain.value) }]) : session
})
const view = computed(() => viewOf(turned.value, drill.value.strip))
/** What the recorder’s meter shows, to the 3 dB that its marks are apart: the rest is for the ear. */
const meter = computed(() => {
  const { place, target } = view.value.chain
  const point = place && view.value.points[place.index]
  return place && point ? meterReading(point, place, target) : null
})
const coarse = computed(() => (meter.value === null ? null : 3 * Math.round(meter.value / 3)))

const ESTIMATE = computed<NumberField>(() => ({
  label: 'Your estimate',
  unit: drill.value.unit ?? 'dB',
  min: -200,
  max: 500,
  help: 'Your estimate.',
}))
const GAIN = computed<NumberField>(() => ({
  label: 'Gain',
  unit: 'dB',
  min: drill.value.turns?.min ?? 0,
  max: drill.value.turns?.max ?? 60,
  help: 'As the knob says.',
}))
function listen() {
  if (ear.playing.value !== null || ear.making.value) ear.stop()
  else void ear.hear(() => [wanted.value, view.value].map((each) => hearingOf(each, null, null, drill.value.seed)))
}
/** The chain with the gain that is wanted: to be compared with by ear. Both are brought to the ears by one gain. */
const wanted = computed(() => {
  const { turns, session, strip, answer } = drill.value
  if (!turns) return view.value
  return viewOf(applySettings(session, [{ strip, stage: turns.stage, setting: 'gain', to: db(Number(answer)) }]), strip)
})
const playingWords = computed(() => {
  if (ear.making.value) return 'Being made…'
  return ear.playing.value === null ? '' : ear.playing.value === 0 ? 'As it is wanted…' : 'As it stands…'
})
const answerWords = computed(() =>
  typeof drill.value.answer === 'number'
    ? `${formatDecimal(drill.value.answer, drill.value.unit === 'ms' ? 2 : 1)} ${drill.value.unit ?? ''}`
    : drill.value.answer,
)
</script>

<template>
  <section aria-labelledby="drill-title" class="max-w-2xl" :data-drilling="drill.kind">
    <h2 id="drill-title" class="border-b border-ink pb-0.5">{{ drillTitles[drill.kind] }}</h2>
    <p class="mt-2 text-[15px] leading-snug font-semibold">{{ drill.ask }}</p>
    <ul class="mt-1.5 space-y-0.5">
      <li v-for="each in drill.given" :key="each">{{ each }}</li>
    </ul>
    <template v-if="drill.turns && !result">
      <p class="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span
          >Gain
          <NumberInput
            :value="gain"
            :field="GAIN"
            :step="1"
            :commit="
              (to) => {
                gain = to ?? gain
                return null
              }
            "
        /></span>
        <span data-coarse>The meter’s marks are 3 dB apart; it reads about {{ formatDecimal(coarse, 0) }} dBFS.</span>
      </p>
      <p class="mt-2 flex flex-wrap items-center gap-3">
        <button type="button" class="push" @click="listen">
          {{ ear.playing.value !== null || ear.making.value ? 'Stop' : 'Hear the level that is wanted, then yours' }}
        </button>
        <span role="status" class="text-muted">{{ playingWords }}</span>
        <button type="button" class="push-main" data-done @click="trainer.estimate(gain)">Correct</button>
      </p>
      <p v-if="ear.trouble.value" role="alert" class="mt-1 text-ceiling">{{ ear.trouble.value }}</p>
      <p class="mt-1.5 text-xs text-muted">{{ LOUDNESS }}</p>
    </template>
    <div v-else-if="drill.choices.length > 0 && !result" class="mt-3 flex flex-col items-start gap-1.5">
      <button
        v-for="choice in drill.choices"
        :key="choice"
        type="button"
        class="push"
        :data-choice="choice"
        @click="trainer.estimate(choice)"
      >
        {{ choice }}
      </button>
    </div>
    <p v-else-if="!result" class="mt-3">
      Your estimate:
      <NumberInput
        :value="undefined"
        :field="ESTIMATE"
        :commit="
          (value) => {
            if (value !== undefined) trainer.estimate(value)
            return null
          }
        "
      />
    </p>
    <div v-if="result" class="mt-3" role="status" data-drill-result>
      <p>
        <strong>{{ answerWords }}</strong> is what it comes to<template v-if="result.error !== null"
          >; you were {{ formatSigned(result.error, 1) }} {{ drill.unit === 'ms' ? 'ms' : 'dB' }} off</template
        ><template v-else-if="!result.good">; you said {{ running.given }}</template
        >. <span class="figure" data-points>{{ result.points }}</span> of 100.
      </p>
      <p class="mt-3 flex flex-wrap gap-3">
        <button type="button" class="push-main" @click="trainer.drill(drill.kind)">Next</button>
        <button type="button" class="push" @click="trainer.leave">To the overview</button>
      </p>
    </div>
  </section>
</template>
