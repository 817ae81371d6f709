<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ref } from 'vue'
import { useExchange } from '~/composables/use-exchange'

/** Import by choosing a file or pasting its text. */
const emit = defineEmits<{ close: [] }>()
const exchange = useExchange()
const text = ref('')

async function choose() {
  emit('close')
  await exchange.chooseFile()
}
async function take() {
  emit('close')
  if (await exchange.importText('Pasted text', text.value)) text.value = ''
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="plate w-[34rem] space-y-3 p-5 shadow-xl">
        <DialogTitle class="border-b border-ink pb-1 text-lg">Import a session</DialogTitle>
        <p>Choose a session file, or drop it anywhere on the window. It opens beside what you have; nothing is replaced.</p>
        <button type="button" class="push-main" @click="choose">Choose a file…</button>
        <label class="block">Or paste its text
          <textarea v-model="text" rows="8" class="figure mt-1 w-full border border-rule bg-paper p-2" spellcheck="false" />
        </label>
        <div class="flex justify-end gap-2">
          <button type="button" class="push" @click="emit('close')">Cancel</button>
          <button v-if="text.trim()" type="button" class="push-main" @click="take">Open the pasted text</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
