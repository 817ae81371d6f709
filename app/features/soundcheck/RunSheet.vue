<script setup lang="ts">
import { Check, Circle, RotateCw } from '@lucide/vue'
import { computed, nextTick, ref, watch } from 'vue'
import { sectionsOf } from '#core/soundcheck/sections'
import type { Section } from '#core/soundcheck/sections'
import type { Step } from '#core/soundcheck/step'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'
import OwnTask from '~/shared/ui/OwnTask.vue'
import StepCard from './StepCard.vue'

/** What is done in which order, section by section; the one with the step in hand lies open. */
const emit = defineEmits<{ tick: [step: Step] }>()
const store = useSessionStore()
const soundcheck = useSoundcheckStore()

const sections = computed(() => (store.committed ? sectionsOf(store.committed, soundcheck.steps) : []))
const numbers = computed(() => new Map(soundcheck.steps.map(({ id }, i) => [id, i + 1])))
const opened = ref<ReadonlySet<string>>(new Set())
const isOpen = ({ key, steps }: Section) => opened.value.has(key) || steps.some(({ id }) => id === soundcheck.step?.id)
function toggle({ key }: Section) {
  const next = new Set(opened.value)
  if (!next.delete(key)) next.add(key)
  opened.value = next
}
const stateOf = ({ steps }: Section) =>
  steps.every(({ state }) => state === 'done')
    ? 'done'
    : steps.some(({ state }) => state === 'again')
      ? 'again'
      : 'open'
const told = ({ steps }: Section) => {
  const done = steps.filter(({ state }) => state === 'done').length
  const again = steps.filter(({ state }) => state === 'again').length
  if (again > 0) return `${again} to do again`
  return done === 0 ? `${steps.length} ${steps.length === 1 ? 'step' : 'steps'}` : `${done} of ${steps.length}`
}
const WORDS = { done: 'done', open: 'to do', again: 'to do again' } as const
const ICONS = { done: Check, open: Circle, again: RotateCw } as const
const COLOURS = { done: 'text-change', open: 'text-muted', again: 'text-ceiling' } as const

// By key the step in hand may lie out of sight.
const list = ref<HTMLElement | null>(null)
watch(
  () => soundcheck.step?.id,
  async () => {
    await nextTick()
    list.value?.querySelector('[aria-current="step"]')?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <section ref="list" aria-labelledby="run-sheet-title" data-run-sheet>
    <h2 id="run-sheet-title" class="flex justify-between border-b border-ink pb-0.5">
      Run sheet
      <span class="font-normal text-muted" data-progress
        >{{ soundcheck.steps.length - soundcheck.open }} of {{ soundcheck.steps.length }}</span
      >
    </h2>
    <OwnTask>
      <ol>
        <li
          v-for="section in sections"
          :key="section.key"
          class="border-b border-line py-0.5"
          :data-section="section.key"
        >
          <h3>
            <button
              type="button"
              class="flex w-full items-center gap-2 text-left"
              :aria-expanded="isOpen(section)"
              @click="toggle(section)"
            >
              <component
                :is="ICONS[stateOf(section)]"
                class="size-4 shrink-0"
                :class="COLOURS[stateOf(section)]"
                aria-hidden="true"
              />
              <span class="grow">{{ section.title }}</span>
              <span class="shrink-0 text-xs font-normal text-muted">{{ section.note ?? told(section) }}</span>
            </button>
          </h3>
          <ol v-if="isOpen(section)" class="pb-1">
            <li
              v-for="step in section.steps"
              :key="step.id"
              :data-step="step.id"
              :data-state="step.state"
              :aria-current="step.id === soundcheck.step?.id ? 'step' : undefined"
            >
              <StepCard
                v-if="step.id === soundcheck.step?.id"
                :step="step"
                :number="numbers.get(step.id) ?? 0"
                @tick="emit('tick', step)"
              />
              <p v-else class="flex items-center gap-2 pl-1">
                <button
                  type="button"
                  role="checkbox"
                  class="icon-button"
                  :class="COLOURS[step.state]"
                  :aria-checked="step.state === 'done'"
                  :aria-label="`${step.title}: ${WORDS[step.state]}`"
                  @click="emit('tick', step)"
                >
                  <component :is="ICONS[step.state]" class="size-4" aria-hidden="true" />
                </button>
                <button
                  type="button"
                  class="grow py-0.5 text-left hover:text-change"
                  @click="soundcheck.choose(step.id)"
                >
                  <span class="figure text-muted">{{ numbers.get(step.id) }}</span> {{ step.title }}
                </button>
              </p>
            </li>
          </ol>
        </li>
      </ol>
    </OwnTask>
  </section>
</template>
