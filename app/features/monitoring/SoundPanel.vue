<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed, shallowRef, toRaw } from 'vue'
import { combOf } from '#core/monitoring/comb'
import { combWords } from '#core/diagnosis/comb-words'
import type { PerformerMonitor } from '#core/monitoring/monitor-session'
import { monitorFields } from '#core/model'
import { formatDecimal } from '#core/units'
import { combChart } from './comb-chart'
import FilePick from '~/shared/recordings/FilePick.vue'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useInTurn } from '~/composables/use-in-turn'
import { useSessionStore } from '~/stores/session'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useViewStore } from '~/stores/view'

const ChartCanvas = lateComponent(() => import('~/shared/charts/ChartCanvas.vue'))

/** How the own sound sounds, were it or is it heard by both ways: in words, in a picture, and by ear. */
const props = defineProps<{ monitor: PerformerMonitor }>()
const view = useViewStore()
const edit = useSystemEdit()
const store = useSessionStore()
const ear = useInTurn()
/** A recording of one’s own, to be heard in the place of the simulated performer. */
const recording = shallowRef<File | null>(null)

/** What the other path is taken to be against the chosen one where nobody has said, dB. */
const SUPPOSED = -6
const doubled = computed(() => props.monitor.doubling)
const comb = computed(() => {
  const [direct, software] = (['direct', 'software'] as const).map((route) =>
    props.monitor.routes.find((each) => each.route === route),
  )
  if (!direct || !software) return null
  const delayMs = Math.abs(software.milliseconds - direct.milliseconds)
  const difference = doubled.value?.difference ?? SUPPOSED
  const { firstNotch, ripple } = combOf(delayMs, difference)
  // What is not known of the way through the host comes on top of the difference, what is not known of the direct one off it.
  const bound = software.atLeast ? 'at least ' : direct.atLeast ? 'at most ' : ''
  return { delayMs, bound, difference, firstNotch, ripple, words: combWords(delayMs, ripple) }
})
const chart = computed(() => combChart(comb.value?.delayMs ?? 0, comb.value?.difference ?? 0))
const hz = (value: number) =>
  value >= 1000 ? `${formatDecimal(value / 1000, 2)} kHz` : `${formatDecimal(value, 1)} Hz`
const ripple = (value: number) => (value === Infinity ? 'down to silence' : `${formatDecimal(value, 2)} dB`)
const choose = (files: readonly File[]) => {
  recording.value = files[0] ?? null
}

/** Seconds of the sound that is played each way. */
const SECONDS = 4
function hear(delayMs: number, difference: number) {
  const session = store.committed
  const strip = props.monitor.strip
  if (!session) return
  void ear.hear(async (player) => {
    const from = recording.value
      ? { recording: await player.read(recording.value, SECONDS) }
      : { session: toRaw(session), strip }
    return [
      { from, seconds: SECONDS, effects: { twice: { delayMs, difference } } },
      { from, seconds: SECONDS },
    ]
  })
}
const playingWords = computed(() =>
  ear.making.value
    ? 'Being made…'
    : ear.playing.value === null
      ? ''
      : ear.playing.value === 0
        ? 'Both ways…'
        : 'One way…',
)
</script>

<template>
  <section aria-labelledby="sound-title" :data-doubling="doubled ? '' : undefined">
    <h2 id="sound-title" class="flex justify-between border-b border-ink pb-0.5">
      How it sounds: {{ view.strip?.name }}
      <span v-if="comb && !doubled" class="text-xs font-normal text-muted">if the other path were on too</span>
    </h2>
    <p v-if="!comb" class="mt-1 text-muted">Only one path reaches the ear, so nothing can double.</p>
    <template v-else>
      <p class="mt-1">
        <strong>First notch at {{ hz(comb.firstNotch) }}, ripple {{ ripple(comb.ripple) }}.</strong> The two paths are
        {{ comb.bound }}{{ formatDecimal(comb.delayMs, 2) }} ms apart<template v-if="doubled"
          >; the other path is
          <NumberInput
            :value="view.strip?.monitor.alsoHeard"
            :field="monitorFields.alsoHeard"
            :step="1"
            :commit="(alsoHeard) => edit.monitor('Other path', { alsoHeard: alsoHeard })" /></template
        ><template v-else>, the other path assumed 6 dB lower</template>. It sounds {{ comb.words.sound }} ({{
          comb.words.strength
        }}). <template v-if="doubled">Switch off {{ doubled.switchOff }}.</template
        ><template v-else>No doubled signal.</template>
      </p>
      <div class="mt-1 h-44">
        <ChartCanvas
          :config="chart"
          :label="`Response of the two ways together from 20 Hz to 20 kHz: first notch ${hz(comb.firstNotch)}, ripple ${ripple(comb.ripple)}.`"
        />
      </div>
      <div class="mt-1 flex flex-wrap items-center gap-3">
        <button
          v-if="ear.playing.value === null && !ear.making.value"
          type="button"
          class="push"
          @click="hear(comb.delayMs, comb.difference)"
        >
          Hear both, then one
        </button>
        <button v-else type="button" class="push" @click="ear.stop">Stop</button>
        <span role="status" data-playing>{{ playingWords }}</span>
        <span class="text-muted">
          {{ recording ? `“${recording.name}”` : 'A simulated performer' }}, at most −30 dBFS. Turn your headphones down
          first.
        </span>
        <button v-if="recording" type="button" class="action" @click="recording = null">
          The simulated performer instead
        </button>
      </div>
      <details class="mt-1">
        <summary class="cursor-pointer text-muted">With a recording of your own</summary>
        <FilePick label="Choose a recording to hear" @files="choose" />
      </details>
      <p v-if="ear.trouble.value" role="alert" class="text-ceiling">{{ ear.trouble.value }}</p>
      <details class="mt-1">
        <summary class="cursor-pointer text-muted">The notches as a table</summary>
        <table>
          <thead>
            <tr>
              <th scope="col" class="pr-6 text-left font-semibold">Notch</th>
              <th scope="col" class="text-right font-semibold">Frequency</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="n in 6" :key="n">
              <th scope="row" class="text-left font-normal">{{ n }}</th>
              <td class="figure text-right">{{ hz(comb.firstNotch * (2 * n - 1)) }}</td>
            </tr>
          </tbody>
        </table>
      </details>
    </template>
  </section>
</template>
