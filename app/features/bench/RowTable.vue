<script setup lang="ts">
import { Trash2 } from '@lucide/vue'
import type { Procedure, Row } from '#core/bench/procedure'
import { summaryOf } from '#core/bench/procedure'
import NumberInput from '~/shared/fields/NumberInput.vue'

/** What was recorded or read so far, each with what has to be said about it. */
defineProps<{
  procedure: Procedure
  rows: readonly Row[]
  change: (index: number, key: string, value: number | undefined) => null
  remove: (index: number) => void
}>()
</script>

<template>
  <div class="mt-1 max-h-52 overflow-y-auto" tabindex="0" aria-label="Recordings">
    <table class="w-full">
      <thead>
        <tr class="border-b border-rule text-left text-muted">
          <th scope="col" class="font-normal">{{ procedure.question ? 'Recording' : 'Reading' }}</th>
          <th v-for="(field, key) in procedure.each" :key="key" scope="col" class="px-2 text-right font-normal">
            {{ field.label }}
          </th>
          <th scope="col" class="text-right font-normal">{{ procedure.question ? 'Reads' : 'That is' }}</th>
          <th scope="col"><span class="sr-only">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="i" class="border-b border-line" :data-row="i">
          <th scope="row" class="max-w-44 truncate py-0.5 text-left font-normal" :title="row.name">
            {{ row.name }}
            <span
              v-for="remark in row.remarks"
              :key="remark"
              class="block text-xs whitespace-normal text-ceiling"
              data-remark
              >{{ remark }}</span
            >
          </th>
          <td v-for="(field, key) in procedure.each" :key="key" class="px-2 text-right">
            <NumberInput
              :value="row.typed[key]"
              :field="field"
              :name="`${field.label}, ${i + 1}`"
              :commit="(value) => change(i, String(key), value)"
            />
          </td>
          <td class="figure text-right whitespace-nowrap">{{ summaryOf(procedure, row) }}</td>
          <td class="pl-2 text-right">
            <button type="button" class="icon-button" :aria-label="`Remove ${i + 1}: ${row.name}`" @click="remove(i)">
              <Trash2 class="size-3.5" aria-hidden="true" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
