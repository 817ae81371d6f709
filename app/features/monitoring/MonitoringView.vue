<script setup lang="ts">
import { computed } from 'vue'
import { routeTime } from '#core/latency/route-words'
import type { RouteName } from '#core/latency/routes'
import { monitorSession } from '#core/monitoring/monitor-session'
import { editStrip, withPart } from '#core/edits'
import { isBus } from '#core/model'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { useRecommendation } from '~/composables/use-recommendation'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import ArrivalChart from './ArrivalChart.vue'
import HeadphonesPanel from './HeadphonesPanel.vue'
import MixPanel from './MixPanel.vue'
import OwnTask from '~/shared/ui/OwnTask.vue'
import RoomPanel from './RoomPanel.vue'
import SoundPanel from './SoundPanel.vue'

/** What the performers hear: when it arrives, how it sounds, how loud it is. */
const store = useSessionStore()
const view = useViewStore()
const edit = useSystemEdit()
const { best, adopted, adopt } = useRecommendation()

const monitors = computed(() => (store.session ? monitorSession(store.session) : []))
const monitor = computed(() => monitors.value.find((each) => each.strip === view.strip?.id) ?? null)
const settings = computed(() => view.strip?.monitor)
const ways = [
  { value: 'direct', text: 'Direct monitoring' },
  { value: 'software', text: 'Software monitoring' },
  { value: 'both', text: 'Both' },
] as const
const way = computed(() => (settings.value?.alsoHeard !== undefined ? 'both' : (settings.value?.route ?? 'software')))
/** Where both are heard, the other path is taken to be 6 dB lower until it is said otherwise. */
const setWay = (value: (typeof ways)[number]['value']) =>
  edit.monitor('Listens by', value === 'both' ? { alsoHeard: -6 } : { route: value, alsoHeard: undefined })
const listen = (strip: string, route: RouteName) =>
  store.edit('Listens by', (session) =>
    editStrip(session, strip, (each) => ({
      ...each,
      monitor: withPart(each.monitor, { route, alsoHeard: undefined }),
    })),
  )
</script>

<template>
  <div
    v-if="store.session"
    class="grow gap-6 px-3 pt-2 card:px-5 column:grid column:min-h-0 column:grid-cols-[minmax(0,1fr)_18rem] column:overflow-hidden"
  >
    <div
      class="min-w-0 space-y-4 pb-4 column:min-h-0 column:overflow-y-auto"
      tabindex="0"
      aria-label="When it arrives and how it sounds"
    >
      <ArrivalChart :monitors="monitors" @listen="listen" />
      <p v-if="!monitor">
        “{{ view.strip?.name }}” has no performer: nobody plays into
        {{ view.strip && isBus(view.strip) ? 'a bus' : 'a recording' }}.
      </p>
      <div v-if="monitor" class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <ChoiceBar :options="ways" :chosen="way" label="Monitoring by" @choose="setWay" />
        <p v-if="best" class="min-w-0 flex-1 basis-64" data-recommended>
          Recommended:
          <strong
            >{{ best.route === 'direct' ? 'direct monitoring' : `software monitoring at ${best.bufferFrames} frames` }},
            {{ routeTime(best) }}.</strong
          >
          <span class="text-muted"> {{ best.reason }} </span>
          <button v-if="!adopted" type="button" class="action" @click="adopt">Set it</button
          ><span v-else class="text-muted">In use.</span>
        </p>
      </div>
      <ul v-if="monitor && monitor.notes.length > 0" class="list-disc pl-5">
        <li v-for="note in monitor.notes" :key="note">{{ note }}</li>
      </ul>
      <SoundPanel v-if="monitor" :monitor="monitor" />
    </div>
    <aside
      class="gap-x-8 pb-4 card:max-column:columns-2 column:min-h-0 column:overflow-y-auto *:mb-4 *:break-inside-avoid"
      tabindex="0"
      aria-label="How loud it is, what is heard, and sends"
    >
      <OwnTask>
        <HeadphonesPanel v-if="monitor" :monitor="monitor" />
        <MixPanel v-if="monitor" :monitor="monitor" />
        <RoomPanel />
      </OwnTask>
    </aside>
  </div>
</template>
