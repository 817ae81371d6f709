<script setup lang="ts">
import { computed } from 'vue'
import type { PerformerMonitor } from '#core/monitoring/monitor-session'
import type { PlainPart, Room } from '#core/session'
import { layoutFields, withPart } from '#core/session'
import { db, formatDecimal, metres } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SwitchChip from '~/components/fields/SwitchChip.vue'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Two mixes from one desk, to the stream and to the room, and how far the room is from feeding back. */
defineProps<{ monitor: PerformerMonitor }>()
const store = useSessionStore()
const view = useViewStore()
const edit = useSystemEdit()

const sends = computed(() => view.strip?.sends ?? { stream: false, room: false })
const setSend = (part: { stream?: boolean; room?: boolean }) =>
  edit.strip('Send', (strip) => ({ ...strip, sends: { ...sends.value, ...part } }))
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
</script>

<template>
  <section aria-labelledby="sends-title" data-sends>
    <h2 id="sends-title" class="border-b border-ink pb-0.5">Two mixes from one desk</h2>
    <p class="mt-1.5 flex gap-3">
      <SwitchChip :on="sends.stream" label="to the stream" @change="setSend({ stream: $event })" /><SwitchChip
        :on="sends.room"
        label="to the room"
        @change="setSend({ room: $event })"
      />
    </p>
    <template v-if="sends.room">
      <p v-if="!layout" class="mt-1">
        A microphone and a loudspeaker in one room can feed back.
        <button type="button" class="action" @click="setLayout({})">Enter the four distances</button>
      </p>
      <template v-else>
        <p v-for="(field, key) in layoutFields" :key="key" class="flex justify-between py-px">
          <span class="text-muted">{{ field.label }}</span><NumberInput
            :value="layout[key]"
            :field="field"
            :commit="(value) => setLayout({ [key]: value })"
          />
        </p>
        <template v-if="monitor.feedback">
          <p
            class="mt-1"
            :class="monitor.feedback.margin < 0 ? 'plate border-l-4 border-l-ceiling px-2 py-1' : ''"
            data-feedback
          >
            <strong
              >Potential gain <span class="figure">{{ formatDecimal(monitor.feedback.potential, 1) }}</span> dB,
              {{
                monitor.feedback.margin < 0
                  ? `${formatDecimal(-monitor.feedback.margin, 1)} dB short: leave the microphone out of this send`
                  : `${formatDecimal(monitor.feedback.margin, 1)} dB to spare`
              }}.</strong
            >
            <span class="text-muted">
              {{
                monitor.feedback.margin < 0
                  ? 'Or bring it nearer to the source and farther from the loudspeaker, and close what need not be open.'
                  : 'With 6 dB kept back from the brink, and every open microphone counted.'
              }}</span
            >
          </p>
        </template>
        <p v-else class="mt-1 text-muted">This strip has no microphone: nothing of it can feed back.</p>
      </template>
    </template>
    <p v-else class="mt-1 text-muted">Not in the room’s loudspeakers: it cannot feed back there.</p>
    <p class="mt-1 text-xs text-muted">
      Loudspeakers: power off before plugging, on last and off first; never lift a protective earth to cure hum. Leave
      mains and what is inside the boxes to qualified people, and follow local rules.
    </p>
  </section>
</template>
