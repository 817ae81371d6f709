<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Shortcut } from '~/composables/use-shortcuts'

defineProps<{ shortcuts: readonly Shortcut[] }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="plate w-[30rem] p-5 shadow-xl">
        <div class="flex items-baseline justify-between border-b border-ink pb-1">
          <DialogTitle class="text-lg">Keys</DialogTitle>
          <button type="button" class="push" @click="emit('close')">Close</button>
        </div>
        <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
          <template v-for="shortcut in shortcuts" :key="shortcut.does">
            <dt class="text-right"><template v-for="(key, i) in shortcut.keys" :key="key">{{ i > 0 ? ' or ' : '' }}<kbd class="figure border border-line px-1">{{ key }}</kbd></template></dt>
            <dd>{{ shortcut.does }}</dd>
          </template>
        </dl>
      </DialogPanel>
    </div>
  </Dialog>
</template>
