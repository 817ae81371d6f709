<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import type { GainControl } from '#core/chain/gain-control'
import { stripControls } from '#core/chain/gain-control'
import type { ResolvedStage } from '#core/gear/stage'
import { INFLOW, RULER, drawSection, plateHalf } from './section-drawing'
import type { SectionModel } from '~/shared/section/section-model'
import type { Turned } from '~/composables/turned'
import { turnedGain } from '~/composables/turned'
import { useExplaining } from '~/composables/use-explaining'
import { useObservedSize } from '~/composables/use-observed-size'
import { controlName } from './control-name'
import GainHandle from './GainHandle.vue'

/** The strip as a river in section, with a handle on every gain. */
const props = defineProps<{
  model: SectionModel
  stages: readonly ResolvedStage[]
  summary: string
  strip: string
  /** What flows into a bus, to be turned where it stands. */
  sends?: readonly { turned: Turned; name: string; from: string }[]
}>()

const { explain } = useExplaining()
const frame = ref<HTMLElement | null>(null)
const { width, height } = useObservedSize(frame)
const id = useId()

/** Columns narrower than their figures are not drawn: the section is pushed sideways instead, px. */
const COLUMN = 86
const leastWidth = computed(() => RULER + COLUMN * (props.model.columns.length + (props.model.confluence ? INFLOW : 0)))
const drawing = computed(() => drawSection(props.model, width.value, height.value))

/** Below this a column has no room for a handle with its unit, px. */
const NARROW = 130
const controls = computed(() => stripControls(props.stages))
const nameOf = (control: GainControl) => controlName(control, controls.value.length, props.stages)
const handles = computed(() => [...gainHandles.value, ...sendHandles.value])
const gainHandles = computed(() =>
  controls.value.flatMap((control) => {
    const i = props.stages.findIndex((stage) => stage.id === control.stage)
    const column = props.model.columns[i]
    if (!column) return []
    const { y, columnWidth, left: begins } = drawing.value
    const left = begins + i * columnWidth
    const own = { turned: turnedGain(props.strip, control), name: nameOf(control), small: false }
    const key = `${control.stage} ${control.setting}`
    // A channel's gain is met at its joint, its fader behind: there it hangs under the band.
    return control.setting === 'gain'
      ? [{ ...own, key, left, top: y(column.peak) }]
      : [{ ...own, key, left: left + columnWidth / 2, top: y(column.average) + 16 }]
  }),
)
const HANDLE = 38
const isClose = computed(() => {
  const [first, second] = drawing.value.tributaries
  return first !== undefined && second !== undefined && second.x - first.x < HANDLE
})
/** A send is held at the top of its strip, where that flows into the sum. */
const sendHandles = computed(() =>
  // Where the strips stand too close for handles, the scales below have them.
  (isClose.value ? [] : (props.sends ?? [])).flatMap(({ turned, name, from }) => {
    const place = drawing.value.tributaries.find((each) => each.strip === from)
    return place ? [{ turned, name: `Send of ${name}`, small: true, key: turned.key, left: place.x, top: place.y }] : []
  }),
)
const colour = (tone: string) => `var(--${tone})`
const MONO = 'JetBrains Mono Variable'
const SANS = 'Instrument Sans Variable'
</script>

<template>
  <div
    class="h-full min-h-0 overflow-x-auto overflow-y-hidden"
    :tabindex="leastWidth > width ? 0 : undefined"
    :aria-label="leastWidth > width ? 'Section' : undefined"
  >
    <div ref="frame" class="relative h-full min-h-0" :style="{ minWidth: `${leastWidth}px` }">
      <svg
        v-if="width > 0 && height > 0"
        class="absolute inset-0"
        :width="width"
        :height="height"
        :viewBox="`0 0 ${width} ${height}`"
        role="img"
        :aria-label="summary"
        data-section
      >
        <defs>
          <!-- Slanted strokes, as rock is drawn in a section; dots, as gravel is. -->
          <pattern :id="`${id}-rock`" width="9" height="9" patternUnits="userSpaceOnUse">
            <rect width="9" height="9" fill="var(--ceiling-soft)" />
            <path d="M-9 9L0 0M0 9L9 0M9 9L18 0" stroke="var(--ceiling)" stroke-opacity="0.45" />
          </pattern>
          <pattern :id="`${id}-gravel`" width="10" height="10" patternUnits="userSpaceOnUse">
            <rect width="10" height="10" fill="var(--floor-soft)" />
            <circle cx="2" cy="3" r="0.8" fill="var(--floor)" fill-opacity="0.55" />
            <circle cx="7" cy="8" r="0.8" fill="var(--floor)" fill-opacity="0.55" />
          </pattern>
        </defs>
        <path :d="drawing.areas.ceiling" :fill="`url(#${id}-rock)`" />
        <path :d="drawing.areas.floor" :fill="`url(#${id}-gravel)`" />
        <path
          v-for="each in drawing.tributaries"
          :key="each.strip"
          :d="each.path"
          fill="var(--body)"
          fill-opacity="0.72"
          stroke="var(--paper)"
          :data-tributary="each.strip"
        />
        <path :d="drawing.areas.surge" fill="var(--lip)" />
        <path :d="drawing.areas.body" fill="var(--body)" />
        <g v-if="drawing.penumbra.surge" fill-opacity="0.3" data-penumbra>
          <path :d="drawing.penumbra.surge" fill="var(--body)" />
          <path :d="drawing.penumbra.average" fill="var(--body)" />
          <path :d="drawing.penumbra.floor" fill="var(--floor)" />
        </g>
        <path :d="drawing.edges.surge" fill="none" stroke="var(--body)" stroke-dasharray="3 3" />
        <path :d="drawing.edges.floor" fill="none" stroke="var(--floor)" stroke-width="1.25" />
        <path :d="drawing.edges.ceiling" fill="none" stroke="var(--ceiling)" stroke-width="1.25" />
        <path
          v-for="(line, i) in drawing.lines"
          :key="`line ${i}`"
          :d="line.path"
          :fill="line.filled ? colour(line.tone) : 'none'"
          :stroke="line.width > 0 ? colour(line.tone) : 'none'"
          :stroke-width="line.width"
          :stroke-dasharray="line.dash"
        />
        <template v-for="(text, i) in drawing.texts" :key="`text ${i}`">
          <rect
            v-if="text.plate"
            :x="text.x - plateHalf(text)"
            :y="text.y - 8"
            :width="2 * plateHalf(text)"
            height="16"
            fill="var(--sheet)"
          />
          <text
            :x="text.x"
            :y="text.y"
            :fill="colour(text.tone)"
            :text-anchor="text.anchor"
            :transform="text.upright ? `rotate(-90 ${text.x} ${text.y})` : undefined"
            :font-size="text.size"
            :font-weight="text.bold ? 650 : text.plate ? 500 : 450"
            :font-family="text.mono ? MONO : SANS"
            dominant-baseline="central"
            :class="text.figure && 'cursor-help decoration-dotted underline-offset-3 hover:underline'"
            @click="text.figure && explain(text.figure.figure, text.figure.stage)"
          >
            {{ text.words }}
          </text>
        </template>
      </svg>
      <GainHandle
        v-for="handle in handles"
        :key="handle.key"
        :control="handle.turned"
        :name="handle.name"
        :small="handle.small || drawing.columnWidth < NARROW"
        :pixels-per-db="drawing.perDb"
        :style="{ left: `${handle.left}px`, top: `${handle.top}px` }"
      />
    </div>
  </div>
</template>
