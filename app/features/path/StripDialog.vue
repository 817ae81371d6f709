<script setup lang="ts">
import { nextTick, onMounted, shallowRef } from 'vue'
import type { BusUse } from '#core/edits'
import type { Session } from '#core/session'
import { addBundle, addBus, blankSession, busUses, copyStrip } from '#core/edits'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { latePart } from '~/stores/late-part'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSessionStore } from '~/stores/session'
import type { Template } from '~/stores/templates'
import { loadTemplates } from '~/stores/templates'
import { useViewStore } from '~/stores/view'

/** A further strip: from a template, as a copy, or from scratch. */
const chain = useChainEdit()
const store = useSessionStore()
const view = useViewStore()
const close = () => {
  chain.addingStrip.value = false
}

const ready = shallowRef<Awaited<ReturnType<typeof loadTemplates>> | null>(null)
onMounted(async () => {
  ready.value = await latePart(loadTemplates)
})

async function add(label: string, change: (session: Session) => Session) {
  const before = store.committed?.strips.length ?? 0
  const wrong = store.edit(label, change)
  const added = store.committed?.strips.slice(before) ?? []
  chain.told.value = wrong ?? addedWords(added.map(({ name }) => `“${name}”`))
  close()
  const [first] = added
  if (!first) return
  view.select(first.id)
  // Its name is what one types next; the dialog gives the focus back first.
  await nextTick()
  await nextTick()
  document.querySelector<HTMLElement>('[data-strip-name] input')?.focus()
}
function addedWords(names: readonly string[]): string | null {
  if (names.length === 0) return null
  return names.length === 1
    ? `${names[0]} was added; Undo removes it again.`
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)} were added; Undo removes them again.`
}
function addTemplate(template: Template) {
  const bundle = ready.value?.templateBundle(template)
  if (bundle) add(`Add ${template.title}`, (session) => addBundle(session, bundle))
}
const addBlank = () =>
  add('Add a strip', (session) => {
    const { gear, strips } = blankSession('blank', 'Blank')
    return addBundle(session, { gear, strips })
  })
const addBusFor = (use: BusUse) =>
  add(`Add a bus: ${busUses[use].title.toLowerCase()}`, (session) => addBus(session, use))
const addCopy = () => add('Copy the strip', (session) => copyStrip(session, view.strip?.id ?? ''))
</script>

<template>
  <ModalDialog title="Add a strip" closing="Cancel" @close="close">
    <div class="max-w-full card:w-[40rem] pt-3">
      <p class="flex gap-2">
        <button type="button" class="push" @click="addCopy">Copy “{{ view.strip?.name }}”</button>
        <button type="button" class="push" @click="addBlank">Source, microphone, interface</button>
      </p>
      <h3 class="mt-3 border-b border-line text-muted">A bus: a sum of strips</h3>
      <p class="mt-1.5 flex flex-wrap gap-2">
        <button
          v-for="(bus, use) in busUses"
          :key="use"
          type="button"
          class="push"
          :title="bus.words"
          :data-bus-use="use"
          @click="addBusFor(use)"
        >
          {{ bus.title }}
        </button>
      </p>
      <h3 class="mt-3 border-b border-line text-muted">
        Or from a template, with invented gear to be replaced by yours
      </h3>
      <ul class="max-h-96 overflow-y-auto" tabindex="0" aria-label="Templates">
        <li v-for="template in ready?.templates" :key="template.id">
          <button
            type="button"
            class="block w-full px-1 py-1.5 text-left hover:bg-change-soft focus:bg-change-soft"
            :data-template="template.id"
            @click="addTemplate(template)"
          >
            <span class="font-semibold">{{ template.title }}</span><span
              v-if="template.strips.length > 1"
              class="text-muted"
            >
              · {{ template.strips.length }} strips</span
            >
            <span class="block text-muted">{{ template.words }}</span>
          </button>
        </li>
      </ul>
    </div>
  </ModalDialog>
</template>
