<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Candidate, SheetFigure, SheetLine } from '#core/files'
import { readDataSheet, sheetTargets } from '#core/files'
import { presentFigure, withSheetFigures } from '#core/edits'
import type { Gear } from '#core/gear'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { chooseFile } from '~/composables/file-access'
import { useSheetFile } from './use-sheet-file'
import SheetFigureRow from './SheetFigureRow.vue'

/** Figures out of a data sheet that is pasted or dropped: what was found, where, and what was not understood, before any is taken. */
const props = defineProps<{
  gear: Gear
  /** The port in hand. */
  port?: string | undefined
  /** What was pasted or dropped before it was open. */
  brought?: string | File | null
  edit: (label: string, change: (gear: Gear) => Gear) => string | null
  /** Whether the place that it is opened from has steps of undo. */
  undone?: boolean
}>()
const emit = defineEmits<{ close: []; read: [lines: readonly SheetLine[]] }>()
const { lines, fileName, busy, trouble, paste, open } = useSheetFile()
const refusal = ref<string | null>(null)
const typed = ref(typeof props.brought === 'string' ? props.brought : '')
if (props.brought instanceof File) void open(props.brought)
watch(typed, paste, { immediate: typed.value !== '' })

const targets = computed(() => sheetTargets(props.gear, props.port))
const sheet = computed(() => readDataSheet(lines.value, targets.value))
const groups = computed(() =>
  targets.value
    .map((target) => ({ target, figures: sheet.value.figures.filter((each) => each.target === target.id) }))
    .filter(({ figures }) => figures.length > 0),
)

/** What a hand chose otherwise than the sheet proposes, by figure. */
const chosen = ref<Readonly<Record<string, number | null>>>({})
// A choice is one of the lines that it was made among, and of one device.
watch([lines, () => props.gear], () => {
  chosen.value = {}
})
watch(lines, (read) => emit('read', read), { immediate: lines.value.length > 0 })
const keyOf = ({ target, key }: SheetFigure) => `${target} ${key}`
const takenOf = (figure: SheetFigure) => {
  const own = chosen.value[keyOf(figure)]
  return own === undefined ? figure.chosen : own
}
const choose = (figure: SheetFigure, index: number | null) => {
  chosen.value = { ...chosen.value, [keyOf(figure)]: index }
}
const taken = computed(() =>
  sheet.value.figures.flatMap((figure): Candidate[] => {
    const index = takenOf(figure)
    const candidate = index === null ? undefined : figure.candidates[index]
    return candidate && candidate.refused === undefined ? [candidate] : []
  }),
)

async function pick() {
  const file = await chooseFile({ extensions: ['.pdf', '.txt', '.csv'], description: 'Data sheet', id: 'data-sheet' })
  if (file) await open(file)
}
/** A file dropped here goes nowhere else. */
const isOver = ref(false)
function drop(event: DragEvent) {
  isOver.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void open(file)
}

function take() {
  if (taken.value.length === 0) return
  const origin = fileName.value?.replace(/\.\w+$/, '')
  refusal.value = props.edit('Figures of a data sheet', (gear) => {
    const given = withSheetFigures(gear, taken.value)
    return origin && gear.origin === undefined ? { ...given, origin: origin.slice(0, 200) } : given
  })
  if (refusal.value === null) emit('close')
}
</script>

<template>
  <ModalDialog :title="`Data sheet of ${gear.name}`" closing="Cancel" @close="emit('close')">
    <form
      class="max-w-full space-y-3 pt-3 card:w-[46rem]"
      data-data-sheet
      @submit.prevent="take"
      @dragover.prevent.stop="isOver = true"
      @dragleave="isOver = false"
      @drop.prevent.stop="drop"
    >
      <slot />
      <div class="flex flex-wrap items-start gap-3">
        <label class="block min-w-0 grow"
          >Paste its lines, or drop the file here: PDF, text or a table.
          <textarea
            v-model="typed"
            rows="5"
            class="mt-1 w-full border bg-paper p-2"
            :class="isOver ? 'border-change' : 'border-rule'"
            placeholder="EIN −128 dBu A-weighted, 150 Ω"
            aria-label="Lines of the data sheet"
            data-autofocus
            @keydown.ctrl.enter="take"
          />
        </label>
        <button type="button" class="push mt-6" @click="pick">Open a file…</button>
      </div>
      <p v-if="busy" role="status">Reading the file…</p>
      <p v-if="fileName" data-file-name>
        From “{{ fileName }}”, {{ lines.length }} {{ lines.length === 1 ? 'line' : 'lines' }}.
      </p>
      <p v-if="trouble" role="alert" class="text-ceiling">{{ trouble }}</p>
      <section
        v-for="{ target, figures } in groups"
        :key="target.id"
        class="overflow-x-auto"
        :data-target="target.context ? target.id : ''"
      >
        <table class="w-full max-card:min-w-[32rem] card:table-fixed">
          <caption class="border-b border-ink pb-0.5 text-left font-semibold">
            {{
              target.context ? `All ${target.name}` : target.name
            }}
          </caption>
          <thead class="text-xs text-muted">
            <tr>
              <th scope="col" class="text-left card:w-40 font-normal">Figure</th>
              <th scope="col" class="text-left card:w-40 font-normal">Take</th>
              <th scope="col" class="pl-3 text-left font-normal">On the sheet</th>
              <th scope="col" class="pl-3 card:w-28 text-right font-normal">Now</th>
            </tr>
          </thead>
          <SheetFigureRow
            v-for="figure in figures"
            :key="figure.key"
            :figure="figure"
            :label="target.fields[figure.key]?.label ?? 'Pattern'"
            :unit="target.fields[figure.key]?.unit ?? ''"
            :present="presentFigure(gear, target.id, figure.key)"
            :taken="takenOf(figure)"
            @take="(index) => choose(figure, index)"
          />
        </table>
      </section>
      <p v-if="lines.length > 0 && groups.length === 0" role="status">
        No figure of {{ gear.name }} was found. A line needs the name of a figure and a number, such as “Maximum input
        level +16 dBu”.
      </p>
      <details v-if="sheet.left.length > 0" :open="sheet.left.length <= 6" data-left>
        <summary class="cursor-pointer">
          {{ sheet.left.length }} {{ sheet.left.length === 1 ? 'line' : 'lines' }} left out
        </summary>
        <ul class="mt-1 max-h-48 overflow-y-auto" tabindex="0" aria-label="Lines left out">
          <li v-for="each in sheet.left" :key="`${each.line.page ?? 0} ${each.line.line}`" class="border-b border-line">
            <q>{{ each.line.cells.join(' ') }}</q> <span class="text-muted">{{ each.why }}</span>
          </li>
        </ul>
      </details>
      <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
      <p v-if="taken.length > 0" class="flex items-center gap-3">
        <button type="submit" class="push-main">
          Take {{ taken.length }} {{ taken.length === 1 ? 'figure' : 'figures' }}
        </button>
        <span class="text-muted"
          >They are no longer “assumed”.<template v-if="undone"> Undo takes them back.</template></span
        >
      </p>
    </form>
  </ModalDialog>
</template>
