<script setup lang="ts">
import { computed } from 'vue'
import { feedsWith, pairStrips, removeStrip, unpaired } from '#core/edits'
import { isBus } from '#core/model'
import SelectInput from '~/shared/fields/SelectInput.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strip’s name, its stereo partner, and the way out of it. */
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const chain = useChainEdit()

const pair = computed(
  () => store.session?.pairs?.find((each) => [each.left, each.right].includes(view.strip?.id ?? '')) ?? null,
)
const partner = computed(() =>
  pair.value ? (pair.value.left === view.strip?.id ? pair.value.right : pair.value.left) : '',
)
const others = computed(() => [
  { value: '', text: 'mono' },
  ...(store.session?.strips ?? [])
    .filter((each) => each.id !== view.strip?.id && isBus(each) === (view.strip !== null && isBus(view.strip)))
    .map((each) => ({ value: each.id, text: `stereo with ${each.name}` })),
])
/** A session keeps one strip with a source. */
const canGo = computed(() => (store.session?.strips ?? []).some((each) => each.id !== view.strip?.id && !isBus(each)))
const hearings = [
  { value: 'panned', text: 'heard panned' },
  { value: 'mono', text: 'heard in mono' },
] as const

const setPartner = (id: string) =>
  edit.session('Stereo pair', (session) =>
    id ? pairStrips(session, view.strip?.id ?? '', id) : { ...session, pairs: unpaired(session, view.strip?.id ?? '') },
  )
const setHearing = (monitoring: 'panned' | 'mono') =>
  edit.session('Monitoring of the pair', (session) => ({
    ...session,
    pairs: session.pairs?.map((each) =>
      each === pair.value || each.left === pair.value?.left ? { ...each, monitoring } : each,
    ),
  }))
function remove() {
  const { session } = store
  const id = view.strip?.id ?? ''
  if (!session) return
  const { to, from } = feedsWith(session, id)
  view.step(1)
  edit.session('Delete the strip', (each) => removeStrip(each, id))
  const gone = [
    to.length > 0 ? ` Its ${to.length === 1 ? 'send' : 'sends'} to ${to.join(' and ')} went with it.` : '',
    from.length > 0 ? ` What ${from.join(' and ')} sent to it went with it.` : '',
  ]
  chain.told.value = `The strip was deleted.${gone.join('')} Undo brings it back.`
}
</script>

<template>
  <div class="flex min-w-0 flex-wrap items-baseline gap-2 text-muted">
    <h2 class="min-w-0 font-normal">
      <span class="sr-only">Section of </span
      ><TextInput
        class="w-36 text-ink"
        data-strip-name
        :value="view.strip?.name ?? ''"
        label="Name of the strip"
        :commit="(name) => edit.strip('Rename the strip', (strip) => ({ ...strip, name }))"
      />
    </h2>
    <SelectInput
      v-if="others.length > 1"
      class="max-w-40"
      :value="partner"
      label="Stereo partner"
      :options="others"
      :commit="setPartner"
    />
    <SelectInput
      v-if="pair"
      :value="pair.monitoring"
      label="Monitoring of the pair"
      :options="hearings"
      :commit="setHearing"
    />
    <span v-if="view.strip && isBus(view.strip)">bus</span>
    <button v-if="canGo" type="button" class="action" @click="remove">delete</button>
  </div>
</template>
