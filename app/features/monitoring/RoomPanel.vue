<script setup lang="ts">
import { computed, ref } from 'vue'
import { loudspeakerSettings } from '#core/monitoring/loudspeakers'
import { roomBusses } from '#core/monitoring/room-busses'
import type { NumberField, Room } from '#core/model'
import type { PlainPart } from '#core/edits'
import { layoutFields } from '#core/model'
import { withPart } from '#core/edits'
import { db, formatDecimal, metres } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SendsPanel from '~/shared/sends/SendsPanel.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The mixes of the selected strip, how far the room is from feeding back, and how its loudspeakers are set. */
const store = useSessionStore()
const view = useViewStore()
const edit = useSystemEdit()
const stage = useStageEdit()

const rooms = computed(() => (store.session && store.evaluation ? roomBusses(store.session, store.evaluation) : []))
const nameOf = (id: string) => store.session?.strips.find((strip) => strip.id === id)?.name ?? ''
const USUAL: RoomLayout = {
  sourceToListener: metres(6),
  microphoneToLoudspeaker: metres(4),
  loudspeakerToListener: metres(7),
  wanted: db(layoutFields.wanted.initial),
}
type RoomLayout = NonNullable<Room['layout']>
const layout = computed(() => store.session?.room.layout)
const setLayout = (part: PlainPart<RoomLayout> | undefined) =>
  edit.session('Distances of the room', (session) => ({
    ...session,
    room: { ...session.room, layout: part && withPart({ ...USUAL, ...layout.value }, part) },
  }))

/** The level that is wanted at the listener is for this look only: what is set by it is kept. */
const LOUDEST = {
  label: 'Wanted at the listener',
  unit: 'dB SPL',
  min: 40,
  max: 110,
  help: 'Average of the loudest passage.',
} as const satisfies NumberField
const wanted = ref(75)
const settings = computed(() =>
  store.session && store.evaluation ? loudspeakerSettings(store.session, store.evaluation, wanted.value) : [],
)
const BANDS = { full: 'loudspeakers', sub: 'subwoofer', top: 'tops' } as const
const SHORT = {
  'range': 'its knob does not go that far',
  'limit': 'that is beyond its limits',
  'no control': 'it has no control here',
} as const
function setLoudspeaker({ bus, control, to }: (typeof settings.value)[number]) {
  if (!control || to === null) return
  stage.changes('Set the loudspeakers', [
    { strip: bus.id, stage: control.stage, setting: control.setting, to: db(Math.round(to * 10) / 10) },
  ])
}
</script>

<template>
  <SendsPanel v-if="view.strip" :key="view.strip.id" :strip="view.strip" />
  <section aria-labelledby="room-title" class="mt-3" data-room>
    <h2 id="room-title" class="border-b border-ink pb-0.5">Loudspeakers in the room</h2>
    <p v-if="rooms.length === 0" class="mt-1 text-muted">
      No bus ends in a loudspeaker: nothing can feed back. “Add a strip” has one.
    </p>
    <template v-else>
      <p v-if="!layout" class="mt-1">
        A microphone and a loudspeaker in one room can feed back.
        <button type="button" class="action" @click="setLayout({})">Enter the distances</button>
      </p>
      <template v-if="layout">
        <p v-for="(field, key) in layoutFields" :key="key" class="flex justify-between py-px">
          <span class="text-muted">{{ field.label }}</span><NumberInput
            :value="layout[key]"
            :field="field"
            :commit="(value) => setLayout({ [key]: value })"
          />
        </p>
      </template>
      <div v-for="{ bus, feedback, potential } in rooms" :key="bus.id" class="mt-1" data-feedback>
        <template v-if="feedback && feedback.margin !== null">
          <p :class="feedback.margin < 0 ? 'plate border-l-4 border-l-ceiling px-2 py-1' : ''">
            <strong>
              {{ bus.name }}:
              {{
                feedback.margin < 0
                  ? `${formatDecimal(-feedback.margin, 1)} dB past what is safe: it can feed back`
                  : `${formatDecimal(feedback.margin, 1)} dB gain before feedback`
              }}, {{ feedback.microphones.length }}
              {{ feedback.microphones.length === 1 ? 'microphone' : 'microphones' }} open.</strong
            >
            <span v-if="potential !== null" class="text-muted">
              These distances allow <span class="figure">{{ formatDecimal(potential, 1) }}</span> dB of acoustic gain,
              with 6 dB in reserve{{
                layout && potential < layout.wanted
                  ? `: ${formatDecimal(layout.wanted - potential, 1)} dB short of what is wanted`
                  : ''
              }}.</span
            >
          </p>
          <ul class="text-muted">
            <li v-for="each in feedback.microphones" :key="each.strips.join()">
              {{ each.strips.map(nameOf).join(' and ') }} 6 dB lower: {{ formatDecimal(each.lowered, 1) }} dB; out of
              it: {{ each.without === null ? 'no feedback is possible' : `${formatDecimal(each.without, 1)} dB` }}.
            </li>
          </ul>
        </template>
        <p v-else-if="!feedback" class="text-muted">{{ bus.name }}: no microphone feeds it.</p>
      </div>
      <p class="mt-2 flex justify-between"><span>Set them last: subwoofer first, then the others to match</span></p>
      <p class="flex justify-between py-px">
        <span class="text-muted">Wanted at the listener</span
        ><NumberInput :value="wanted" :field="LOUDEST" :commit="(value) => ((wanted = value ?? wanted), null)" />
      </p>
      <ul data-loudspeakers>
        <li v-for="each in settings" :key="each.bus.id" class="flex items-baseline justify-between gap-2">
          <span
            >{{ each.bus.name }}, {{ BANDS[each.band] }}:
            <span class="figure">{{ formatDecimal(each.average, 1) }}</span> dB SPL now</span
          >
          <button
            v-if="each.to !== null && Math.abs(each.average - wanted) >= 0.1"
            type="button"
            class="action"
            @click="setLoudspeaker(each)"
          >
            to {{ formatDecimal(each.to, 1) }} dB
          </button>
          <span v-else class="text-muted">{{ each.short ? SHORT[each.short] : 'as wanted' }}</span>
        </li>
      </ul>
    </template>
    <p class="mt-1 text-xs text-muted">
      Loudspeakers: power off before plugging, on last and off first; for levels at an audience, follow local rules.
      Never lift a protective earth to cure hum. Leave mains and the inside of devices to qualified people.
    </p>
  </section>
</template>
