<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import { ArrowDown, ArrowUp, Check, Circle, Ellipsis, OctagonX, Waves, X } from '@lucide/vue'
import { NuxtLink } from '#components'
import { turnWords } from '#core/soundcheck/turn-words'
import { formatDecimal, formatSigned } from '#core/units'
import { turnGuide } from '#core/watch/turn-guide'
import type { LaneState } from '#core/watch/state'
import { sounds } from '#core/watch/state'
import { COLUMNS } from '~/composables/use-gauge'
import { useSessionStore } from '~/stores/session'
import KnobView from './KnobView.vue'
import RiverCanvas from './RiverCanvas.vue'
import type { WatchedLane } from '~/composables/use-watch'

/** One input among all: what is planned, what flows in, how it stands, and what to turn. */
const props = defineProps<{ watched: WatchedLane; channels: number; large: boolean; planned: number | null }>()
const emit = defineEmits<{ turn: []; putAside: [id: string]; moveTo: [channel: number]; enlarge: [] }>()
const store = useSessionStore()

const STATES: Record<LaneState, { icon: Component; word: string; alarm: boolean }> = {
  'waiting': { icon: Ellipsis, word: 'not heard yet', alarm: false },
  'silent': { icon: Circle, word: 'silent', alarm: true },
  'low': { icon: ArrowDown, word: 'low', alarm: false },
  'in-window': { icon: Check, word: 'in its window', alarm: false },
  'hot': { icon: ArrowUp, word: 'hot', alarm: true },
  'clipped': { icon: OctagonX, word: 'clipped', alarm: true },
  'faulty': { icon: Waves, word: 'faulty', alarm: true },
}
const lane = computed(() => props.watched.lane)
const state = computed(() => STATES[props.watched.state])
const passage = computed(() => props.watched.snapshot?.passage ?? null)
const peak = computed(() => passage.value?.peak ?? null)
const heard = computed(() => sounds(lane.value, peak.value))
const difference = computed(() => props.watched.reading?.inferred.difference ?? null)
const windowWords = computed(() => {
  const { window } = lane.value
  return window ? `window ${formatDecimal(window.low, 0)} … ${formatDecimal(window.high, 0)}` : 'no target'
})
/** So near to clipping it is said before it clips, dB. */
const NEAR = 3
const nearClipping = computed(() =>
  heard.value && props.watched.state !== 'clipped' && (peak.value ?? -Infinity) > -NEAR
    ? 'Within 3 dB of clipping.'
    : '',
)
/** Where no gain is left, something else has to give. */
const atItsEnd = computed(() => {
  const { state: now } = props.watched
  const { up, down } = lane.value.gainLeft
  if (now === 'low' && up <= 0) return 'The gain is at its top: bring the microphone nearer, or play louder.'
  if ((now === 'hot' || now === 'clipped') && down <= 0)
    return 'The gain is at its bottom: press a pad, or move the microphone away.'
  return ''
})
const says = computed(() => {
  const { reading, state: now } = props.watched
  if (now === 'in-window') return lane.value.gain ? `Keep ${lane.value.gain}.` : 'Leave it.'
  const clips = passage.value?.clippedRuns ?? 0
  const clipped = clips > 0 ? `Clipped ${clips} ${clips === 1 ? 'time' : 'times'}. ` : ''
  const off = `${formatDecimal(Math.abs(difference.value ?? 0), 1)} dB ${(difference.value ?? 0) > 0 ? 'louder' : 'quieter'} than planned`
  if (now === 'faulty')
    return `${clipped}${off}: something is wrong. Check pad, 48 V, input type and cable; turn no gain until it is found.`
  if (heard.value && reading?.inferred.contradicts)
    return `${clipped}${off}, more than its figures allow beside the other inputs. Check pad, 48 V, input type and cable before any gain.`
  return heard.value
    ? [`${clipped}${reading?.inferred.says ?? ''}`, nearClipping.value, atItsEnd.value].filter(Boolean).join(' ')
    : ''
})
const turn = computed(() => {
  const [change] = props.watched.reading?.inferred.changes ?? []
  return change && store.session ? turnWords(store.session, change) : null
})
const banks = computed(() => ({
  window: lane.value.window,
  expected: { level: lane.value.expected.peak, give: 0 },
  held: heard.value ? peak.value : null,
  floor: lane.value.floor,
}))
const looksUp = (faults: NonNullable<WatchedLane['notices'][number]['faults']>) => ({
  path: `/faults/${store.key}`,
  query: {
    strip: lane.value.strip,
    symptom: faults.symptom,
    answers: Object.entries(faults.answers)
      .map(([check, outcome]) => `${check}:${outcome}`)
      .join(','),
  },
})
/** For the hand at the knob, where the lane is large; with the rivers' own pace. */
const guide = computed(() => {
  if (!props.large || !store.session) return null
  if (props.watched.drawn.value < 0) return null
  const asked = props.watched.reading?.inferred.changes.at(-1)?.to
  return turnGuide(
    store.session,
    lane.value,
    {
      asked: typeof asked === 'number' ? asked : null,
      planned: props.planned,
      held: (lane.value.window?.reads === 'average' ? passage.value?.loudest : passage.value?.peak) ?? null,
      isFaulty: props.watched.state === 'faulty' || props.watched.reading?.inferred.contradicts != null,
    },
    props.watched.river,
  )
})
const sureWords = (sure: number) => `${formatDecimal(100 * sure, 0)} % sure`
</script>

