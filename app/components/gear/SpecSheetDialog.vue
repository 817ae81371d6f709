<script setup lang="ts">
import { computed, ref } from 'vue'
import type { FieldTable, Specified } from '#core/session'
import { readSpecSheet, withSpec } from '#core/session'
import { formatShort } from '#core/units'
import ModalDialog from '~/components/shell/ModalDialog.vue'

/** Figures from the pasted lines of a specification sheet: what was understood and what was not, before anything is taken. */
const props = defineProps<{
  name: string
  fields: FieldTable
  gainMin?: number | undefined
  edit: (label: string, change: <T extends Specified>(owner: T) => T) => string | null
}>()
const emit = defineEmits<{ close: [] }>()
const text = ref('')
const refusal = ref<string | null>(null)
const sheet = computed(() => readSpecSheet(text.value, props.fields, props.gainMin))

function take() {
  const { found, weighting } = sheet.value
  refusal.value = props.edit('Figures from a sheet', (owner) => {
    const given = found.reduce((each, { key, value }) => withSpec(each, key, value), owner)
    return weighting && 'einWeighting' in given.specs ? withSpec(given, 'einWeighting', weighting) : given
  })
  if (refusal.value === null) emit('close')
}
</script>

<template>
  <ModalDialog :title="`Specification sheet of ${name}`" closing="Cancel" @close="emit('close')">
    <form class="max-w-full space-y-2 pt-3 card:w-[38rem]" data-spec-sheet @submit.prevent="take">
      <label class="block"
        >Paste its lines, such as “EIN −128 dBu A-weighted, 150 Ω”, “max input +16 dBu @ min gain”, “gain range 56 dB”.
        <textarea
          v-model="text"
          rows="6"
          class="mt-1 w-full border border-rule bg-paper p-2"
          aria-label="Lines of the specification sheet"
          data-autofocus
          @keydown.ctrl.enter="take"
        />
      </label>
      <table v-if="sheet.found.length > 0" class="w-full text-right">
        <caption class="pb-1 text-left font-semibold">
          Understood
        </caption>
        <tbody>
          <tr
            v-for="each in sheet.found"
            :key="each.key"
            class="border-b border-line align-baseline"
            :data-found="each.key"
          >
            <th scope="row" class="py-0.5 text-left font-normal">{{ each.field.label }}</th>
            <td class="pl-3 whitespace-nowrap">
              <span class="figure font-semibold">{{ formatShort(each.value, 4) }}</span> {{ each.field.unit }}
            </td>
            <td class="pl-4 text-left text-muted">{{ each.line }}</td>
          </tr>
          <tr v-if="sheet.weighting" class="border-b border-line" data-found="weighting">
            <th scope="row" class="py-0.5 text-left font-normal">EIN weighting</th>
            <td class="pl-3">{{ sheet.weighting === 'A' ? 'A' : 'none' }}</td>
            <td />
          </tr>
        </tbody>
      </table>
      <div v-if="sheet.left.length > 0" data-left>
        <p class="font-semibold">Not understood, and left out</p>
        <ul class="list-disc pl-5">
          <li v-for="each in sheet.left" :key="each.line">
            {{ each.line }} <span class="text-muted">{{ each.why }}</span>
          </li>
        </ul>
      </div>
      <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
      <button v-if="sheet.found.length > 0" type="submit" class="push-main">
        Take {{ sheet.found.length }} {{ sheet.found.length === 1 ? 'figure' : 'figures' }}
      </button>
    </form>
  </ModalDialog>
</template>
