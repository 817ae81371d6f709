<script setup lang="ts">
import { computed, ref } from 'vue'
import { NuxtLink } from '#components'
import type { Diagnosed } from '#core/diagnosis/diagnose'
import { applyFix } from '#core/diagnosis/fix-change'
import { formatDecimal } from '#core/units'
import { useFaultsStore } from './faults-store'
import { useSessionStore } from '~/stores/session'

/** One cause: how likely, what supports and contradicts it, and how to fix it. */
const props = defineProps<{ cause: Diagnosed; foremost: boolean }>()
const store = useSessionStore()
const faults = useFaultsStore()
const refused = ref<string | null>(null)

const part = computed(
  () => `${formatDecimal(100 * props.cause.probability, props.cause.probability < 0.095 ? 1 : 0)} %`,
)
const strip = computed(() =>
  faults.strip === null ? (store.session?.strips.find(({ id }) => id === props.cause.strip)?.name ?? null) : null,
)
const MARKS = { for: '+', against: '−', neither: '·' } as const
const WORDS = { for: 'supports it', against: 'contradicts it', neither: 'neutral' } as const

function set() {
  const { fix, title } = props.cause
  if (!fix?.changes) return
  const { changes, after, says } = fix
  refused.value = store.edit(title, (session) => applyFix(session, changes))
  if (refused.value === null) faults.fixed(says, after)
}
</script>

<template>
  <li :data-cause="cause.id">
    <div class="grid grid-cols-[3.75rem_minmax(0,1fr)] items-baseline gap-x-3">
      <span class="figure text-right" :class="{ 'font-semibold': foremost }" data-probability>{{ part }}</span>
      <component :is="foremost ? 'strong' : 'span'" class="min-w-0"
        >{{ cause.title }}<span v-if="strip" class="font-normal text-muted">, {{ strip }}</span></component
      >
      <span
        class="col-start-2 mt-0.5 block h-1.5 border-b border-rule bg-transparent"
        role="img"
        :aria-label="`${part} likely`"
        ><span class="block h-full bg-body" :style="{ width: `${100 * cause.probability}%` }"></span
      ></span>
      <NuxtLink
        v-if="cause.finding && cause.strip"
        class="action col-start-2 justify-self-start"
        :to="{ path: `/path/${store.key}`, query: { strip: cause.strip, finding: cause.finding } }"
        data-on-path
        >Shown on Path</NuxtLink
      >
      <ul v-if="cause.evidence.length > 0" class="col-start-2 mt-1 space-y-0.5">
        <li
          v-for="(each, i) in foremost ? cause.evidence : cause.evidence.slice(0, 2)"
          :key="i"
          class="grid grid-cols-[1em_minmax(0,1fr)] gap-x-1.5"
          :class="each.speaks === 'for' ? '' : 'text-muted'"
        >
          <span class="figure" :title="WORDS[each.speaks]"
            ><span aria-hidden="true">{{ MARKS[each.speaks] }}</span
            ><span class="sr-only">{{ WORDS[each.speaks] }}: </span></span
          ><span>{{ each.says }}</span>
        </li>
      </ul>
      <component
        :is="foremost ? 'div' : 'details'"
        v-if="cause.fix"
        class="col-start-2 mt-1.5"
        :class="{ 'plate px-3 py-2': foremost }"
        data-fix
      >
        <summary v-if="!foremost" class="cursor-pointer text-muted">How to fix it</summary>
        <p>
          <strong v-if="foremost">{{ cause.fix.changes ? 'Fix: ' : 'By hand: ' }}</strong>{{ cause.fix.says }}
        </p>
        <p v-if="cause.fix.caution" class="mt-1 border-l-3 border-ceiling pl-2" data-caution>
          {{ cause.fix.caution }}
        </p>
        <p class="mt-1 text-muted">Then: {{ cause.fix.after }}</p>
        <p v-if="cause.fix.changes" class="mt-1.5 flex flex-wrap items-baseline gap-x-3">
          <button type="button" class="push" @click="set">Set it</button>
          <span class="text-xs text-muted"
            >Tried on this session: the cause is gone, nothing worse is new. Undo takes it back.</span
          >
        </p>
        <p v-if="refused" role="alert" class="mt-1 text-ceiling">{{ refused }}</p>
      </component>
    </div>
  </li>
</template>
