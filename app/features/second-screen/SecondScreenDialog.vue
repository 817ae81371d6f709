<script setup lang="ts">
import { computed } from 'vue'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { secondScreen } from '~/stores/second-screen'
import GuestPanel from './GuestPanel.vue'
import RoomPanel from './RoomPanel.vue'
import SharePanel from './SharePanel.vue'

/** The session on another device: opened from here, or as it is seen on a guest. */
const emit = defineEmits<{ close: [] }>()
const part = computed(() => {
  if (!secondScreen.value) return SharePanel
  return secondScreen.value.isOpener ? RoomPanel : GuestPanel
})
const title = computed(() =>
  secondScreen.value && !secondScreen.value.isOpener ? 'A session of another device' : 'Open on another device',
)
</script>

<template>
  <ModalDialog :title="title" closing="Close" @close="emit('close')">
    <div class="max-w-full space-y-3 pt-3 card:w-[34rem]" data-second-screen>
      <component :is="part" @close="emit('close')" />
    </div>
  </ModalDialog>
</template>
