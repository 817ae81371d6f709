<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { lengthInWords } from '#core/log/sheets'
import { STRANGERS_FAULTS, STRANGERS_SECONDS, strangersTitle, turnedBy } from '#core/trainer/six-strangers'
import type { StrangerFault } from '#core/watch/strangers'
import { useWatch } from '~/composables/use-watch'
import StrangerRow from './StrangerRow.vue'
import type { RunningSetUp } from './trainer-store'
import { useTrainerStore } from './trainer-store'

/** Six performers at six inputs, everything fully down, and four minutes: meters, gains, and what can be looked at on the floor. */
const props = defineProps<{ running: RunningSetUp }>()
const trainer = useTrainerStore()
const session = computed(() => props.running.session)
const evaluation = computed(() => evaluateSession(session.value))
const inputs = useWatch({ session: () => session.value, evaluation: () => evaluation.value, isPractice: true })
const { watched, strangers } = inputs
const score = computed(() => props.running.score)

const idleLooks = ref(0)
const message = ref<string | null>(null)
const seconds = ref(0)
const clock = useIntervalFn(() => {
  seconds.value = (Date.now() - props.running.began) / 1000
}, 250)
const left = computed(() => STRANGERS_SECONDS - seconds.value)

onMounted(() => {
  inputs.play('loudest')
  void inputs.simulate(props.running.seed, STRANGERS_FAULTS)
})

const LOOKS: { fault: StrangerFault; text: string; found: string; none: string }[] = [
  {
    fault: 'swapped',
    text: 'Follow the cables',
    found: 'were swapped and are put right',
    none: 'Every cable is right.',
  },
  { fault: 'pad', text: 'Look at the pads', found: 'had a pad in; it is out', none: 'No pad is in.' },
  { fault: 'dead', text: 'Try the microphones', found: 'was dead and is replaced', none: 'Every microphone works.' },
]
function look({ fault, found, none }: (typeof LOOKS)[number]) {
  const wrong = inputs.putRight(fault)
  if (wrong.length === 0) idleLooks.value++
  message.value = wrong.length > 0 ? `${wrong.join(' and ')} ${found}.` : none
}
const turn = (strip: string, by: number) => trainer.turnSetUp(turnedBy(session.value, strip, by))
function finish() {
  clock.pause()
  trainer.finishSetUp({
    states: watched.value.map(({ state }) => state),
    faultsLeft: new Set(strangers.value.flatMap(({ fault }) => (fault ? [fault] : []))).size,
    idleLooks: idleLooks.value,
  })
  void inputs.close()
}
</script>

<template>
  <section class="min-w-0 column:col-span-2 column:min-h-0 column:overflow-y-auto" aria-labelledby="six-title" data-six>
    <header class="flex flex-wrap items-baseline gap-x-4 border-b border-ink pb-0.5">
      <h2 id="six-title">{{ strangersTitle }}</h2>
      <span class="figure ml-auto" role="timer" data-left :class="{ 'text-ceiling': left < 0 }">{{
        left < 0 ? `${lengthInWords(-left)} over` : `${lengthInWords(left)} left`
      }}</span>
    </header>
    <p class="mt-1.5 max-w-prose">
      All six play their loudest passage. Bring every peak into its window; peaks restart when a gain is turned. What no
      gain explains is on the floor: a pad, a cable, a microphone.
    </p>
    <ul class="mt-2">
      <StrangerRow
        v-for="each in watched"
        :key="each.lane.strip"
        :watched="each"
        :is-over="score !== null"
        @turn="(by) => turn(each.lane.strip, by)"
      />
    </ul>
    <p v-if="!score" class="mt-3 flex flex-wrap items-baseline gap-2">
      <button
        v-for="each in LOOKS"
        :key="each.fault"
        type="button"
        class="push"
        :data-look="each.fault"
        @click="look(each)"
      >
        {{ each.text }}
      </button>
      <button type="button" class="push-main" data-finish @click="finish">All set</button>
      <span v-if="message" role="status">{{ message }}</span>
    </p>
    <div v-else class="plate mt-3 px-3 py-2" data-score>
      <p>
        <strong class="text-lg">{{ score.points }} of 100</strong> in {{ lengthInWords(seconds) }}.
      </p>
      <ul>
        <li v-for="reason in score.because" :key="reason">{{ reason }}</li>
      </ul>
      <p class="mt-2 flex gap-2">
        <button type="button" class="push-main" @click="trainer.setUp">Six others</button>
        <button type="button" class="push" @click="trainer.leave">Back</button>
      </p>
    </div>
  </section>
</template>
