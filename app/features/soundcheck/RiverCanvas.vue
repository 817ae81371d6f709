<script setup lang="ts">
import { onBeforeUnmount, ref, toValue, watch } from 'vue'
import { useColorMode } from '#imports'
import type { Palette } from '~/shared/charts/palette'
import { readPalette } from '~/shared/charts/palette'
import type { RiverBanks, RiverColumn } from './river'
import { drawLane } from './lane-river'
import { drawRiver } from './river'
import { useObservedSize } from '~/composables/use-observed-size'

/** What comes in, as it flows; its figures stand beside it in words. `drawn`, or what it refers to, changes with every new column. */
const props = defineProps<{
  columns: readonly RiverColumn[]
  most: number
  banks: RiverBanks
  drawn: unknown
  label: string
  /** One of many, with no words of its own. */
  narrow?: boolean
}>()
const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useObservedSize(canvas)
const theme = useColorMode()
let palette: Palette | null = null
let frame = 0

function draw() {
  frame = 0
  const context = canvas.value?.getContext('2d')
  if (!canvas.value || !context || width.value === 0) return
  const scale = window.devicePixelRatio || 1
  const [wide, high] = [Math.round(width.value * scale), Math.round(height.value * scale)]
  if (canvas.value.width !== wide || canvas.value.height !== high) {
    canvas.value.width = wide
    canvas.value.height = high
  }
  context.setTransform(scale, 0, 0, scale, 0, 0)
  palette ??= readPalette(canvas.value)
  const drawn = props.narrow ? drawLane : drawRiver
  drawn(context, { width: width.value, height: height.value }, props.columns, props.most, props.banks, palette)
}
const drawSoon = () => {
  frame ||= requestAnimationFrame(draw)
}
watch(
  () => theme.value,
  () => {
    palette = null
    drawSoon()
  },
  { flush: 'post' },
)
watch([() => toValue(props.drawn), () => props.banks, width, height], drawSoon, { flush: 'post' })
onBeforeUnmount(() => cancelAnimationFrame(frame))
</script>

<template>
  <canvas ref="canvas" class="block w-full" :class="{ 'h-72': !narrow }" role="img" :aria-label="label" data-river />
</template>
