<script setup lang="ts">
import { useRouter } from '#imports'
import { useExchange } from '~/composables/use-exchange'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'

/** What has to be told about keeping: storage trouble, another tab’s change, a file that was refused. */
const store = useSessionStore()
const library = useLibraryStore()
const router = useRouter()
const exchange = useExchange()

async function keepAsCopy() {
  const mine = store.conflict
  if (!mine) return
  await router.push(`/path/${await library.keepAsCopy(mine)}`)
}
async function bringBack() {
  if (store.key) await library.restore(store.key)
}
</script>

<template>
  <div class="print:hidden">
    <div v-if="store.conflict" role="alert" class="notice" data-notice="conflict">
      <p>
        <strong>Another tab changed this session meanwhile.</strong> Nothing was overwritten: its version is kept, yours
        is on this screen only.
      </p>
      <button type="button" class="push" @click="keepAsCopy">Keep mine as a copy</button>
      <button type="button" class="push" @click="store.takeTheirs">Take the other tab’s</button>
    </div>
    <div v-else-if="store.goneElsewhere" role="alert" class="notice" data-notice="deleted">
      <p><strong>This session was deleted.</strong> What you see is still here; restore it to go on keeping it.</p>
      <button type="button" class="push" @click="bringBack">Restore it</button>
    </div>
    <div v-else-if="store.trouble" role="alert" class="notice" data-notice="storage">
      <p><strong>Not kept.</strong> {{ store.trouble }}</p>
      <button type="button" class="push" @click="exchange.exportOpen">Export now</button>
    </div>
    <div v-if="exchange.refusal.value" role="alert" class="notice" data-notice="refused">
      <div>
        <p>
          <strong>“{{ exchange.refusal.value.name }}” was not opened; nothing was changed.</strong> Mend this and try
          again:
        </p>
        <ul class="mt-1 max-h-40 list-disc overflow-y-auto pl-5">
          <li v-for="(fault, i) in exchange.refusal.value.faults" :key="i">
            <code v-if="fault.path" class="figure">{{ fault.path }}</code> {{ fault.message }}
          </li>
        </ul>
      </div>
      <button type="button" class="push" @click="exchange.refusal.value = null">Close</button>
    </div>
  </div>
</template>

<style scoped>
.notice {
  display: flex;
  align-items: flex-start;
  gap: 0.75rem;
  padding: 0.5rem 1.25rem;
  background: var(--ceiling-soft);
  border-bottom: 1px solid var(--ceiling);
  > :first-child {
    flex: 1;
  }
}
</style>
