<script setup lang="ts">
import { Trash2 } from '@lucide/vue'
import { computed, ref } from 'vue'
import { pieceOf } from '#core/bench/piece'
import type { NumberField } from '#core/model'
import type { Piece, Playback } from '#core/gear'
import { PIECE_CEILING, PIECE_MARK, cueList, pieceFields, piecePeak, trimPieces } from '#core/gear'
import { formatDecimal } from '#core/units'
import FilePick from '~/shared/recordings/FilePick.vue'
import MeasuringLine from '~/shared/recordings/MeasuringLine.vue'
import NumberInput from '~/shared/fields/NumberInput.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { saveFile } from '~/composables/file-access'
import { latePart } from '~/stores/late-part'
import { useMeasuring } from '~/composables/use-measuring'
import { useStageEdit } from '~/composables/use-stage-edit'

/** What is played, each piece with its level and its trim: measured from files, trimmed to one mark, and listed for the show. */
const props = defineProps<{ playback: Playback; stage: string }>()
const edit = useStageEdit()
const measuring = useMeasuring()
const told = ref<string | null>(null)

const pieces = computed(() => props.playback.pieces ?? [])
const set = (label: string, change: (pieces: Piece[]) => Piece[]) =>
  edit.gear(props.playback.id, 'playback')(label, ({ pieces: before = [], ...rest }) => {
    const after = change(before)
    return after.length > 0 ? { ...rest, pieces: after } : rest
  })
const setPiece = (id: string, label: string, part: Partial<Piece>) =>
  set(label, (all) => all.map((each) => (each.id === id ? { ...each, ...part } : each)))
const setNumber = (id: string, key: 'level' | 'crest' | 'trim') => (value: number | undefined) =>
  value === undefined ? `${pieceFields[key].label} is needed.` : setPiece(id, pieceFields[key].label, { [key]: value })

/** Files are measured one after the other; what could not be is told, and the others stay. */
async function take(files: File[]) {
  const found: Piece[] = []
  const failed: string[] = []
  for (const file of files) {
    const answer = await measuring.measure(file.name, { recording: file, question: { kind: 'levels' } })
    const piece = answer && pieceOf(answer.report, file.name, [...pieces.value, ...found])
    if (piece) found.push(piece)
    else failed.push(`${file.name}: ${measuring.trouble.value ?? (answer ? 'it is silent' : 'not measured')}`)
  }
  if (found.length > 0) {
    const wrong = set(
      found.length === 1 ? 'Add a piece' : 'Add pieces',
      (all) => trimPieces([...all, ...found], mark.value).pieces,
    )
    if (wrong) failed.push(wrong)
  }
  told.value = [found.length > 0 ? `${found.length} measured; all are trimmed to one mark.` : '', ...failed]
    .filter(Boolean)
    .join(' ')
}

const MARK = {
  label: 'Mark of the loudest passages',
  unit: 'dBFS',
  min: -60,
  max: -1,
  help: 'Average that every loudest passage is brought to.',
} as const satisfies NumberField
const mark = ref(PIECE_MARK)
function trim() {
  const { mark: reached, heldBy } = trimPieces(pieces.value, mark.value)
  const wrong = set('Trim the pieces', (all) => trimPieces(all, mark.value).pieces)
  told.value =
    wrong ??
    (heldBy === null
      ? `Every loudest passage is at ${formatDecimal(reached, 1)} dBFS.`
      : `Every loudest passage is at ${formatDecimal(reached, 1)} dBFS: higher, the peaks of “${heldBy}” would pass ${PIECE_CEILING} dBFS.`)
}
async function saveCues() {
  const part = await latePart(() => import('~/composables/csv'))
  if (!part) return
  await saveFile(part.writeCsv(cueList(props.playback)), 'text/csv', 'cue-list.csv', 'remetra-cues')
}
</script>

<template>
  <section class="break-inside-auto!" aria-label="Pieces" data-pieces>
    <table v-if="pieces.length > 0" class="w-full text-[12.5px]">
      <thead class="text-xs text-muted">
        <tr>
          <th scope="col" class="text-left font-normal">Piece</th>
          <th scope="col" class="text-right font-normal">Average</th>
          <th scope="col" class="text-right font-normal">Trim</th>
          <th scope="col" class="text-right font-normal">Peak</th>
          <th><span class="sr-only">Take out</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="piece in pieces" :key="piece.id" class="border-t border-line" :data-piece="piece.id">
          <th scope="row" class="text-left font-normal">
            <TextInput
              class="w-full"
              :value="piece.name"
              label="Name of the piece"
              :commit="(name) => setPiece(piece.id, 'Name of the piece', { name })"
            />
            <span v-if="piece.loudestAt !== undefined" class="block text-xs text-muted"
              >loudest at {{ formatDecimal(piece.loudestAt, 0) }} s</span
            >
          </th>
          <td class="text-right">
            <NumberInput
              :value="piece.level"
              :field="pieceFields.level"
              :name="`Average of ${piece.name}`"
              :commit="setNumber(piece.id, 'level')"
            />
          </td>
          <td class="text-right">
            <NumberInput
              :value="piece.trim"
              :field="pieceFields.trim"
              :name="`Trim of ${piece.name}`"
              :commit="setNumber(piece.id, 'trim')"
            />
          </td>
          <td class="figure text-right" :class="{ 'font-semibold text-ceiling': piecePeak(piece) > 0 }">
            {{ formatDecimal(piecePeak(piece), 1) }}
          </td>
          <td>
            <button
              type="button"
              class="icon-button text-muted"
              :aria-label="`Take out ${piece.name}`"
              @click="set('Take a piece out', (all) => all.filter(({ id }) => id !== piece.id))"
            >
              <Trash2 class="size-3.5" aria-hidden="true" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="pieces.length > 0" class="mt-1 flex flex-wrap items-baseline gap-x-2">
      <span class="text-muted">Mark</span
      ><NumberInput :value="mark" :field="MARK" :commit="(value) => ((mark = value ?? mark), null)" />
      <button type="button" class="action" @click="trim">trim all to it</button>
      <button type="button" class="action" @click="saveCues">cue list as CSV</button>
    </p>
    <FilePick class="mt-1.5" label="Choose recordings" several @files="take" />
    <MeasuringLine
      :name="measuring.name.value"
      :progress="measuring.progress.value"
      :trouble="null"
      @cancel="measuring.cancel"
    />
    <p v-if="told" role="status" class="mt-1" data-pieces-told>{{ told }}</p>
  </section>
</template>
