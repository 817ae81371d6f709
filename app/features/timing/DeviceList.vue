<script setup lang="ts">
import { Trash2 } from '@lucide/vue'
import { ref } from 'vue'
import { readTypedNumber, sampleRateField } from '#core/model'
import { formatShort } from '#core/units'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'

/** Other devices and programs with a rate of their own: all have to agree. */
const store = useSessionStore()
const edit = useSystemEdit()
const name = ref('')
const rate = ref('')
const refusal = ref<string | null>(null)

function add() {
  const read = readTypedNumber(sampleRateField, rate.value)
  if (!name.value.trim()) refusal.value = 'Give the device a name.'
  else if (!read.ok) refusal.value = `Sample rate: ${read.message}`
  else refusal.value = edit.add('Add a device', 'devices', { name: name.value.trim(), sampleRate: read.value })
  if (refusal.value === null) name.value = rate.value = ''
}
</script>

<template>
  <details class="mt-1">
    <summary class="cursor-pointer text-muted">
      Other devices and their rates ({{ store.session?.system.devices?.length ?? 0 }})
    </summary>
    <ul>
      <li v-for="(device, i) in store.session?.system.devices" :key="i" class="flex justify-between">
        <span>{{ device.name }}, {{ formatShort(device.sampleRate / 1000) }} kHz</span
        ><button
          type="button"
          class="icon-button"
          :aria-label="`Remove ${device.name}`"
          @click="edit.remove('Remove a device', 'devices', i)"
        >
          <Trash2 class="size-3.5" aria-hidden="true" />
        </button>
      </li>
    </ul>
    <form class="mt-1 flex gap-2" aria-label="Add a device" @submit.prevent="add">
      <input
        v-model="name"
        class="min-w-0 grow border-b border-dotted border-rule bg-sheet px-1"
        placeholder="Camera, recorder…"
        aria-label="Device"
        maxlength="200"
      />
      <input
        v-model="rate"
        class="figure w-16 border-b border-dotted border-rule bg-sheet px-1 text-right"
        inputmode="numeric"
        placeholder="Hz"
        aria-label="Its sample rate, Hz"
      />
      <button type="submit" class="push">Add</button>
    </form>
    <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
  </details>
</template>
