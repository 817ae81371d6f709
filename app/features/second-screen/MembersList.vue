<script setup lang="ts">
import { computed } from 'vue'
import type { Member } from '#core/shared-session/presence'
import { places } from '~/composables/places'
import { secondScreen } from '~/stores/second-screen'
import { useSessionStore } from '~/stores/session'
import { setRole } from '~/sharing'

/** The devices that show this session: what each may do, and what it looks at. */
defineProps<{ canChange?: boolean }>()
const store = useSessionStore()
const members = computed(() => secondScreen.value?.members ?? [])
const others = computed(() => members.value.filter(({ role }) => role !== 'leader'))

const ROLES: Record<Member['role'], string> = { leader: 'owner', hands: 'may change', eyes: 'looks only' }
const isOwn = ({ number }: Member) => number === secondScreen.value?.you
function lookingAt({ at }: Member): string {
  if (!at) return ''
  const place = places.find(({ id }) => id === at.place)?.title ?? 'another page'
  const strip = store.session?.strips.find(({ id }) => id === at.strip)?.name
  return strip ? `${place}, ${strip}` : place
}
</script>

<template>
  <section aria-labelledby="devices-title">
    <h3 id="devices-title" class="border-b border-ink pb-0.5">Devices</h3>
    <ul data-members>
      <li
        v-for="each in members"
        :key="each.number"
        class="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1"
      >
        <span class="font-semibold">{{ each.name }}<template v-if="isOwn(each)"> (this one)</template></span>
        <span class="grow text-muted">{{ lookingAt(each) }}</span>
        <button
          v-if="canChange && each.role !== 'leader'"
          type="button"
          class="push"
          :aria-label="`${each.name} ${ROLES[each.role]}. Let it ${each.role === 'hands' ? 'only look' : 'change the session'}`"
          data-role
          @click="setRole(each.number, each.role === 'hands' ? 'eyes' : 'hands')"
        >
          {{ ROLES[each.role] }}
        </button>
        <span v-else class="text-muted">{{ ROLES[each.role] }}</span>
      </li>
    </ul>
    <p v-if="others.length === 0" class="mt-1 text-muted">No other device yet.</p>
  </section>
</template>
