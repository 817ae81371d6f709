<script setup lang="ts">
import { useRoute, useRouter } from '#imports'
import { latePart, lateTrouble } from '~/stores/late-part'
import { lateComponent } from '~/shared/ui/late-component'
import { useExchange } from './use-exchange'
import type { useNewVersion } from './use-new-version'
import { secondScreen } from '~/stores/second-screen'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import { logTrouble, unlogged } from '~/stores/unlogged'

const SharedNotices = lateComponent(() => import('~/features/second-screen/SharedNotices.vue'))

/** What has to be told about keeping: storage trouble, another tab’s change, a file that was refused. */
const { version } = defineProps<{ version: ReturnType<typeof useNewVersion> }>()
const store = useSessionStore()
const library = useLibraryStore()
const router = useRouter()
const route = useRoute()
const exchange = useExchange()

async function reload() {
  await store.keepNow()
  store.leaveNote()
  window.location.reload()
}
const place = () =>
  ['path', 'mix', 'timing', 'monitoring', 'bench'].find((each) => route.path.startsWith(`/${each}`)) ?? 'path'

/** Goes to the other tab's version; one's own stays in the list of sessions. */
async function openTheirs() {
  const parted = store.parted
  store.parted = null
  if (parted) await router.push(`/${place()}/${parted.from}`)
}
async function dropMine() {
  const mine = store.key
  await openTheirs()
  if (mine) await library.remove(mine)
}
async function retryLog() {
  const part = await latePart(() => import('~/stores/log'))
  await part?.useLogStore().retry()
}
async function restore() {
  if (store.key && (await library.restore(store.key))) await store.restored()
}
</script>

<template>
  <div class="print:hidden">
    <SharedNotices v-if="secondScreen" />
    <div v-if="store.parted" role="alert" class="notice" data-notice="conflict">
      <p v-if="store.parted.why === 'changed'">
        <strong>Another tab changed “{{ store.parted.name }}” meanwhile.</strong> Nothing was overwritten: its version
        is kept there, yours is kept here as “{{ store.session?.name }}”.
      </p>
      <p v-else>
        <strong>Another tab deleted “{{ store.parted.name }}” meanwhile.</strong> What you changed is kept here as “{{
          store.session?.name
        }}”.
      </p>
      <button type="button" class="push" @click="store.parted = null">Go on with mine</button>
      <template v-if="store.parted.why === 'changed'">
        <button type="button" class="push" @click="openTheirs">Open the other tab’s</button>
        <button type="button" class="push" @click="dropMine">Open it and delete mine</button>
      </template>
    </div>
    <div v-else-if="store.gone === 'deleted'" role="alert" class="notice" data-notice="deleted">
      <p>
        <strong>This session was deleted in another tab.</strong> What you see is still here. Restore it to keep it.
      </p>
      <button type="button" class="push" @click="restore">Restore it</button>
    </div>
    <div v-else-if="store.gone === 'absent'" role="alert" class="notice" data-notice="cleared">
      <p>
        <strong>The browser’s storage for this site was cleared.</strong> What you see is on this screen only: export
        it, or keep it again.
      </p>
      <button type="button" class="push" @click="exchange.exportOpen">Export now</button>
      <button type="button" class="push" @click="store.keepAgain">Keep it again</button>
    </div>
    <div v-else-if="store.trouble" role="alert" class="notice" data-notice="storage">
      <p><strong>Not kept.</strong> {{ store.trouble }}</p>
      <button type="button" class="push" @click="exchange.exportOpen">Export now</button>
      <button type="button" class="push" @click="store.retry">Try again</button>
    </div>
    <div v-if="unlogged > 0 && logTrouble" role="alert" class="notice" data-notice="log">
      <p>
        <strong>{{ unlogged }} {{ unlogged === 1 ? 'log entry is' : 'log entries are' }} not stored.</strong>
        {{ logTrouble }}
      </p>
      <button type="button" class="push" @click="exchange.exportOpen">Export now</button>
      <button type="button" class="push" @click="retryLog">Try again</button>
    </div>
    <div v-for="left in store.unkept" :key="left.key" role="alert" class="notice" data-notice="left">
      <p>
        <strong>“{{ left.committed.value.name }}” has changes that are not kept.</strong> They are in this tab only.
      </p>
      <button type="button" class="push" @click="router.push(`/path/${left.key}`)">Go back to it</button>
    </div>
    <div v-if="store.damage" role="alert" class="notice" data-notice="damage">
      <p>{{ store.damage }}</p>
      <button type="button" class="push" @click="exchange.exportOpen">Export now</button>
      <button type="button" class="push" @click="store.setDamage(null)">Close</button>
    </div>
    <div v-if="version.waiting.value" role="status" class="notice calm" data-notice="version">
      <p>A newer version of Remetra is ready. This tab keeps the current version until you switch.</p>
      <button type="button" class="push" @click="version.use(store.settled)">Use it now</button>
      <button type="button" class="push" @click="version.later">Later</button>
    </div>
    <div v-if="version.taken.value" role="status" class="notice calm" data-notice="version-taken">
      <p>
        A newer version of Remetra is in use in another tab. Reload this tab to use it here too. Everything is stored.
      </p>
      <button type="button" class="push" @click="version.use(store.settled)">Reload</button>
      <button type="button" class="push" @click="version.later">Later</button>
    </div>
    <div v-if="lateTrouble" role="alert" class="notice" data-notice="late">
      <p>{{ lateTrouble }}</p>
      <button type="button" class="push" @click="reload">Reload the page</button>
      <button type="button" class="push" @click="lateTrouble = null">Close</button>
    </div>
    <div v-if="exchange.refusal.value" role="alert" class="notice" data-notice="refused">
      <div>
        <p>
          <strong>“{{ exchange.refusal.value.name }}” was not opened; nothing was changed.</strong> Correct this and try
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
