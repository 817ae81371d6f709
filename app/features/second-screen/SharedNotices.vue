<script setup lang="ts">
import { computed } from 'vue'
import { metNews, refusedNews } from '~/sharing'
import { GUEST_KEY, isUnsent, secondScreen } from '~/stores/second-screen'
import { useSessionStore } from '~/stores/session'
import { useKeepCopy } from './use-keep-copy'

/** What has to be told of a session on several devices: a lost connection, changes that met, a change that was not taken. */
defineEmits<{ open: [] }>()
const store = useSessionStore()
const keepCopy = useKeepCopy()

const isGuest = computed(() => store.key === GUEST_KEY)
const lost = computed(() => {
  const { value } = secondScreen
  if (!value) return null
  if (value.isOpener)
    return value.state === 'lost'
      ? `${value.why ?? 'The connection to the other devices is lost.'} Go on: it is tried again by itself, and what they change meanwhile is merged.`
      : null
  if (!isGuest.value) return null
  const waits = isUnsent.value
    ? ' What you changed waits here and is merged then.'
    : ' Go on: what you change is merged then.'
  if (value.state === 'lost') return `${value.why ?? 'The connection is lost.'} It is tried again by itself.${waits}`
  if (value.state === 'alone')
    return `The device that keeps this session is not connected. Its page may be closed or asleep. It is tried again by itself.${waits}`
  return null
})
const isEnded = computed(() => isGuest.value && secondScreen.value?.state === 'ended')

function setMine() {
  metNews.value?.setMine?.()
  metNews.value = null
}
</script>

<template>
  <div class="print:hidden">
    <div v-if="lost" role="alert" class="notice" data-notice="not-connected">
      <p><strong>Not connected.</strong> {{ lost }}</p>
      <button v-if="isGuest" type="button" class="push" @click="keepCopy">Keep a copy</button>
    </div>
    <div v-if="isEnded" role="alert" class="notice" data-notice="sharing-ended">
      <p>
        <strong>The connection to the other device was ended.</strong> This is a copy, in this tab only. Keep it here to
        go on with it.
      </p>
      <button type="button" class="push" data-keep-copy @click="keepCopy">Keep a copy</button>
    </div>
    <div v-if="metNews" role="alert" class="notice" data-notice="met">
      <div>
        <p v-if="metNews.setMine">
          <strong>Two devices changed the same thing.</strong> The other device’s value stands; yours is not lost.
        </p>
        <p v-else>
          <strong>{{ metNews.by }} changed the same thing while it was not connected.</strong> This device’s value
          stands.
        </p>
        <ul class="mt-1 max-h-40 list-disc overflow-y-auto pl-5">
          <li v-for="(each, i) in metNews.met" :key="i">
            {{ each.of }}, {{ each.what }}: {{ each.kept }} stands; {{ metNews.setMine ? 'yours' : 'theirs' }} was
            {{ each.other }}.
          </li>
        </ul>
      </div>
      <button v-if="metNews.setMine" type="button" class="push" data-set-mine @click="setMine">
        Set mine after all
      </button>
      <button type="button" class="push" @click="metNews = null">Close</button>
    </div>
    <div v-if="refusedNews" role="alert" class="notice" data-notice="not-taken">
      <p>{{ refusedNews }}</p>
      <button type="button" class="push" @click="refusedNews = null">Close</button>
    </div>
  </div>
</template>
