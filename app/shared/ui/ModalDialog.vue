<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useEventListener } from '@vueuse/core'
import { nextTick, onMounted, onUnmounted, ref } from 'vue'

/** A dialog over the page: Esc and the button close it, the focus goes back to where it was. */
defineProps<{ title: string; closing: string }>()
const emit = defineEmits<{ close: [] }>()

// A dialog opens on its first field: what is marked so, or the first that can be typed in or chosen.
const panel = ref<HTMLElement | null>(null)
const before = document.activeElement
onMounted(async () => {
  await nextTick()
  const fields = 'input:not([type="file"]), select, textarea'
  const body = panel.value
  const first =
    body?.querySelector<HTMLElement>('[data-autofocus], [data-first]') ?? body?.querySelector<HTMLElement>(fields)
  first?.focus()
})
// What is typed here is kept when the dialog is done: before the page goes away, the browser asks.
const isTypedIn = ref(false)
useEventListener(window, 'beforeunload', (event) => {
  if (isTypedIn.value) event.preventDefault()
})
onUnmounted(() => {
  // Where it came from; if that is gone, the page itself, so that single keys work.
  if (before instanceof HTMLElement && before.isConnected) before.focus()
})
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-stretch justify-center card:items-center card:p-6">
      <DialogPanel
        class="plate max-h-full w-full overflow-y-auto p-4 shadow-xl card:w-auto card:min-w-96 card:max-w-full card:p-5"
      >
        <div class="flex items-baseline justify-between gap-8 border-b border-ink pb-1">
          <DialogTitle class="text-lg">{{ title }}</DialogTitle>
          <button type="button" class="push" @click="emit('close')">{{ closing }}</button>
        </div>
        <div ref="panel" @input="isTypedIn = true"><slot /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
