<script setup lang="ts">
import { formatISO } from 'date-fns'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { lengthInWords } from '#core/log/sheets'
import type { Strip } from '#core/model'
import type { Take } from '#core/session'
import { formatDecimal } from '#core/units'
import { useGauge } from '~/composables/use-gauge'
import { useLogStore } from '~/stores/log'

/** The take that is recorded now: begun and ended by a key, watched by the live gauge where that is open. */
const props = defineProps<{ recording: readonly Strip[] }>()
const emit = defineEmits<{ take: [take: Omit<Take, 'id' | 'number' | 'mark' | 'struck'>] }>()
const logStore = useLogStore()
const gauge = useGauge()

const left = ref<ReadonlySet<string>>(new Set())
const armed = computed(() => props.recording.filter(({ id }) => !left.value.has(id)).map(({ id }) => id))
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
function end() {
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
  emit('take', take)
}
const toggle = () => (begun.value === null ? begin() : end())
defineExpose({ toggle })
</script>

<template>
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
      {{ begun === null ? 'Start take' : 'End take' }}
    </button>
    <span class="text-xs text-muted">L</span>
    <p class="flex basis-full flex-wrap gap-x-4 gap-y-1">
      <label v-for="strip in recording" :key="strip.id" class="flex min-h-6 items-center gap-1.5">
        <input
          type="checkbox"
          class="size-6 pointer-coarse:size-11"
          :checked="armed.includes(strip.id)"
          @change="arm(strip.id)"
        />{{ strip.name }}
      </label>
    </p>
    <p class="flex basis-full flex-wrap items-center gap-3 text-muted">
      <template v-if="gauge.source.value === 'none'">
        <button type="button" class="push" @click="gauge.open()">Monitor an input</button>
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
</template>
