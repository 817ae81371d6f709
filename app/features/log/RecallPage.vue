<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { backTo } from '#core/log/entries'
import { recallSteps } from '#core/log/recall'
import { groupTitles } from '#core/soundcheck/step'
import { useLogStore } from '~/stores/log'
import { useLogViewStore } from './log-view'
import { useSessionStore } from '~/stores/session'
import MarkSelect from './MarkSelect.vue'

/** A mark recalled: only what differs from now, in working order; then the session is set to it too. */
const store = useSessionStore()
const logStore = useLogStore()
const view = useLogViewStore()
const done = ref<ReadonlySet<string>>(new Set())
const told = ref<string | null>(null)
watch(
  () => view.mark?.id,
  () => {
    done.value = new Set()
    told.value = null
  },
)
const steps = computed(() => {
  const [now, then] = [view.stateOf(null), view.mark ? view.stateOf(view.mark.id) : null]
  return now && then ? recallSteps(now, then) : []
})
function tick(id: string) {
  const next = new Set(done.value)
  if (!next.delete(id)) next.add(id)
  done.value = next
}
function set() {
  const mark = view.mark && logStore.open(view.mark.id)
  if (!mark) return
  told.value =
    store.edit(`Recall “${mark.name}”`, (session) => backTo(session, mark)) ??
    'The session is set to this mark. Undo takes it back.'
}
</script>

<template>
  <section aria-label="Recall a mark" data-recall>
    <p v-if="!view.mark" class="text-muted">There is no mark to recall yet. Add one when everything is set.</p>
    <template v-else>
      <p class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        Recall
        <MarkSelect :value="view.mark.id" label="Mark to recall" @choose="(id) => id && view.chooseMark(id)" />
        <span class="text-muted" data-recall-count>{{
          steps.length === 0
            ? 'nothing differs from this mark'
            : `${steps.length} ${steps.length === 1 ? 'thing differs' : 'things differ'}`
        }}</span>
      </p>
      <p v-if="steps.length > 0" class="mt-2 border-l-3 border-ceiling pl-2">
        Turn headphones and loudspeakers down before you plug or switch anything.
      </p>
      <ol class="mt-2">
        <li v-for="(step, i) in steps" :key="step.id" class="border-b border-line py-1.5" :data-recall-step="step.id">
          <label class="flex items-start gap-2">
            <input
              type="checkbox"
              class="size-6 pointer-coarse:size-11"
              :checked="done.has(step.id)"
              @change="tick(step.id)"
            />
            <span class="min-w-0 grow">
              <span class="figure text-muted">{{ i + 1 }}</span>
              <strong>{{ ' ' + step.title }}</strong>
              <span v-if="step.now !== null" class="text-muted">{{ step.now === '' ? '' : `, now: ${step.now}` }}</span>
              <span v-if="step.detail" class="block text-muted">{{ step.detail }}</span>
              <span v-if="step.caution" class="block border-l-3 border-ceiling pl-2">{{ step.caution }}</span>
            </span>
            <span class="shrink-0 text-xs text-muted">{{ groupTitles[step.group] }}</span>
          </label>
        </li>
      </ol>
      <p v-if="steps.length > 0" class="mt-3 flex flex-wrap items-center gap-3">
        <button type="button" class="push-main" data-set-back @click="set">Restore this mark</button>
        <span class="text-muted">{{ done.size }} of {{ steps.length }} set on the devices</span>
      </p>
      <p v-if="told" role="status" class="mt-2">{{ told }}</p>
    </template>
  </section>
</template>
