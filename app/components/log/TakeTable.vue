<script setup lang="ts">
import { format, parseISO } from 'date-fns'
import { computed, ref } from 'vue'
import { lengthInWords } from '#core/log/sheets'
import type { Strip, Take } from '#core/session'
import { verdicts } from '#core/session'
import { formatDecimal } from '#core/units'
import ChoiceBar from '~/components/fields/ChoiceBar.vue'
import TextInput from '~/components/fields/TextInput.vue'
import { useLog } from '~/composables/use-log'
import { useMeasuring } from '~/composables/use-measuring'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'

const verdictChoices = verdicts.map((value) => ({ value, text: value }))

/** The takes, the newest first: judged, named and noted where they stand. */
const props = defineProps<{ takes: readonly Take[]; recording: readonly Strip[] }>()
const store = useSessionStore()
const logStore = useLogStore()
const log = useLog()
const measuring = useMeasuring()
const told = ref<string | null>(null)

const names = computed(() => new Map(store.session?.strips.map((strip) => [strip.id, strip.name])))
const stripsOf = ({ strips }: Take) =>
  strips.length === props.recording.length && strips.length > 1
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
  <div class="mt-3 overflow-x-auto" tabindex="0" aria-label="Takes">
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
          v-for="take in takes"
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
            <ChoiceBar
              :options="verdictChoices"
              :chosen="take.verdict ?? null"
              :label="`Verdict on take ${take.number}`"
              @choose="(each) => change(take, { verdict: take.verdict === each ? undefined : each })"
            />
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
    <p v-if="log.told.value || told" role="alert" class="mt-1 text-ceiling">{{ log.told.value ?? told }}</p>
  </div>
</template>
