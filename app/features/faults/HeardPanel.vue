<script setup lang="ts">
import { ref } from 'vue'
import { answersOf } from '#core/diagnosis/recording'
import type { NumberField } from '#core/model'
import FilePick from '~/shared/recordings/FilePick.vue'
import MeasuringLine from '~/shared/recordings/MeasuringLine.vue'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useMeasuring } from '~/composables/use-measuring'
import { useFaultsStore } from './faults-store'
import { useSessionStore } from '~/stores/session'

/** A recording of what is wrong answers by itself what it can. */
const store = useSessionStore()
const faults = useFaultsStore()
const measuring = useMeasuring()
const tone = ref<number | undefined>(undefined)
const TONE: NumberField = {
  label: 'Tone that was played',
  unit: 'Hz',
  min: 20,
  max: 20_000,
  optional: true,
  help: 'Only if a tone of known pitch was played into it: this shows two different sample rates. Otherwise leave it empty.',
}
const count = ref(0)

async function listen(files: readonly File[]) {
  const [file] = files
  if (!file) return
  const result = await measuring.measure(file.name, { question: { kind: 'heard' }, recording: file })
  if (!result) return
  const planned = store.evaluation?.strips.find(({ id }) => id === faults.strip) ?? null
  const { answers, says } = answersOf(result.found, planned, { tone: tone.value })
  count.value = Object.keys(answers).length
  faults.heard(answers, says.length > 0 ? says : ['No fault was heard in it.'])
}
</script>

<template>
  <section aria-labelledby="heard-title" data-heard-panel>
    <h2 id="heard-title" class="border-b border-ink pb-0.5">Analyse a recording</h2>
    <p class="mt-1 text-muted">
      Record ten seconds of the fault, with a pause in it. This finds hum and its lines, clipping, gaps and jumps, and a
      doubled signal with its delay. It also finds an empty side, polarity, an offset, and the noise floor against the
      plan.
    </p>
    <div class="mt-2"><FilePick label="Choose a recording of the fault" @files="listen" /></div>
    <p class="mt-1.5">
      Tone played into it:
      <NumberInput
        :value="tone"
        :field="TONE"
        :commit="
          (value) => {
            tone = value
            return null
          }
        "
      />
    </p>
    <MeasuringLine
      :name="measuring.name.value"
      :progress="measuring.progress.value"
      :trouble="measuring.trouble.value"
      @cancel="measuring.cancel"
    />
    <ul v-if="faults.search.heard.length > 0" class="mt-2 space-y-0.5" aria-live="polite" data-heard-says>
      <li v-for="each in faults.search.heard" :key="each">{{ each }}</li>
      <li v-if="count > 0" class="text-muted">{{ count }} checks answered by it; undo what you know better.</li>
    </ul>
  </section>
</template>
