<script setup lang="ts">
import { computed, ref } from 'vue'
import { NuxtLink } from '#components'
import { stagesOf } from '#core/resolved/resolve-session'
import { recorderChannel } from '#core/soundcheck/plug-steps'
import { useLog } from '~/composables/use-log'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'
import OwnTask from '~/shared/ui/OwnTask.vue'
import RecallSheet from './RecallSheet.vue'
import TakeBar from './TakeBar.vue'
import TakeTable from './TakeTable.vue'

/** The takes: the one that is recorded now, and those that were. */
const emit = defineEmits<{ mark: [] }>()
const store = useSessionStore()
const logStore = useLogStore()
const soundcheck = useSoundcheckStore()
const log = useLog()
const bar = ref<{ toggle: () => void } | null>(null)
defineExpose({ toggle: () => bar.value?.toggle() })

/** Strips that the recorder takes, by its channels. */
const recording = computed(() => {
  const { committed } = store
  if (!committed) return []
  return committed.strips.filter((strip) => recorderChannel({ stages: stagesOf(committed, strip) }) !== null)
})

const showsStruck = ref(false)
const shown = computed(() => logStore.log.takes.filter(({ struck }) => showsStruck.value || !struck).reverse())
const struck = computed(() => logStore.log.takes.filter((take) => take.struck).length)
</script>

<template>
  <section aria-label="Takes" data-takes>
    <TakeBar ref="bar" :recording="recording" @take="log.addTake" />
    <p v-if="log.told.value" role="alert" class="mt-1 text-ceiling">{{ log.told.value }}</p>
    <OwnTask v-if="shown.length > 0"><TakeTable :takes="shown" :recording="recording" /></OwnTask>
    <div v-else class="mt-4 space-y-2" data-begin>
      <p v-if="soundcheck.open > 0">
        Nothing is recorded yet. The soundcheck has
        {{ soundcheck.open }} of {{ soundcheck.steps.length }} steps to go. Then add a mark, so that you can restore it
        next week.
      </p>
      <p v-else>Nothing is recorded yet, and the soundcheck is done. Add a mark, then start the first take.</p>
      <p>
        <NuxtLink v-if="soundcheck.open > 0" class="push-main" :to="`/soundcheck/${store.key}`"
          >Go on with the soundcheck</NuxtLink
        >
        <button v-else type="button" class="push-main" @click="emit('mark')">Add a mark</button>
      </p>
      <p class="text-muted">
        A take carries the mark with its settings: the last mark, or a new one if something was changed since.
      </p>
      <section v-if="store.committed" aria-labelledby="as-it-stands" class="pt-2" data-as-it-stands>
        <h2 id="as-it-stands" class="mb-1 border-b border-ink pb-0.5">What a mark would keep now</h2>
        <OwnTask><RecallSheet :session="store.committed" :mark="null" /></OwnTask>
      </section>
    </div>
    <p v-if="struck > 0" class="mt-2">
      <button type="button" class="action" :aria-pressed="showsStruck" @click="showsStruck = !showsStruck">
        {{ showsStruck ? 'Hide' : 'Show' }} {{ struck }} deleted
      </button>
    </p>
    <p class="mt-2 text-xs text-muted">Keys for the last take: Y keep, D maybe, X no.</p>
  </section>
</template>
