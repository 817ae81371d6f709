<script setup lang="ts">
import { drillKinds, drillTeaches, drillTitles } from '#core/trainer/drill'
import { strangersTeaches, strangersTitle } from '#core/trainer/six-strangers'
import { onScopeDispose } from 'vue'
import { lateComponent } from '~/shared/ui/late-component'
import { useShortcuts } from '~/composables/use-shortcuts'
import { useTrainerStore } from './trainer-store'
import DrillPanel from './DrillPanel.vue'
import ExerciseChain from './ExerciseChain.vue'
import ExerciseSteps from './ExerciseSteps.vue'
import TodayPanel from './TodayPanel.vue'

const SixStrangers = lateComponent(() => import('./SixStrangers.vue'))

/** Faulty chains to look at, listen to, check and fix; estimates to be made; what goes badly comes again. */
const trainer = useTrainerStore()
onScopeDispose(trainer.watch())
useShortcuts([{ keys: ['X'], does: 'The next exercise', at: 'Trainer', run: () => trainer.begin() }])
</script>

<template>
  <div
    class="grow gap-x-7 gap-y-4 px-3 pt-2 pb-4 card:px-5 rail:grid rail:min-h-0 rail:grid-cols-[14rem_minmax(0,1fr)] rail:overflow-hidden column:grid-cols-[14rem_minmax(0,1fr)_19rem]"
  >
    <div
      class="min-w-0 rail:min-h-0 rail:overflow-y-auto"
      :class="{ 'max-rail:hidden': trainer.running || trainer.drilling || trainer.settingUp }"
      tabindex="0"
      aria-label="Practice"
    >
      <TodayPanel />
    </div>
    <div class="min-w-0 rail:min-h-0 rail:overflow-y-auto column:contents" tabindex="0" aria-label="Exercise">
      <template v-if="trainer.running">
        <div class="min-w-0 column:min-h-0 column:overflow-y-auto" :tabindex="0" aria-label="The chain">
          <ExerciseChain :key="trainer.running.exercise.seed" :running="trainer.running" />
        </div>
        <div
          class="min-w-0 max-column:mt-5 column:min-h-0 column:overflow-y-auto"
          :tabindex="0"
          aria-label="Checks and answers"
        >
          <ExerciseSteps :key="trainer.running.exercise.seed" :running="trainer.running" />
        </div>
      </template>
      <DrillPanel v-else-if="trainer.drilling" :key="trainer.drilling.drill.seed" :running="trainer.drilling" />
      <SixStrangers v-else-if="trainer.settingUp" :key="trainer.settingUp.seed" :running="trainer.settingUp" />
      <section v-else aria-labelledby="intro-title" class="max-w-prose max-rail:mt-5" data-trainer-intro>
        <h2 id="intro-title" class="border-b border-ink pb-0.5">Find what is wrong</h2>
        <p class="mt-2">
          A chain with one fault in it, or two. Look at its section and figures, listen, make checks, turn knobs; then
          name the cause and choose the fix. Points are deducted for checks beyond the shortest solution, for wrong
          settings, and for decibels left wrong.
        </p>
        <p class="mt-2">Everything you can hear is also shown in words and figures.</p>
        <p class="mt-3"><button type="button" class="push-main" @click="trainer.begin()">Start</button></p>
        <h2 class="mt-6 border-b border-ink pb-0.5">Or set up a whole soundcheck, against the clock</h2>
        <button
          type="button"
          class="plate mt-2 w-full px-3 py-2 text-left hover:border-change"
          data-set-up
          @click="trainer.setUp"
        >
          <strong class="block font-semibold">{{ strangersTitle }}</strong>
          <span class="block text-muted">{{ strangersTeaches }}</span>
        </button>
        <h2 class="mt-6 border-b border-ink pb-0.5">Or estimate one figure, in half a minute</h2>
        <ul class="mt-2 grid gap-3 card:grid-cols-2">
          <li v-for="kind in drillKinds" :key="kind">
            <button
              type="button"
              class="plate h-full w-full px-3 py-2 text-left hover:border-change"
              :data-drill="kind"
              @click="trainer.drill(kind)"
            >
              <strong class="block font-semibold">{{ drillTitles[kind] }}</strong>
              <span class="block text-muted">{{ drillTeaches[kind] }}</span>
            </button>
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>
