<script setup lang="ts">
import { computed } from 'vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { procedures } from '#core/bench/procedures'
import { useBenchStore } from '~/stores/bench'
import { useMeasuredSheets } from '~/stores/measured-sheets'

/** The bench’s work in order: what is played, what is measured, what is made of it. */
const store = useBenchStore()
const measured = useMeasuredSheets()
const groups = computed(() => [
  {
    title: 'Begin',
    pages: [
      { id: 'start', title: 'What to measure' },
      { id: 'cable', title: 'Measure this interface' },
    ],
  },
  { title: 'Prepare', pages: [{ id: 'signals', title: 'Test signals' }] },
  { title: 'The unit', pages: procedures.slice(0, -1).map(({ id, title }) => ({ id, title })) },
  {
    title: 'The source',
    pages: [
      ...procedures.slice(-1).map(({ id, title }) => ({ id, title })),
      { id: 'recording', title: 'Recording and take check' },
    ],
  },
  { title: 'Choose', pages: [{ id: 'compare', title: 'Compare units' }] },
])
const number = (id: string) => {
  const i = procedures.findIndex((each) => each.id === id)
  return i >= 0 ? `${i + 1}` : id === 'recording' ? `${procedures.length + 1}` : ''
}
/** Open work, or what the session holds of it from before. */
const state = (id: string) => {
  if (id === 'cable') return measured.open ? { mark: '✓', words: `measured ${measured.open.sheet.on}` } : null
  if ((store.workOn(id)?.rows.length ?? 0) > 0) return { mark: '●', words: 'begun' }
  const known = store.bench && procedures.find((each) => each.id === id)?.known(store.bench)
  return known ? { mark: '✓', words: `measured${known.on ? ` ${known.on}` : ''}: ${known.words}` } : null
}
/** The same list where there is no room for it. */
const options = computed(() =>
  groups.value.flatMap(({ pages }) =>
    pages.map(({ id, title }) => ({ value: id, text: [number(id), title, state(id)?.mark].filter(Boolean).join(' ') })),
  ),
)
function turn(id: string) {
  store.page = id
  return null
}
</script>

<template>
  <nav class="border-line px-3 py-1 max-rail:border-b rail:hidden" aria-label="Bench pages">
    <SelectInput class="w-full font-semibold" :value="store.page" label="Page" :options="options" :commit="turn" />
  </nav>
  <nav class="w-50 shrink-0 overflow-y-auto border-r border-line pt-2 pb-4 max-rail:hidden" aria-label="Bench pages">
    <template v-for="group in groups" :key="group.title">
      <h2 class="px-4 pt-1.5 text-xs text-muted">{{ group.title }}</h2>
      <ul>
        <li v-for="page in group.pages" :key="page.id">
          <button
            type="button"
            class="flex w-full gap-2 border-l-3 py-1 pr-3 pl-3 text-left hover:bg-sheet"
            :class="store.page === page.id ? 'border-change bg-sheet font-semibold' : 'border-transparent'"
            :aria-current="store.page === page.id ? 'page' : undefined"
            :data-page="page.id"
            @click="store.page = page.id"
          >
            <span class="figure w-4 shrink-0 text-right text-muted" aria-hidden="true">{{ number(page.id) }}</span><span
              class="grow"
              >{{ page.title }}</span
            ><span v-if="state(page.id)" class="text-change" :title="state(page.id)?.words"
              ><span aria-hidden="true">{{ state(page.id)?.mark }}</span
              ><span class="sr-only"> {{ state(page.id)?.words }}</span></span
            >
          </button>
        </li>
      </ul>
    </template>
  </nav>
</template>
