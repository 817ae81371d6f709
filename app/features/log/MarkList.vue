<script setup lang="ts">
import { format, parseISO } from 'date-fns'
import { ref } from 'vue'
import type { MarkHead } from '#core/session'
import { chooseFile } from '~/composables/file-access'
import { useLog } from '~/composables/use-log'
import { readSessionFile } from '~/composables/file-reader'
import { useVirtualList } from '~/composables/use-virtual-list'
import { useLibraryStore } from '~/stores/library'
import { useLogStore } from '~/stores/log'
import { useLogViewStore } from './log-view'
import { useSessionStore } from '~/stores/session'

/** The marks, the newest first, and what can be done with each. */
const emit = defineEmits<{ make: [] }>()
const store = useSessionStore()
const logStore = useLogStore()
const view = useLogViewStore()
const log = useLog()
const library = useLibraryStore()
const told = ref<string | null>(null)
const showsStruck = ref(false)

const when = ({ at }: MarkHead) => format(parseISO(at), 'd MMM yyyy, HH:mm')
const stands = ({ id }: MarkHead) => store.committed !== null && logStore.standsAsIn(store.committed, id)
const struck = () => logStore.log.marks.filter((mark) => mark.struck)

/** A mark that was not measured yet, px. */
const USUAL = 72
const { scroller, shown, above, below, measure } = useVirtualList(() => view.marks, USUAL)

/** The log of another copy of the session, without doubling what is here. */
async function merge() {
  const file = await chooseFile({ extensions: ['.json'], description: 'Session file', id: 'remetra' })
  if (!file) return
  const reading = await readSessionFile(file)
  if (!reading) return
  if (!reading.ok) {
    const [first] = reading.faults
    told.value = `“${file.name}” was not read; nothing was changed. ${first?.path ?? ''} ${first?.message ?? ''}`
    return
  }
  if (!reading.log || store.key === null) {
    told.value = 'This file has no log.'
    return
  }
  const added = await library.addToLog(store.key, reading.log)
  if (added === null) told.value = library.trouble
  else if (added === 0) told.value = 'This log already has every entry of that file.'
  else told.value = `${added} ${added === 1 ? 'entry was' : 'entries were'} added.`
}
</script>

<template>
  <section aria-labelledby="marks-title" data-marks>
    <h2 id="marks-title" class="border-b border-ink pb-0.5">Marks</h2>
    <p class="mt-2 flex flex-wrap items-center gap-2">
      <button type="button" class="push-main" data-make-mark @click="emit('make')">Add a mark</button>
      <span class="text-xs text-muted">B</span>
    </p>
    <p v-if="view.marks.length === 0" class="mt-2 text-muted">
      None yet. A mark keeps everything as it is set, so that you can restore the session in minutes.
    </p>
    <div
      ref="scroller"
      class="max-h-[60vh] overflow-y-auto"
      :tabindex="view.marks.length > 0 ? 0 : undefined"
      role="group"
      aria-label="All marks"
    >
      <ul :style="{ paddingTop: `${above}px`, paddingBottom: `${below}px` }">
        <li
          v-for="{ index, item: mark } in shown"
          :key="mark.id"
          :ref="measure"
          class="border-b border-line py-1.5"
          :data-index="index"
          :data-mark="mark.name"
        >
          <p class="font-semibold">{{ mark.name }}</p>
          <p class="text-xs text-muted">
            {{ when(mark) }}{{ mark.by ? `, ${mark.by}` : '' }}{{ mark.firmware ? `, ${mark.firmware}` : ''
            }}{{ stands(mark) ? ', current settings' : '' }}
          </p>
          <p v-if="mark.note" class="text-xs">{{ mark.note }}</p>
          <p class="mt-0.5 flex flex-wrap gap-x-3">
            <button type="button" class="action" @click="view.show('recall', mark.id)">Recall</button>
            <button type="button" class="action" @click="view.show('compare', mark.id)">Compare</button>
            <button type="button" class="action" @click="log.changeMark(mark, { struck: true })">Delete</button>
          </p>
        </li>
      </ul>
    </div>
    <p v-if="struck().length > 0" class="mt-2">
      <button type="button" class="action" :aria-expanded="showsStruck" @click="showsStruck = !showsStruck">
        {{ struck().length }} deleted
      </button>
    </p>
    <ul v-if="showsStruck">
      <li v-for="mark in struck()" :key="mark.id" class="flex justify-between gap-2 py-0.5">
        <s class="text-muted">{{ mark.name }}</s>
        <button type="button" class="action" @click="log.changeMark(mark, { struck: undefined })">Restore</button>
      </li>
    </ul>
    <p class="mt-3">
      <button type="button" class="action" @click="merge">Add the log of another copy</button>
    </p>
    <p v-if="told || log.told.value" role="status" class="mt-1">{{ told ?? log.told.value }}</p>
  </section>
</template>
