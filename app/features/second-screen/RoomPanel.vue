<script setup lang="ts">
import { computed, ref } from 'vue'
import { GUEST_KEY, secondScreen, shownPlace } from '~/stores/second-screen'
import { endSharing, openedFragment, unopened } from '~/sharing'
import { useViewStore } from '~/stores/view'
import { chosenAddress } from './chosen-address'
import FollowSwitch from './FollowSwitch.vue'
import MembersList from './MembersList.vue'
import QrCode from './QrCode.vue'

/** The opened room: its link and code, who is there, and its end. */
const emit = defineEmits<{ close: [] }>()
const view = useViewStore()
const PLACES = ['path', 'mix', 'timing', 'monitoring', 'bench', 'soundcheck', 'log', 'faults']
const link = computed(() => {
  const place = PLACES.includes(shownPlace.value) ? shownPlace.value : 'path'
  const strip = view.strip ? `?strip=${view.strip.id}` : ''
  return `${chosenAddress.value || window.location.origin}/${place}/${GUEST_KEY}${strip}#${openedFragment.value ?? ''}`
})
const field = ref<HTMLInputElement | null>(null)
const told = ref('')
/** A page on plain HTTP has no clipboard to write to: the link is marked then, for the hand to copy. */
async function copy() {
  field.value?.select()
  try {
    if (!navigator.clipboard) throw new DOMException('none', 'NotAllowedError')
    await navigator.clipboard.writeText(link.value)
    told.value = 'Copied.'
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
    told.value = 'Marked: press Ctrl+C to copy it.'
  }
}
function end() {
  endSharing()
  emit('close')
}
</script>

<template>
  <div class="grid gap-4 card:grid-cols-[15rem_minmax(0,1fr)]">
    <QrCode :text="link" label="QR code of the link, to be scanned with the other device’s camera" />
    <div class="min-w-0 space-y-3">
      <p>
        Scan the code with the other device’s camera, or open the link there. Whoever has it can join: show it to those
        alone who may.
      </p>
      <label class="block"
        ><span class="sr-only">Link</span>
        <input
          ref="field"
          :value="link"
          readonly
          class="figure block w-full border border-rule bg-paper px-1 text-xs"
          data-room-link
          @focus="field?.select()"
        />
      </label>
      <p class="flex flex-wrap items-center gap-3">
        <button type="button" class="push" @click="copy">Copy the link</button>
        <span role="status">{{ told }}</span>
      </p>
      <p v-if="secondScreen?.state === 'lost'" role="alert" class="border-l-3 border-ceiling pl-2">
        Not connected. {{ secondScreen.why }} It is tried again by itself; go on meanwhile.
      </p>
      <MembersList can-change />
      <p v-if="unopened > 0" class="text-muted" data-unopened>
        {{ unopened }} {{ unopened === 1 ? 'message' : 'messages' }} did not fit the key and
        {{ unopened === 1 ? 'was' : 'were' }} ignored.
      </p>
      <FollowSwitch />
      <button type="button" class="push" data-end @click="end">End it for all devices</button>
    </div>
  </div>
</template>
