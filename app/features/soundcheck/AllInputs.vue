<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { applyChanges } from '#core/edits'
import type { Playing } from '#core/render/performer'
import { formatShort } from '#core/units'
import { readingOfLane } from '#core/watch/inference'
import { controlOf, turnedStrip } from '#core/watch/turn-guide'
import type { StrangerFault } from '#core/watch/strangers'
import { useShortcuts } from '~/composables/use-shortcuts'
import { chooseFile } from '~/composables/file-access'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { useSessionStore } from '~/stores/session'
import LaneRow from './LaneRow.vue'
import TakeOfInputs from './TakeOfInputs.vue'
import { useSoundcheck } from './use-soundcheck'
import type { WatchedLane } from '~/composables/use-watch'
import { useWatch } from '~/composables/use-watch'

/** Every input of the recorder at once: what comes in, what is wrong with it, and what to turn. */
const store = useSessionStore()
const soundcheck = useSoundcheck()
const inputs = useWatch({ session: () => store.committed, evaluation: () => store.evaluation })
const {
  source,
  opened,
  devices,
  device,
  trouble,
  opening,
  asleep,
  watched,
  verdict,
  readings,
  turns,
  playing,
  file,
  processed,
} = inputs
const told = ref<string | null>(null)
const large = ref<string | null>(null)
onMounted(() => inputs.look())

const PLAYING: { value: Playing; text: string }[] = [
  { value: 'silent', text: 'silent' },
  { value: 'usual', text: 'playing' },
  { value: 'loudest', text: 'loudest passage' },
  { value: 'surge', text: 'as in the take' },
]
/** What a hand can look at on the floor, and what that puts right of simulated performers. */
const LOOKS: { fault: StrangerFault; text: string; found: string }[] = [
  { fault: 'swapped', text: 'Check the cables', found: 'were swapped. They are right now' },
  { fault: 'pad', text: 'Check the pads', found: 'had a pad pressed. It is out now' },
  { fault: 'dead', text: 'Check the microphones', found: 'was dead. It has been replaced' },
]
// Where the cables are is said at the device that listens.
const channels = computed(() =>
  source.value === 'simulated' || source.value === 'remote' ? 0 : inputs.channelCount.value,
)
async function openFile() {
  const chosen = await chooseFile({ extensions: ['.wav', '.wave'], description: 'Recording', id: 'remetra-recording' })
  if (chosen) await inputs.playFile(chosen)
}
const statements = computed(() => Object.entries(verdict.value))

/** Of many inputs some faults, so that there is something to find. */
const faultsFor = (count: number): StrangerFault[] =>
  count >= 5 ? ['swapped', 'pad', 'dead'] : count >= 3 ? ['swapped', 'pad'] : []
function simulate() {
  told.value = null
  void inputs.simulate(1 + Math.floor(1000 * Math.random()), faultsFor(inputs.lanes.value.length))
}
function look({ fault, text, found }: (typeof LOOKS)[number]) {
  const wrong = inputs.putRight(fault)
  told.value = wrong.length > 0 ? `${wrong.join(' and ')} ${found}.` : `${text}: all of them are right.`
}

/** Every level that has sounded becomes a reading; one that may not be the input’s does not. */
function takeAll() {
  if (source.value === 'none') return
  if (processed.value.length > 0) {
    told.value = `Not used: the browser could not switch off ${processed.value.join(' and ')}, so these levels are not the inputs’.`
    return
  }
  const taken = watched.value.flatMap(({ lane, snapshot, isThere, state }) => {
    const read = snapshot && isThere ? readingOfLane(lane, snapshot) : null
    // A fault is cleared first: its level says nothing of the source.
    if (!read || state === 'faulty') return []
    const words = read.reads === 'average' ? 'average (RMS)' : 'sample peak'
    return [
      {
        strip: lane.strip,
        stage: lane.stage,
        meter: { reads: read.reads, unit: 'dBFS' as const, words },
        value: read.value,
        by: source.value === 'file' ? ('file' as const) : ('live' as const),
      },
    ]
  })
  if (taken.length === 0) told.value = 'No signal yet. Play the loudest passage, then take the readings.'
  else told.value = soundcheck.takeAll(taken) ?? `${taken.length} ${taken.length === 1 ? 'reading' : 'readings'} taken.`
}

