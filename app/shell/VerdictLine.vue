<script setup lang="ts">
import { ChevronDown } from '@lucide/vue'
import { computed, nextTick, ref } from 'vue'
import { isBus } from '#core/model'
import { capital } from '#core/units'
import { useRouter } from '#imports'
import { useExplaining } from '~/composables/use-explaining'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The three answers, on every screen; each leads to where it can be changed. */
const view = useViewStore()
const store = useSessionStore()
const router = useRouter()
const { explain } = useExplaining()

const at = (figure: string, stage: string | undefined) => (stage === undefined ? null : { figure, stage })
const tightest = computed(() => at('headroom', view.evaluated?.tightest?.stage))
const ends = computed(() => at('noise', view.evaluated?.points.at(-1)?.stage))
const brought = computed(() => at('average', view.evaluated?.points.at(-1)?.stage))
const heard = computed(() => {
  const route = view.strip?.monitor.route
  return view.evaluated?.latency.some((each) => each.route === route) && route ? at(route, '') : null
})
const cells = computed(
  () =>
    view.statements && [
      { key: 'headroom', ...view.statements.headroom, place: 'path', to: '[data-gain]', why: tightest.value },
      { key: 'floor', ...view.statements.floor, place: 'path', to: '#floor-panel', why: ends.value },
      view.strip && isBus(view.strip)
        ? { key: 'bus', ...view.statements.latency, place: 'path', to: '#brought-title', why: brought.value }
        : { key: 'latency', ...view.statements.latency, place: 'timing', to: '#timing-place', why: heard.value },
    ],
)

/** On a phone the answers share a line, which opens. */
const isOpen = ref(false)
const inOneLine = computed(() => capital((cells.value ?? []).map(({ short }) => short).join(' · ')))

async function lead(place: string, selector: string) {
  const address = `/${place}/${store.key}`
  if (!router.currentRoute.value.path.startsWith(`/${place}`)) await router.push(address)
  await nextTick()
  const found = document.querySelector<HTMLElement>(selector)
  found?.scrollIntoView({ block: 'nearest' })
  found?.focus()
}
</script>

<template>
  <button
    v-if="cells"
    type="button"
    class="plate flex min-h-9 items-center justify-between gap-2 border-x-0 border-t-0 px-3 py-1 text-left font-semibold card:hidden pointer-coarse:min-h-11"
    :aria-expanded="isOpen"
    data-verdict-line
    @click="isOpen = !isOpen"
  >
    <span class="min-w-0">{{ inOneLine }}</span>
    <ChevronDown class="size-4 shrink-0" :class="{ 'rotate-180': isOpen }" aria-hidden="true" />
  </button>
  <div
    v-if="cells"
    class="plate grid border-x-0 border-t-0 card:grid-cols-3"
    :class="{ 'max-card:hidden': !isOpen }"
    role="status"
    aria-label="Verdict"
    aria-live="off"
  >
    <div
      v-for="cell in cells"
      :key="cell.key"
      class="flex min-w-0 border-line last:border-0 max-card:border-b card:border-r"
    >
      <button
        type="button"
        class="min-w-0 grow px-3 py-1 text-left hover:bg-paper card:px-5 card:py-1.5"
        :data-verdict="cell.key"
        @click="lead(cell.place, cell.to)"
      >
        <strong class="block text-[15px] font-semibold">{{ cell.headline }}</strong>
        <span class="block text-muted">{{ cell.detail }}</span>
      </button>
      <button
        v-if="cell.why"
        type="button"
        class="min-w-6 shrink-0 px-2 text-change underline decoration-dotted underline-offset-3 hover:bg-paper"
        :aria-label="`${cell.headline}: what it is made of`"
        :data-why="cell.key"
        @click="explain(cell.why.figure, cell.why.stage)"
      >
        why
      </button>
    </div>
  </div>
</template>
