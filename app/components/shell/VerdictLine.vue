<script setup lang="ts">
import { computed, nextTick } from 'vue'
import { isBus } from '#core/session'
import { useRouter } from '#imports'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The three answers, on every screen; each leads to where it can be changed. */
const view = useViewStore()
const store = useSessionStore()
const router = useRouter()

const cells = computed(
  () =>
    view.statements && [
      { key: 'headroom', ...view.statements.headroom, place: 'path', to: '[data-gain]' },
      { key: 'floor', ...view.statements.floor, place: 'path', to: '#floor-panel' },
      view.strip && isBus(view.strip)
        ? { key: 'bus', ...view.statements.latency, place: 'path', to: '#brought-title' }
        : { key: 'latency', ...view.statements.latency, place: 'timing', to: '#timing-place' },
    ],
)

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
  <div
    v-if="cells"
    class="plate grid border-x-0 border-t-0 card:grid-cols-3"
    role="status"
    aria-label="Verdict"
    aria-live="off"
  >
    <button
      v-for="cell in cells"
      :key="cell.key"
      type="button"
      class="min-w-0 border-line px-3 py-1 text-left last:border-0 hover:bg-paper max-card:border-b card:border-r card:px-5 card:py-1.5"
      :data-verdict="cell.key"
      @click="lead(cell.place, cell.to)"
    >
      <strong class="block text-[15px] font-semibold">{{ cell.headline }}</strong>
      <span class="block text-muted">{{ cell.detail }}</span>
    </button>
  </div>
</template>
