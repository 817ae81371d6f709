<script setup lang="ts">
import { format, formatISO, parseISO } from 'date-fns'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { NuxtLink } from '#components'
import { recorderChannel } from '#core/soundcheck/plug-steps'
import { gearById, resolveStrip } from '#core/chain/resolve'
import { lengthInWords } from '#core/log/sheets'
import type { Take } from '#core/session'
import { verdicts } from '#core/session'
import { formatDecimal } from '#core/units'
import TextInput from '~/components/fields/TextInput.vue'
import { useGauge } from '~/composables/use-gauge'
import { useLog } from '~/composables/use-log'
import { useMeasuring } from '~/composables/use-measuring'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'

/** The takes: begun and ended by a key, judged by a key, with what the gauge or a file says of each. */
const emit = defineEmits<{ mark: [] }>()
const store = useSessionStore()
const logStore = useLogStore()
const soundcheck = useSoundcheckStore()
const log = useLog()
const gauge = useGauge()
const measuring = useMeasuring()
const told = ref<string | null>(null)

/** Strips that the recorder takes, by its channels. */
const recording = computed(() => {
  const { committed } = store
  if (!committed) return []
  const gear = gearById(committed)
  return committed.strips.filter((strip) => recorderChannel({ stages: resolveStrip(strip, gear) }) !== null)
})
const left = ref<ReadonlySet<string>>(new Set())
const armed = computed(() => recording.value.filter(({ id }) => !left.value.has(id)).map(({ id }) => id))
function arm(id: string) {
  const next = new Set(left.value)
  if (!next.delete(id)) next.add(id)
  left.value = next
}

const begun = ref<number | null>(null)
const seconds = ref(0)
const { resume, pause } = useIntervalFn(
  () => {
    seconds.value = begun.value === null ? 0 : (Date.now() - begun.value) / 1000
  },
  250,
  { immediate: false },
)
const name = ref('')

function begin() {
  begun.value = Date.now()
  seconds.value = 0
  gauge.startPassage()
  resume()
}
async function end() {
  if (begun.value === null) return
  const heard = gauge.source.value === 'none' ? null : gauge.snapshot.value?.passage
  const take = {
    name: name.value.trim(),
    strips: armed.value,
    at: formatISO(begun.value),
    seconds: Math.round((Date.now() - begun.value) / 100) / 10,
    ...(heard?.peak != null && { peak: Math.round(100 * heard.peak) / 100, clippedRuns: heard.clippedRuns }),
  }
  begun.value = null
  pause()
  name.value = ''
  await log.addTake(take)
}
const toggle = () => void (begun.value === null ? begin() : end())
defineExpose({ toggle })

const showsStruck = ref(false)
const shown = computed(() => logStore.log.takes.filter(({ struck }) => showsStruck.value || !struck).reverse())
const struck = computed(() => logStore.log.takes.filter((take) => take.struck).length)
const names = computed(() => new Map(store.session?.strips.map((strip) => [strip.id, strip.name])))
const stripsOf = ({ strips }: Take) =>
  strips.length === recording.value.length && strips.length > 1
    ? 'all strips'
    : strips.map((id) => names.value.get(id) ?? id).join(', ')
const markName = ({ mark }: Take) => logStore.log.marks.find(({ id }) => id === mark)?.name ?? ''
const change = (take: Take, part: Partial<Take>) => {
  void log.changeTake(take, part)
  return null
}

/** Peak and clipped runs of a recording of the take. */
async function takeFile(take: Take, event: Event) {
  const input = event.target as HTMLInputElement
  const [recordingOf] = input.files ?? []
  input.value = ''
  if (!recordingOf) return
  const answer = await measuring.measure(recordingOf.name, { recording: recordingOf, question: { kind: 'levels' } })
  if (!answer) {
    told.value = measuring.trouble.value
    return
  }
  const { channels, format: shape } = answer.report
  const peak = Math.max(...channels.map((each) => each.peak ?? -Infinity))
  await log.changeTake(take, {
    ...(Number.isFinite(peak) && { peak: Math.round(100 * peak) / 100 }),
    clippedRuns: channels.reduce((sum, each) => sum + each.clippedRunCount, 0),
    seconds: Math.round(10 * shape.seconds) / 10,
  })
}
</script>

