<script setup lang="ts">
import { formatISO } from 'date-fns'
import { computed, ref, watch } from 'vue'
import { lengthInWords } from '#core/log/sheets'
import { TakeWatch } from '#core/watch/take-watch'
import { useLog } from '~/composables/use-log'
import { useLogStore } from '~/stores/log'
import type { WatchedLane } from '~/composables/use-watch'

/** A take that is recorded elsewhere and watched here: its clips and headroom go into the log, with the mark of its settings. */
const props = defineProps<{ watched: readonly WatchedLane[] }>()
const emit = defineEmits<{ begin: [] }>()
const logStore = useLogStore()
const log = useLog()
const begun = ref<{ at: number; watch: TakeWatch } | null>(null)
const length = ref(0)
const told = ref<string | null>(null)

const heard = computed(() => props.watched.filter(({ snapshot, isThere }) => snapshot && isThere))
watch(
  () => props.watched,
  () => {
    if (!begun.value) return
    length.value = (Date.now() - begun.value.at) / 1000
    begun.value.watch.next(
      length.value,
      heard.value.map(({ lane }) => lane),
      heard.value.flatMap(({ snapshot }) => (snapshot ? [snapshot] : [])),
    )
  },
)

function begin() {
  told.value = null
  length.value = 0
  emit('begin')
  begun.value = { at: Date.now(), watch: new TakeWatch() }
}
async function end() {
  if (!begun.value) return
  const { at, watch: watching } = begun.value
  begun.value = null
  const number = logStore.nextNumber
  const names = (strip: string) => props.watched.find(({ lane }) => lane.strip === strip)?.lane.name ?? strip
  const summary = watching.summary(names)
  await log.addTake({
    name: '',
    strips: heard.value.map(({ lane }) => lane.strip),
    at: formatISO(at),
    seconds: Math.round((Date.now() - at) / 100) / 10,
    ...summary,
  })
  told.value = log.told.value ?? `Take ${number} is in the log. ${summary.note ?? 'Nothing sounded in it.'}`
}
</script>

<template>
  <button type="button" :class="begun ? 'push-main' : 'push'" data-take-of-inputs @click="begun ? end() : begin()">
    {{ begun ? 'End take' : 'Start take' }} {{ logStore.nextNumber }}
  </button>
  <span v-if="begun" class="figure" role="timer">{{ lengthInWords(length) }}</span>
  <p v-if="told" role="status" class="basis-full" data-take-told>{{ told }}</p>
</template>
