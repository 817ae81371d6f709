<script setup lang="ts">
import { computed } from 'vue'
import { recallSheet, sheetHead } from '#core/log/sheets'
import type { MarkHead, Session } from '#core/session'
import { formatDecimal } from '#core/units'
import { useInSlices } from '~/composables/use-in-slices'
import SlideRule from '~/shared/fields/SlideRule.vue'

/** How a session is set, strip by strip, every gain drawn on a short slide rule. */
const props = defineProps<{ session: Session; mark: MarkHead | null; whole?: boolean }>()
const strips = computed(() => recallSheet(props.session))
/** Strips that are drawn in one task. */
const SLICE = 6
const sliced = useInSlices(() => strips.value, SLICE)
/** Paper waits for no slice. */
const shown = computed(() => (props.whole ? strips.value : sliced.value))
/** The left column and the right one; on paper one list, in columns of the page. */
const columns = computed(() => {
  const left = Math.ceil(strips.value.length / 2)
  return [shown.value.slice(0, left), shown.value.slice(left)]
})
const head = computed(() => sheetHead(props.session, props.mark))
const joined = (list: readonly { name: string; words: string }[]) =>
  list.map(({ name, words }) => `${name} ${words}`.replace('48 V', '48\u00A0V')).join(' · ')
</script>

<template>
  <div>
    <p v-for="line in head" :key="line" class="text-muted">{{ line }}</p>
    <div
      class="mt-2 gap-x-7 card:grid card:grid-cols-2 print:block print:columns-2"
      :data-complete="shown.length === strips.length"
    >
      <div v-for="(column, i) in columns" :key="i" class="min-w-0 print:contents">
        <section v-for="each in column" :key="each.strip" class="recalled mb-3 break-inside-avoid">
          <h3 class="flex justify-between border-b border-ink">
            {{ each.strip }}
            <span v-if="each.channel !== null" class="font-normal">recorder’s {{ each.channel }}</span>
          </h3>
          <div v-for="stage in each.stages" :key="stage.stage" class="border-b border-line py-0.5">
            <p>
              {{ stage.stage
              }}<span class="text-muted">{{ stage.others.length > 0 ? `: ${joined(stage.others)}` : '' }}</span>
            </p>
            <p v-for="gain in stage.gains" :key="gain.name" class="flex items-center gap-3">
              <span class="w-1/2"
                >{{ gain.name }} <strong class="font-semibold">{{ gain.words }}</strong></span
              >
              <SlideRule v-if="gain.scale" class="w-1/2" bare :value="gain.scale.value" :range="gain.scale.range" />
            </p>
          </div>
          <p v-if="each.expected !== null" class="flex gap-3 border-b border-line py-0.5">
            <span class="w-1/2"
              >Expected peak <strong class="font-semibold">{{ formatDecimal(each.expected, 1) }} dBFS</strong></span
            >
            <span class="hidden w-1/2 print:block">Read: ____________ dBFS</span>
          </p>
          <p v-if="each.routing.length > 0" class="py-0.5 text-muted">{{ joined(each.routing) }}</p>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
/* What is out of sight is not laid out: a desk of 64 strips is a long sheet. */
@media screen {
  .recalled {
    content-visibility: auto;
    contain-intrinsic-height: auto 9rem;
  }
}
</style>
