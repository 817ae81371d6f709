<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** A dialog over the page: Esc and the button close it, the focus goes back to where it was. */
defineProps<{ title: string; closing: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="plate max-h-full min-w-96 overflow-y-auto p-5 shadow-xl">
        <div class="flex items-baseline justify-between gap-8 border-b border-ink pb-1">
          <DialogTitle class="text-lg">{{ title }}</DialogTitle>
          <button type="button" class="push" @click="emit('close')">{{ closing }}</button>
        </div>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
