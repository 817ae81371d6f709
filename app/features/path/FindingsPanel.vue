<script setup lang="ts">
import { useViewStore } from '~/stores/view'
import FindingLine from './FindingLine.vue'

/** What is to be seen to on this strip, the gravest first, each in one line with what can be done. */
const view = useViewStore()
</script>

<template>
  <section aria-labelledby="findings-title">
    <h2 id="findings-title" class="border-b border-ink pb-0.5">Needs attention</h2>
    <p v-if="view.evaluated?.findings.length === 0" class="mt-1 text-muted">
      Nothing. Play the loudest passage again and start.
    </p>
    <ul v-else class="mt-1.5 space-y-1">
      <FindingLine
        v-for="finding in view.evaluated?.findings"
        :key="finding.code + finding.stage + finding.message"
        :finding="finding"
      />
    </ul>
  </section>
</template>
