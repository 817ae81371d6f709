<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { explain } from '#core/explain/explain'
import { formula } from '#core/formula'
import { mathmlOf } from '#core/formula/mathml'
import { formatChance } from '#core/evaluation/how-sure-words'
import { formatDecimal } from '#core/units'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { useExplaining } from '~/composables/use-explaining'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import PartRow from './PartRow.vue'

/** What a figure is made of, one step at a time: the numbers first, the formula and its source when they are asked for. */
const store = useSessionStore()
const view = useViewStore()
const { asked, into, back, close } = useExplaining()

const at = computed(() => asked.value.at(-1) ?? null)
const explained = computed(() => (store.session && at.value ? explain(store.session, at.value) : null))
const stated = computed(() => (explained.value ? formula(explained.value.formula) : null))
const math = computed(() => (stated.value ? mathmlOf(stated.value) : ''))
const showsFormula = ref(false)
watch(at, () => {
  showsFormula.value = false
})
const digits = computed(() => (explained.value?.unit === 'ms' ? 2 : 1))
const result = computed(() => {
  if (!explained.value) return ''
  const { value, unit, u } = explained.value
  if (at.value?.figure === 'chance') return formatChance(value / 100)
  const give = u && 2 * u >= 0.5 * 10 ** -digits.value ? ` ± ${formatDecimal(2 * u, digits.value)}` : ''
  return `${formatDecimal(value, digits.value)}${give} ${unit}`
})
const [largest, others] = [
  computed(() => explained.value?.doubts[0] ?? null),
  computed(() => explained.value?.doubts.slice(1).filter(({ share }) => (share ?? 0) >= 0.01) ?? []),
]
/** Where 95 % of the draws lie, of a figure that bends. */
const interval = computed(() => {
  const { strip, stage, figure } = at.value ?? {}
  const point = view.sureness?.ofStrip(strip)?.points.find((each) => each.stage === stage)
  const known = point && figure !== undefined && figure in point ? point[figure as 'peak'] : null
  return known?.interval ?? null
})
const shareIsPower = computed(() => at.value?.figure === 'noise')
</script>

<template>
  <ModalDialog v-if="at" :title="explained?.title ?? 'What it is made of'" closing="Close" @close="close">
    <div v-if="explained && stated" class="mt-2 w-full space-y-3 card:w-[30rem]" data-explained>
      <p class="flex items-baseline justify-between gap-3">
        <strong class="figure text-lg" data-result>{{ result }}</strong>
        <button v-if="asked.length > 1" type="button" class="action" @click="back">One step back</button>
      </p>
      <p class="figure text-[13px] break-words" data-numbers>{{ explained.withNumbers }}</p>
      <p v-if="interval" data-interval>
        95 % lie from <span class="figure">{{ formatDecimal(interval.low, 1) }}</span> to
        <span class="figure">{{ formatDecimal(interval.high, 1) }}</span> {{ explained.unit }}, by draws.
      </p>
      <p v-for="remark in explained.remarks" :key="remark" class="text-muted">{{ remark }}</p>
      <section aria-labelledby="made-of">
        <h3 id="made-of" class="border-b border-ink">
          Made of
          <span v-if="shareIsPower" class="float-right text-xs font-normal text-muted">share of its power</span>
        </h3>
        <ul>
          <PartRow
            v-for="(part, i) in explained.parts"
            :key="`${at.stage} ${at.figure} ${i}`"
            :part="{ ...part, share: shareIsPower ? part.share : undefined }"
            :editable="part.path !== undefined && part.path !== largest?.path"
            :largest="false"
            @into="part.figure && into(part.figure)"
          />
        </ul>
      </section>
      <section v-if="largest" aria-labelledby="known-by">
        <h3 id="known-by" class="border-b border-ink">
          What is known least <span class="float-right text-xs font-normal text-muted">share of the ±</span>
        </h3>
        <ul>
          <PartRow :key="largest.path" :part="largest" editable largest />
          <PartRow v-for="each in others" :key="each.path" :part="each" :editable="false" :largest="false" />
        </ul>
      </section>
      <section>
        <button
          type="button"
          class="action"
          :aria-expanded="showsFormula"
          aria-controls="formula-and-source"
          @click="showsFormula = !showsFormula"
        >
          Formula and source
        </button>
        <div
          v-if="showsFormula"
          id="formula-and-source"
          class="mt-1 space-y-1 border-l-2 border-rule pl-3"
          data-formula
        >
          <!-- Made from the formula's own TeX by the core, not from anything that was typed. -->
          <!-- eslint-disable-next-line vue/no-v-html -->
          <p v-if="stated.tex" class="overflow-x-auto py-1 text-base" v-html="math" />
          <p>{{ stated.quantity }}: {{ stated.statement }}.</p>
          <p class="text-muted">Source: {{ stated.source }}. Checked: {{ stated.check.says }}.</p>
        </div>
      </section>
    </div>
    <p v-else class="mt-2">This figure no longer exists: the strip was changed.</p>
  </ModalDialog>
</template>
