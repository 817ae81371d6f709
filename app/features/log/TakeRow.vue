<script setup lang="ts">
import { format, parseISO } from 'date-fns'
import { computed } from 'vue'
import { lengthInWords } from '#core/log/sheets'
import type { Strip } from '#core/model'
import type { Take } from '#core/session'
import { verdicts } from '#core/session'
import { formatDecimal } from '#core/units'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'

/** One take of the table: judged, named and noted where it stands. */
const props = defineProps<{ take: Take; recording: readonly Strip[] }>()
const emit = defineEmits<{ change: [part: Partial<Take>]; file: [file: File] }>()
const store = useSessionStore()
const logStore = useLogStore()

const verdictChoices = verdicts.map((value) => ({ value, text: value }))
const strips = computed(() => {
  const { strips: taken } = props.take
  if (taken.length === props.recording.length && taken.length > 1) return 'all strips'
  return taken.map((id) => store.session?.strips.find((strip) => strip.id === id)?.name ?? id).join(', ')
})
const change = (part: Partial<Take>) => {
  emit('change', part)
  return null
}
function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const [recordingOf] = input.files ?? []
  input.value = ''
  if (recordingOf) emit('file', recordingOf)
}
</script>

<template>
  <tr
    class="border-b border-line align-baseline"
    :class="{ 'text-muted line-through': take.struck }"
    :data-take="take.number"
  >
    <th scope="row" class="figure py-1 pr-2 text-left">{{ take.number }}</th>
    <td class="pr-2">
      <TextInput :value="take.name" label="Name of the take" optional :commit="(value) => change({ name: value })" />
    </td>
    <td class="min-w-20 pr-2">{{ strips }}</td>
    <td class="figure pr-2 text-right whitespace-nowrap">{{ format(parseISO(take.at), 'd MMM HH:mm') }}</td>
    <td class="figure pr-2 text-right">{{ take.seconds === undefined ? '' : lengthInWords(take.seconds) }}</td>
    <td class="pr-2">
      <ChoiceBar
        :options="verdictChoices"
        :chosen="take.verdict ?? null"
        :label="`Verdict on take ${take.number}`"
        @choose="(each) => change({ verdict: take.verdict === each ? undefined : each })"
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
          @change="choose"
      /></label>
    </td>
    <td class="figure pr-2 text-right" :class="{ 'text-ceiling font-semibold': (take.clippedRuns ?? 0) > 0 }">
      {{ take.clippedRuns ?? '' }}
    </td>
    <td class="pr-2">{{ logStore.markName(take.mark) }}</td>
    <td class="pr-2">
      <TextInput
        :value="take.note ?? ''"
        label="Note"
        optional
        :commit="(value) => change({ note: value || undefined })"
      />
    </td>
    <td class="text-right">
      <button
        type="button"
        class="action whitespace-nowrap"
        @click="change({ struck: take.struck ? undefined : true })"
      >
        {{ take.struck ? 'Restore' : 'Delete' }}
      </button>
    </td>
  </tr>
</template>
