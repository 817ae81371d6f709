<script setup lang="ts">
import { computed } from 'vue'
import type { Strip, Together } from '#core/model'
import { editStrip } from '#core/edits'
import { equalise } from '#core/plan/equalise'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSends } from '~/shared/sends/use-sends'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import SendRow from '~/shared/sends/SendRow.vue'

/** Where strips meet: every send into this bus, those that could be begun, and all of them brought to one loudness. */
const props = defineProps<{ bus: Strip; narrow?: boolean }>()
const store = useSessionStore()
const sends = useSends()
const edit = useStageEdit()
const chain = useChainEdit()

const into = computed(() => sends.sendsInto(props.bus))
const candidates = computed(() => {
  const fed = new Set(into.value.map(({ strip }) => strip.id))
  const able = (store.session?.strips ?? []).filter(
    (strip) => !fed.has(strip.id) && sends.open(strip).some(({ id }) => id === props.bus.id),
  )
  return [{ value: '', text: 'add a strip…' }, ...able.map(({ id, name }) => ({ value: id, text: name }))]
})
function begin(id: string) {
  const strip = store.session?.strips.find((each) => each.id === id)
  return strip ? sends.begin(strip, props.bus) : null
}
/** How many of the sources sound at once: a panel talks in turn, a band plays together. */
const togetherOptions = computed(() => {
  const most = Math.max(into.value.length - 1, typeof props.bus.together === 'number' ? props.bus.together : 1)
  const some = Array.from({ length: Math.max(0, most - 1) }, (_, i) => i + 2)
  return [
    { value: 'all', text: 'all at once' },
    { value: 'in-turn', text: 'in turn, as on a panel' },
    ...some.map((count) => ({ value: String(count), text: `${count} at once` })),
  ]
})
function soundTogether(value: string) {
  const together: Together = value === 'all' || value === 'in-turn' ? value : Number(value)
  return store.edit('How many sound at once', (session) =>
    editStrip(session, props.bus.id, (bus) => ({ ...bus, together })),
  )
}
function alike(by: 'fader' | 'gain') {
  if (!store.session) return
  const { changes, left } = equalise(store.session, props.bus.id, by)
  const wrong = changes.length > 0 ? edit.changes('Equalise', changes) : null
  const done = changes.length > 0 ? 'All strips are as loud as the quietest of them.' : 'They are equally loud already.'
  chain.told.value = wrong ?? (left.length > 0 ? `${left.join(' and ')} could not be matched by ${by}.` : done)
}
</script>

<template>
  <section class="plate min-w-0 px-3 py-2" :aria-label="`What flows into ${bus.name}`" data-confluence>
    <p class="flex justify-between text-xs text-muted">
      <span>{{ into.length }} {{ into.length === 1 ? 'strip comes' : 'strips meet' }}</span
      ><span>sends, dB</span>
    </p>
    <div class="divide-y divide-line">
      <SendRow v-for="send in into" :key="send.strip.id" class="pt-0.5" :send="send" shows="strip" :narrow="narrow" />
    </div>
    <p v-if="into.length === 0" class="py-2">Nothing feeds it yet.</p>
    <SelectInput v-if="candidates.length > 1" value="" label="Begin a send" :options="candidates" :commit="begin" />
    <p v-if="into.length > 1" class="mt-1 flex flex-wrap items-baseline gap-x-1.5">
      <span class="text-muted">They sound</span>
      <SelectInput
        :value="String(bus.together ?? 'all')"
        label="How many sound at once"
        :options="togetherOptions"
        :commit="soundTogether"
      />
    </p>
    <p v-if="into.length > 1" class="mt-1 flex flex-wrap gap-x-3">
      <span class="text-muted">Match loudness</span>
      <button type="button" class="action" @click="alike('fader')">by fader</button>
      <button type="button" class="action" @click="alike('gain')">by gain</button>
    </p>
  </section>
</template>
