<script setup lang="ts">
import { format } from 'date-fns'
import { onMounted, ref } from 'vue'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { useLog } from '~/composables/use-log'

/** A named moment with everything as it stands. */
const props = defineProps<{ name?: string }>()
const emit = defineEmits<{ made: []; close: [] }>()
const log = useLog()
const name = ref(props.name ?? format(new Date(), 'd MMMM, HH:mm'))
const by = ref(log.last.value.by)
const firmware = ref(log.last.value.firmware)
const note = ref('')
const field = ref<HTMLInputElement | null>(null)
// The dialog puts the focus on its first field once it stands; what is proposed there is typed over.
onMounted(() => setTimeout(() => field.value?.select()))

async function make() {
  if (name.value.trim() === '') {
    log.told.value = 'A mark needs a name.'
    return
  }
  const mark = await log.makeMark({
    name: name.value.trim(),
    by: by.value.trim(),
    firmware: firmware.value.trim(),
    note: note.value.trim(),
  })
  if (mark) emit('made')
}
</script>

<template>
  <ModalDialog title="Add a mark" closing="Cancel" @close="emit('close')">
    <form class="mt-2 w-full space-y-2 card:w-96" data-mark-form @submit.prevent="make">
      <p class="text-muted">
        Every setting with its knob position, 48 V, routing, buffer and rate, gear, readings and ticks, as set now.
      </p>
      <label class="block"
        >Name
        <input
          ref="field"
          v-model="name"
          class="mt-0.5 w-full border border-rule bg-sheet px-2 py-1"
          maxlength="200"
          autocomplete="off"
      /></label>
      <label class="block"
        >Made by
        <input
          v-model="by"
          class="mt-0.5 w-full border border-rule bg-sheet px-2 py-1"
          maxlength="300"
          autocomplete="off"
      /></label>
      <label class="block"
        >Firmware and driver
        <input
          v-model="firmware"
          class="mt-0.5 w-full border border-rule bg-sheet px-2 py-1"
          maxlength="300"
          autocomplete="off"
      /></label>
      <label class="block"
        >Note
        <textarea
          v-model="note"
          class="mt-0.5 w-full border border-rule bg-sheet px-2 py-1"
          rows="2"
          maxlength="2000"
        />
      </label>
      <p v-if="log.told.value" role="alert" class="text-ceiling">{{ log.told.value }}</p>
      <button type="submit" class="push-main">Make the mark</button>
    </form>
  </ModalDialog>
</template>