/** Everything that is offered, as one edit; peaks begin anew, because they are of the gains before. */
function turnAll() {
  const changes = turns.value
  if (changes.length === 0) return
  told.value = store.edit(changes.length === 1 ? 'Turn a gain' : `Turn ${changes.length} gains`, (session) =>
    applyChanges(session, changes),
  )
}
/** The planned gain of the lane, dB. */
const plannedOf = ({ lane }: WatchedLane): number | null => {
  const stage = store.session && controlOf(store.session, lane)?.stage
  const to = store.plan?.settings.find((each) => each.strip === lane.strip && each.stage === stage)?.to
  return typeof to === 'number' ? to : null
}
function turnOne({ reading }: WatchedLane) {
  const changes = reading?.inferred.changes ?? []
  told.value = store.edit('Turn a gain', (session) => applyChanges(session, changes))
}
watch(source, () => {
  told.value = null
})
// A gain that is being turned, here or at another device, is shown large.
watch(
  () => store.draft ?? store.othersDraft,
  (draft) => {
    const turned = draft && store.committed && turnedStrip(store.committed, draft)
    if (turned) large.value = turned
  },
)

/** A key that a control takes for itself is left to it. */
const atRest = () => !document.activeElement?.matches('button, a, summary, select, [role="radio"]')
useShortcuts([
  { keys: [' '], does: 'Take all readings', at: 'Soundcheck', when: atRest, run: takeAll },
  { keys: ['Enter'], does: 'Turn what is offered', at: 'Soundcheck', when: atRest, run: turnAll },
  { keys: ['R'], does: 'Restart the peaks', at: 'Soundcheck', run: inputs.startPassage },
])
</script>

