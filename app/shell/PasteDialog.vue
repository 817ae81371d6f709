<script setup lang="ts">
import { ref } from 'vue'
import { useExchange } from './use-exchange'
import ModalDialog from '~/shared/ui/ModalDialog.vue'

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
  <ModalDialog title="Import a session" closing="Cancel" @close="emit('close')">
    <div class="max-w-full card:w-[32rem] space-y-3 pt-3">
      <p>Choose a session file, or drop it anywhere on the window. It opens as a new session; nothing is replaced.</p>
      <button type="button" class="push-main" @click="choose">Choose a file…</button>
      <label class="block"
        >Or paste its text
        <textarea
          v-model="text"
          rows="8"
          class="figure mt-1 w-full border border-rule bg-paper p-2"
          spellcheck="false"
        />
      </label>
      <div class="flex justify-end gap-2">
        <button v-if="text.trim()" type="button" class="push-main" @click="take">Open the pasted text</button>
      </div>
    </div>
  </ModalDialog>
</template>