<template>
  <section aria-label="Takes" data-takes>
    <div class="plate flex flex-wrap items-center gap-x-4 gap-y-2 px-3 py-2">
      <p class="text-lg font-semibold">
        Take <span class="figure" data-next-take>{{ logStore.nextNumber }}</span>
      </p>
      <label class="min-w-36 grow"
        ><span class="sr-only">Name of the take</span
        ><input
          v-model="name"
          class="w-full border-b border-dotted border-rule bg-transparent py-1"
          maxlength="200"
          placeholder="What is recorded"
          autocomplete="off"
      /></label>
      <span v-if="begun !== null" class="figure text-lg" role="timer" data-clock>{{ lengthInWords(seconds) }}</span>
      <button type="button" class="push-main" data-toggle-take @click="toggle">
        {{ begun === null ? 'Begin the take' : 'End the take' }}
      </button>
      <span class="text-xs text-muted">L</span>
      <p class="flex basis-full flex-wrap gap-x-4 gap-y-1">
        <label v-for="strip in recording" :key="strip.id" class="flex min-h-6 items-center gap-1.5">
          <input type="checkbox" class="size-6" :checked="armed.includes(strip.id)" @change="arm(strip.id)" />{{
            strip.name
          }}
        </label>
      </p>
      <p class="flex basis-full flex-wrap items-center gap-3 text-muted">
        <template v-if="gauge.source.value === 'none'">
          <button type="button" class="push" @click="gauge.open()">Watch an input</button>
          for the take’s peak and clipped runs; a file of it serves as well.
        </template>
        <template v-else>
          <span
            >{{ gauge.opened.value?.name }}: peak
            <strong class="figure" data-take-peak>{{
              gauge.snapshot.value?.passage.peak == null ? '–' : formatDecimal(gauge.snapshot.value.passage.peak, 1)
            }}</strong>
            dBFS, {{ gauge.snapshot.value?.passage.clippedRuns ?? 0 }} clipped runs</span
          >
          <button type="button" class="action" @click="gauge.close()">Stop watching</button>
        </template>
        <span v-if="gauge.trouble.value" role="alert" class="text-ceiling">{{ gauge.trouble.value }}</span>
      </p>
    </div>
    <p v-if="log.told.value || told" role="alert" class="mt-1 text-ceiling">{{ log.told.value ?? told }}</p>

    <div v-if="shown.length > 0" class="mt-3 overflow-x-auto" tabindex="0" aria-label="Takes">
      <table class="w-full min-w-[52rem]">
        <thead>
          <tr class="border-b border-ink text-left">
            <th class="py-1 pr-2">Take</th>
            <th class="pr-2">Name</th>
            <th class="pr-2">Strips</th>
            <th class="pr-2 text-right">Began</th>
            <th class="pr-2 text-right">Length</th>
            <th class="pr-2">Verdict</th>
            <th class="pr-2 text-right">Peak, dBFS</th>
            <th class="pr-2 text-right">Clipped</th>
            <th class="pr-2">Mark</th>
            <th class="pr-2">Note</th>
            <th><span class="sr-only">Cross out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="take in shown"
            :key="take.id"
            class="border-b border-line align-baseline"
            :class="{ 'text-muted line-through': take.struck }"
            :data-take="take.number"
          >
            <th scope="row" class="figure py-1 pr-2 text-left">{{ take.number }}</th>
            <td class="pr-2">
              <TextInput
                :value="take.name"
                label="Name of the take"
                optional
                :commit="(value) => change(take, { name: value })"
              />
            </td>
            <td class="min-w-20 pr-2">{{ stripsOf(take) }}</td>
            <td class="figure pr-2 text-right whitespace-nowrap">{{ format(parseISO(take.at), 'd MMM HH:mm') }}</td>
            <td class="figure pr-2 text-right">{{ take.seconds === undefined ? '' : lengthInWords(take.seconds) }}</td>
            <td class="pr-2">
              <span
                class="inline-flex border border-rule"
                role="radiogroup"
                :aria-label="`Verdict on take ${take.number}`"
              >
                <button
                  v-for="each in verdicts"
                  :key="each"
                  type="button"
                  role="radio"
                  class="px-1.5"
                  :class="
                    take.verdict === each ? 'bg-change font-semibold text-on-change' : 'bg-sheet hover:text-change'
                  "
                  :aria-checked="take.verdict === each"
                  @click="change(take, { verdict: take.verdict === each ? undefined : each })"
                >
                  {{ each }}
                </button>
              </span>
            </td>
            <td class="figure pr-2 text-right">
              <template v-if="take.peak !== undefined">{{ formatDecimal(take.peak, 1) }}</template>
              <label v-else class="action cursor-pointer font-sans"
                >from a file<input
                  type="file"
                  accept=".wav,.wave,audio/wav"
                  class="sr-only"
                  :aria-label="`A recording of take ${take.number}`"
                  @change="takeFile(take, $event)"
              /></label>
            </td>
            <td class="figure pr-2 text-right" :class="{ 'text-ceiling font-semibold': (take.clippedRuns ?? 0) > 0 }">
              {{ take.clippedRuns ?? '' }}
            </td>
            <td class="pr-2">{{ markName(take) }}</td>
            <td class="pr-2">
              <TextInput
                :value="take.note ?? ''"
                label="Note"
                optional
                :commit="(value) => change(take, { note: value || undefined })"
              />
            </td>
            <td class="text-right">
              <button
                type="button"
                class="action whitespace-nowrap"
                @click="change(take, { struck: take.struck ? undefined : true })"
              >
                {{ take.struck ? 'Put back' : 'Cross out' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-else class="mt-4 space-y-2" data-begin>
      <p v-if="soundcheck.open > 0">
        Nothing is recorded yet. The soundcheck has
        <NuxtLink class="action" :to="`/soundcheck/${store.key}`"
          >{{ soundcheck.open }} of {{ soundcheck.steps.length }} steps</NuxtLink
        >
        to go; then make a mark, so that today stands again next week.
      </p>
      <p v-else>
        Nothing is recorded yet, and the soundcheck is done.
        <button type="button" class="action" @click="emit('mark')">Make a mark</button>, then begin the first take.
      </p>
      <p class="text-muted">
        A take carries the mark with whose settings it was made: the last one, or a new one where something was set
        otherwise since.
      </p>
    </div>
    <p v-if="struck > 0" class="mt-2">
      <button type="button" class="action" :aria-pressed="showsStruck" @click="showsStruck = !showsStruck">
        {{ showsStruck ? 'Hide' : 'Show' }} {{ struck }} crossed out
      </button>
    </p>
    <p class="mt-2 text-xs text-muted">Keys for the last take: Y keep, D maybe, X no.</p>
  </section>
</template>
