<script setup lang="ts">
import { Copy, Trash2 } from '@lucide/vue'
import { format } from 'date-fns'
import { computed } from 'vue'
import { NuxtLink } from '#components'
import TextInput from '~/shared/fields/TextInput.vue'
import type { SessionAbout, SessionSummary } from '~/stores/library'

/** A session on the list: its name, what it holds, how far its soundcheck is, and where else it is kept. */
const props = defineProps<{
  row: SessionSummary
  about: SessionAbout | null
  /** Written by a newer version, which is left alone. */
  newer: boolean
  open: boolean
  /** Where there are several. */
  choosable: boolean
  chosen: boolean
}>()
const emit = defineEmits<{ rename: [name: string]; duplicate: []; remove: []; choose: [on: boolean] }>()

const MOST_NAMES = 6
const strips = computed(() => {
  const { strips: names = [], busses = 0 } = props.about ?? {}
  const more = names.length > MOST_NAMES ? [`${names.length - MOST_NAMES} more`] : []
  const flow = busses > 0 ? [`${busses} ${busses === 1 ? 'bus' : 'busses'}`] : []
  return [...names.slice(0, MOST_NAMES), ...more, ...flow].join(', ')
})
const soundcheck = computed(() => {
  const { open = 0, all = 0 } = props.about?.steps ?? {}
  if (open === 0) return 'Soundcheck done'
  return open === all ? `Soundcheck: ${all} steps, none done` : `Soundcheck: ${open} of ${all} steps open`
})
const logged = computed(() => {
  const { lastMark, takes = 0 } = props.about ?? {}
  const mark = lastMark
    ? `Last mark “${lastMark.name}”, ${format(new Date(lastMark.at), 'yyyy-MM-dd HH:mm')}`
    : 'No mark yet'
  return takes > 0 ? `${mark}; ${takes} ${takes === 1 ? 'take' : 'takes'}` : mark
})
const kept = computed(() => {
  const { hasSecondCopy, file } = props.about ?? {}
  if (file) return `Also in the file “${file}”`
  return hasSecondCopy ? 'With a second copy in this browser' : 'No second copy: export it'
})
</script>

<template>
  <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line py-2" :data-session="row.name">
    <label v-if="choosable" class="icon-button"
      ><input type="checkbox" :checked="chosen" :aria-label="`Choose ${row.name}`" @change="emit('choose', !chosen)"
    /></label>
    <span v-if="newer" class="min-w-0 grow text-[15px] font-semibold">
      {{ row.name }}
      <span class="block text-xs font-normal text-muted">Written by a newer version of Remetra, left unchanged</span>
    </span>
    <TextInput
      v-else
      class="min-w-0 grow text-[15px] font-semibold"
      :value="row.name"
      :label="`Name of ${row.name}`"
      :commit="
        (name) => {
          emit('rename', name)
          return null
        }
      "
    />
    <span v-if="open" class="text-change">open</span>
    <span class="figure text-muted">{{ format(row.updatedAt, 'yyyy-MM-dd HH:mm') }}</span>
    <NuxtLink class="action" :to="`/path/${row.key}`"
      >Open<span class="sr-only"> {{ row.name }}</span></NuxtLink
    >
    <template v-if="!newer">
      <button type="button" class="action" @click="emit('duplicate')">
        <Copy class="inline size-3.5" aria-hidden="true" /> Duplicate<span class="sr-only"> {{ row.name }}</span>
      </button>
      <button type="button" class="action" @click="emit('remove')">
        <Trash2 class="inline size-3.5" aria-hidden="true" /> Delete<span class="sr-only"> {{ row.name }}</span>
      </button>
    </template>
    <p v-if="about" class="w-full pl-7 text-xs text-muted" data-about>
      {{ strips }}<br />{{ soundcheck }} · {{ logged }} · {{ kept }}
    </p>
  </li>
</template>
