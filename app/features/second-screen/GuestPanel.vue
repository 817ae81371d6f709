<script setup lang="ts">
import { computed } from 'vue'
import { leaveRoom } from '~/sharing'
import { isUnsent, secondScreen } from '~/stores/second-screen'
import FollowSwitch from './FollowSwitch.vue'
import MembersList from './MembersList.vue'
import { useKeepCopy } from './use-keep-copy'

/** On a guest: how it is connected, what it may do, and how to keep a copy. */
const emit = defineEmits<{ close: [] }>()
const keepCopy = useKeepCopy()

const state = computed(() => {
  if (!secondScreen.value) return ''
  const { state: now, role, why } = secondScreen.value
  if (now === 'joined')
    return `${role === 'hands' ? 'Connected. What you change here changes on the other device.' : 'Connected. This device may look, not change.'} ${why ?? ''}`
  if (now === 'ended') return 'The connection was ended. This is a copy.'
  return `Not connected. ${why ?? ''} It is tried again by itself. ${isUnsent.value ? 'What you changed waits here.' : ''}`
})
async function keep() {
  emit('close')
  await keepCopy()
}
function leave() {
  leaveRoom()
  emit('close')
}
</script>

<template>
  <div class="space-y-3">
    <p role="status" data-guest-state>{{ state }}</p>
    <MembersList v-if="secondScreen?.state === 'joined'" />
    <FollowSwitch />
    <p class="text-muted">The other device keeps this session. A copy of it can be kept here too, or exported (E).</p>
    <p class="flex flex-wrap gap-2">
      <button type="button" class="push-main" data-keep-copy @click="keep">Keep a copy on this device</button>
      <button v-if="secondScreen?.state !== 'ended'" type="button" class="push" data-leave @click="leave">
        Leave the session
      </button>
    </p>
  </div>
</template>