<template>
  <li
    class="grid grid-cols-[2.25rem_minmax(0,1fr)] gap-x-2 gap-y-1 border-b border-rule py-2 rail:grid-cols-[2.25rem_9.5rem_minmax(0,1fr)_19rem]"
    :data-lane="lane.strip"
    :data-state="watched.state"
  >
    <span class="figure text-xl leading-tight text-muted">{{ watched.channel + 1 }}</span>
    <div class="min-w-0 text-xs text-muted">
      <button
        type="button"
        class="block max-w-full truncate text-left text-[15px] font-semibold text-ink"
        :aria-expanded="large"
        :title="`${lane.name}, ${lane.socket}`"
        @click="emit('enlarge')"
      >
        {{ lane.name }}
      </button>
      <span class="block truncate" :title="lane.gain ?? ''">{{ lane.gain ?? 'no gain' }}</span>
      <span class="figure block">{{ windowWords }}</span>
      <label v-if="channels > 1" class="flex items-center gap-1"
        >on
        <select
          :value="watched.channel"
          class="border-b border-dotted border-rule bg-sheet"
          :aria-label="`Channel of ${lane.name}`"
          @change="emit('moveTo', Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="n in Math.max(channels, watched.channel + 1)" :key="n" :value="n - 1">channel {{ n }}</option>
        </select></label
      >
    </div>
    <KnobView
      v-if="guide"
      class="max-rail:col-span-2 rail:order-last rail:col-span-4"
      :guide="guide"
      :name="lane.name"
      :window="lane.window"
    />
    <RiverCanvas
      narrow
      class="max-rail:col-span-2"
      :class="large ? 'h-40' : 'h-12 rail:h-20'"
      :columns="watched.river"
      :most="COLUMNS"
      :banks="banks"
      :drawn="watched.drawn"
      :label="`Level of ${lane.name} over the last half minute, under its ceiling at 0 dBFS`"
    />
    <div class="min-w-0 max-rail:col-span-2">
      <p v-if="!watched.isThere" class="border-l-3 border-ceiling pl-2">
        This device has no channel {{ watched.channel + 1 }}: the strip is not heard.
      </p>
      <template v-else>
        <p class="flex items-baseline gap-2">
          <component
            :is="state.icon"
            class="size-4 shrink-0 self-center"
            :class="state.alarm ? 'text-ceiling' : 'text-change'"
            aria-hidden="true"
          />
          <strong data-lane-state>{{ state.word }}</strong>
          <span v-if="heard" class="ml-auto whitespace-nowrap"
            ><span class="sr-only">Peak</span>
            <span class="figure" data-lane-peak>{{ formatDecimal(peak, 1) }}</span> dBFS</span
          >
          <span v-if="heard && difference !== null" class="whitespace-nowrap text-muted" title="Against the plan"
            ><span class="figure">{{ formatSigned(difference, 1) }}</span> dB</span
          >
        </p>
        <p v-if="says" class="text-[13px]" data-lane-says>{{ says }}</p>
        <NuxtLink
          v-if="watched.state === 'faulty' && (difference ?? 0) < 0"
          :to="looksUp({ symptom: 'too-quiet', answers: {} })"
          class="action"
          >Look it up in Faults</NuxtLink
        >
        <button v-if="turn" type="button" class="push-main mt-1" data-lane-turn @click="emit('turn')">
          Turn to {{ turn.to }}
        </button>
      </template>
      <p
        v-for="notice in watched.notices"
        :key="notice.id"
        class="mt-1 border-l-3 border-ceiling pl-2 text-[13px]"
        :data-notice="notice.id"
      >
        {{ notice.says }}
        <span v-if="notice.sure > 0" class="whitespace-nowrap text-muted">{{ sureWords(notice.sure) }}</span>
        <NuxtLink v-if="notice.faults" :to="looksUp(notice.faults)" class="action ml-2 whitespace-nowrap"
          >Look it up in Faults</NuxtLink
        >
        <button
          type="button"
          class="icon-button ml-1 align-middle"
          :aria-label="`Put aside: ${notice.says}`"
          title="Put aside"
          @click="emit('putAside', notice.id)"
        >
          <X class="size-3.5" aria-hidden="true" />
        </button>
      </p>
    </div>
  </li>
</template>
