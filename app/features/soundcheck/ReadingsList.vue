<script setup lang="ts">
import { computed } from 'vue'
import { formatDecimal, formatSigned } from '#core/units'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'
import { useViewStore } from '~/stores/view'

/** The readings so far: where, what was read, and how far from the plan. */
const store = useSessionStore()
const view = useViewStore()
const soundcheck = useSoundcheckStore()

const BY = { typed: 'typed', live: 'gauge', file: 'file' } as const
const rows = computed(() =>
  [...soundcheck.readings].reverse().map((reading) => {
    const strip = store.session?.strips.find(({ id }) => id === reading.strip)
    const stage = strip?.stages.find(({ id }) => id === reading.stage)
    const box = store.session?.gear.find(({ id }) => id === stage?.gear)
    const said = view.sureness?.readings.find(({ id }) => id === reading.id)
    return {
      reading,
      where: `${strip?.name ?? 'a strip that is gone'}, ${stage?.port ?? box?.name ?? ''}`,
      how: `${reading.at ? `${reading.at.slice(11, 16)}, ` : ''}${BY[reading.by]}${reading.reads === 'peak' ? '' : `, ${reading.reads === 'pfl' || reading.reads === 'vu' || reading.reads === 'spl' ? reading.reads.toUpperCase() : reading.reads}`}${reading.limit ? `, ${reading.limit === 'at-least' ? 'at least' : 'at most'}` : ''}${reading.kept ? ', kept' : ''}`,
      difference: said?.difference ?? null,
      contradicts: said?.contradicts != null,
      fault: said?.fault === true,
    }
  }),
)
</script>

<template>
  <section aria-labelledby="readings-title" data-readings>
    <h2 id="readings-title" class="border-b border-ink pb-0.5">Readings so far</h2>
    <p v-if="rows.length === 0" class="mt-1 text-muted">None yet. The first one narrows most figures.</p>
    <ul>
      <li v-for="each in rows" :key="each.reading.id" class="border-b border-line">
        <button
          type="button"
          class="flex w-full items-baseline gap-2 py-0.5 text-left hover:text-change"
          :aria-pressed="each.reading.id === soundcheck.reading?.id"
          @click="soundcheck.chooseReading(each.reading.id)"
        >
          <span class="min-w-0 grow"
            ><span :class="{ 'font-semibold': each.reading.id === soundcheck.reading?.id }">{{ each.where }}</span
            ><span class="block text-xs text-muted"
              >{{ each.how
              }}<span v-if="each.contradicts" class="text-ceiling"
                >, {{ each.fault ? 'something is wrong' : 'contradicts' }}</span
              ></span
            ></span
          >
          <span class="figure shrink-0">{{ formatDecimal(each.reading.value, 1) }}</span>
          <span
            class="figure w-11 shrink-0 text-right"
            :class="{ 'text-ceiling': Math.abs(each.difference ?? 0) >= 3 }"
            >{{ each.difference === null ? '' : formatSigned(each.difference, 1) }}</span
          >
        </button>
      </li>
    </ul>
  </section>
</template>
