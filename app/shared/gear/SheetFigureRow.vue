<script setup lang="ts">
import { useId } from 'vue'
import type { Candidate, SheetFigure, SheetLine } from '#core/files'
import { formatShort } from '#core/units'

/** A figure of a data sheet: what it may be read as, where it stands, and which of it is taken. */
defineProps<{ figure: SheetFigure; label: string; unit: string; present: string; taken: number | null }>()
const emit = defineEmits<{ take: [index: number | null] }>()
const group = useId()
const shown = ({ value, refused, printed }: Candidate) =>
  typeof value === 'number' && refused === undefined
    ? formatShort(value, 4)
    : typeof value === 'number'
      ? printed
      : value
const place = ({ line, page }: SheetLine) => (page === undefined ? `line ${line}` : `page ${page}, line ${line}`)
const where = ({ line, also = [] }: Candidate) => [line, ...also].map(place).join('; ')
</script>

<template>
  <tbody class="border-b border-line" :data-figure="figure.key">
    <tr v-for="(each, i) in figure.candidates" :key="i" class="align-baseline" :data-candidate="i">
      <th v-if="i === 0" scope="rowgroup" class="py-0.5 pr-3 text-left font-normal" :rowspan="figure.candidates.length">
        {{ label }}
        <strong v-if="figure.isOpen" class="block text-xs text-ceiling">The sheet says it differently: choose.</strong>
      </th>
      <td class="py-0.5 whitespace-nowrap">
        <label class="flex min-h-6 items-center gap-2" :class="{ 'text-muted': each.refused }">
          <input
            v-if="each.refused === undefined"
            type="checkbox"
            :aria-label="`${label}: take ${shown(each)} ${unit}`"
            :aria-describedby="`${group}-${i}`"
            :checked="taken === i"
            @change="emit('take', taken === i ? null : i)"
          />
          <span v-else class="w-4 text-center text-ceiling" aria-hidden="true">×</span>
          <span class="figure grow text-right" :class="{ 'font-semibold': taken === i }">{{ shown(each) }}</span>
          <span class="w-14">{{ each.refused === undefined && each.key !== 'pattern' ? unit : '' }}</span>
        </label>
      </td>
      <td :id="`${group}-${i}`" class="py-0.5 pl-3 text-left">
        <q class="text-muted">{{ each.line.cells.filter((cell) => cell !== '').join(' ') }}</q>
        <span class="text-xs text-muted"> {{ where(each) }}</span>
        <span v-if="each.notes.length > 0" class="block text-xs">{{ each.notes.join(' ') }}</span>
        <strong v-if="each.refused" class="block text-xs text-ceiling">Not taken: {{ each.refused }}</strong>
      </td>
      <td
        v-if="i === 0"
        class="py-0.5 pl-3 text-right whitespace-nowrap text-muted"
        :rowspan="figure.candidates.length"
      >
        {{ present }}
      </td>
    </tr>
  </tbody>
</template>