<template>
  <section
    class="flex min-h-0 grow flex-col px-3 pb-3 card:px-5 rail:overflow-y-auto"
    aria-labelledby="all-inputs-title"
    data-all-inputs
    :data-source="source"
    tabindex="0"
  >
    <h2 id="all-inputs-title" class="sr-only">All inputs</h2>
    <div class="flex flex-wrap items-center gap-2 py-1.5">
      <template v-if="source === 'none'">
        <button type="button" class="push-main" :disabled="opening" data-listen @click="inputs.open()">
          {{ opening ? 'Opening…' : 'Listen to all inputs' }}
        </button>
        <label v-if="devices.length > 0" class="flex min-w-0 items-center gap-1"
          ><span class="sr-only">Device</span>
          <select v-model="device" class="max-w-44 border-b border-dotted border-rule bg-sheet">
            <option :value="null">the default device</option>
            <option v-for="each in devices" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select></label
        >
        <button type="button" class="push" data-play-file @click="openFile">Play a recording…</button>
        <button type="button" class="push" data-simulate-all @click="simulate">Try simulated performers</button>
      </template>
      <template v-else>
        <button type="button" class="push-main" data-take-all @click="takeAll">Take all readings</button>
        <button v-if="turns.length > 0" type="button" class="push-main" data-turn-all @click="turnAll">
          Turn {{ turns.length }} {{ turns.length === 1 ? 'gain' : 'gains' }}, then listen on
        </button>
        <button type="button" class="push" data-restart @click="inputs.startPassage()">Restart the peaks</button>
        <TakeOfInputs v-if="source !== 'remote'" :watched="watched" @begin="inputs.startPassage()" />
        <ChoiceBar
          v-if="source === 'simulated'"
          :options="PLAYING"
          :chosen="playing"
          label="How they play"
          @choose="inputs.play"
        />
        <span class="text-xs text-muted max-rail:hidden">Space takes, Enter turns, R restarts</span>
        <button v-if="source !== 'remote'" type="button" class="action ml-auto" data-stop @click="inputs.close()">
          Stop listening
        </button>
      </template>
    </div>
    <p v-if="source === 'simulated'" class="flex flex-wrap gap-x-4 text-muted">
      Something may be wrong on the floor.
      <button
        v-for="each in LOOKS"
        :key="each.fault"
        type="button"
        class="action"
        :data-look="each.fault"
        @click="look(each)"
      >
        {{ each.text }}
      </button>
    </p>
    <p v-if="trouble" role="alert" class="mt-1 border-l-3 border-ceiling pl-2" data-trouble>
      {{ trouble }}
      <button v-if="asleep" type="button" class="action" @click="inputs.wake">Wake it</button>
    </p>
    <p v-if="source === 'file' && file" class="text-muted" data-file>
      “{{ file.name }}”<template v-if="file.channels > 0"
        >, {{ file.channels }} {{ file.channels === 1 ? 'channel' : 'channels' }}, as it was recorded: a gain that you
        turn now changes nothing in it.</template
      >
      <strong v-if="file.ended" class="text-ink" role="status">{{ file.ended }}</strong>
    </p>
    <p v-if="processed.length > 0" role="alert" class="mt-1 border-l-3 border-ceiling pl-2">
      The browser could not switch off {{ processed.join(' and ') }}: these are not the true inputs, and no readings are
      taken.
    </p>
    <p v-if="opened && opened.missing > 0" role="alert" class="mt-1 border-l-3 border-ceiling pl-2">
      This browser hands out the first {{ opened.channels }} channels of {{ opened.channels + opened.missing }}.
    </p>
    <p v-if="told" role="status" class="mt-1" data-told>{{ told }}</p>
    <div
      v-if="source !== 'none'"
      class="plate my-1 grid card:grid-cols-3"
      role="status"
      aria-label="All inputs together"
      aria-live="off"
      data-watch-verdict
    >
      <p
        v-for="[key, statement] in statements"
        :key="key"
        class="min-w-0 border-line px-3 py-1 last:border-0 max-card:border-b card:border-r"
        :data-statement="key"
      >
        <strong class="block text-[15px]">{{ statement.headline }}</strong>
        <span class="block text-muted">{{ statement.detail }}</span>
      </p>
    </div>
    <p v-if="readings?.common" class="mt-1 border-l-3 border-change pl-2" data-common>{{ readings.common }}</p>
    <ul aria-label="Inputs">
      <LaneRow
        v-for="each in watched"
        :key="each.lane.strip"
        :watched="each"
        :planned="plannedOf(each)"
        :channels="channels"
        :large="large === each.lane.strip"
        @turn="turnOne(each)"
        @put-aside="inputs.putAside"
        @move-to="(channel) => inputs.moveTo(each.lane.strip, channel)"
        @enlarge="large = large === each.lane.strip ? null : each.lane.strip"
      />
    </ul>
    <p v-if="watched.length === 0" class="mt-2" data-no-inputs>
      No strip of this session comes in at a converter. Add a strip with an interface input.
    </p>
    <p class="mt-2 text-xs text-muted">
      {{
        source === 'simulated'
          ? 'Made up from the strips as they are set; each performer differs from the plan, as strangers do. Readings taken here are practice: undo them, or work in a copy of the session.'
          : source === 'remote'
            ? 'Heard by the device that shares this session; its levels come over the network, its sound does not.'
            : source === 'device'
              ? `${opened?.name}, ${formatShort((opened?.sampleRate ?? 0) / 1000)} kHz, ${processed.length === 0 ? 'processing off' : 'processing on'}. Nothing is kept of the sound, and nothing leaves this computer.`
              : 'Turn monitors and headphones down before you open an input. Nothing is kept of the sound, and nothing leaves this computer.'
      }}
    </p>
  </section>
</template>
