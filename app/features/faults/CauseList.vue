<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from '#imports'
import { causeOfFinding } from '#core/diagnosis/finding-cause'
import { formatDecimal, lowerCase } from '#core/units'
import { useFaultsStore } from './faults-store'
import CauseRow from './CauseRow.vue'
import ProneList from './ProneList.vue'

/** The causes, the likeliest first; what is ruled out stays, with the reason. */
const faults = useFaultsStore()
const route = useRoute()
/** The finding on Path that led here, and the cause that it is. */
const { finding } = route.query
const meant = typeof finding === 'string' ? causeOfFinding(finding) : null
if (meant) faults.suspect(meant.symptom)
const possible = computed(() => faults.diagnosis?.causes.filter(({ ruledOut }) => ruledOut === null) ?? [])
const out = computed(() => faults.diagnosis?.causes.filter(({ ruledOut }) => ruledOut !== null) ?? [])
const first = computed(() => possible.value[0] ?? null)
const verdict = computed(() => {
  const own = first.value
  if (!own) return ''
  const part = `${formatDecimal(100 * own.probability, 0)} %`
  if (own.id === 'something-else') return `Most likely something not in this list (${part}).`
  return faults.diagnosis?.sure
    ? `Most likely: ${lowerCase(own.title)} (${part}).`
    : `Not conclusive yet. Most likely: ${lowerCase(own.title)} (${part}).`
})
</script>

<template>
  <section aria-labelledby="causes-title" data-causes>
    <h2 id="causes-title" class="flex items-baseline justify-between border-b border-ink pb-0.5">
      Causes <span v-if="faults.working" class="text-xs font-normal text-muted" role="status">Working it out…</span>
    </h2>
    <p v-if="faults.trouble" role="alert" class="mt-1 border-l-3 border-ceiling pl-2">{{ faults.trouble }}</p>
    <div v-if="faults.search.fixed" class="mt-2 border-l-3 border-change pl-2" role="status" data-fixed>
      <strong>{{ faults.search.fixed.title }}</strong>
      <span> Check again: {{ faults.search.fixed.after }}</span>
    </div>
    <p v-if="meant" class="mt-2 border-l-3 border-change pl-2" data-meant>
      What “Needs attention” shows on Path belongs to: <strong>{{ lowerCase(meant.title) }}</strong>. Here is how to
      make sure.
    </p>
    <ProneList v-if="faults.search.symptoms.length === 0" />
    <template v-else-if="faults.diagnosis">
      <p class="mt-2 font-semibold" role="status" data-verdict-cause>{{ verdict }}</p>
      <ol class="mt-2 space-y-2">
        <CauseRow v-for="(cause, i) in possible" :key="cause.id" :cause="cause" :foremost="i === 0" />
      </ol>
      <details v-if="out.length > 0" class="mt-4" data-ruled-out>
        <summary class="cursor-pointer text-muted">Ruled out: {{ out.length }}</summary>
        <ul class="mt-1 space-y-1">
          <li v-for="cause in out" :key="cause.id" :data-out="cause.id">
            <span class="line-through decoration-muted">{{ cause.title }}</span>
            <span class="text-muted"> {{ cause.ruledOut }}</span>
          </li>
        </ul>
      </details>
    </template>
  </section>
</template>
