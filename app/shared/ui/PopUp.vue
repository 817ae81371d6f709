<script setup lang="ts">
import { nextTick, onBeforeUnmount, ref, useId } from 'vue'
import { latePart } from '~/stores/late-part'

/**
 * A button that opens a panel beside it. The browser closes it by Escape and by a press elsewhere, and gives the focus back;
 * where it stands is computed when it opens, with what is fetched then.
 */
const props = withDefaults(
  defineProps<{
    /** Of the button, read aloud. */
    label: string
    side?: 'bottom-end' | 'top'
    /** Whether the focus goes into the panel, as in a menu. */
    takesFocus?: boolean
    buttonClass?: string
    panelClass?: string
  }>(),
  { side: 'bottom-end', takesFocus: false, buttonClass: '', panelClass: '' },
)
defineOptions({ inheritAttrs: false })
const id = useId()
const button = ref<HTMLElement | null>(null)
const panel = ref<HTMLElement | null>(null)
const isOpen = ref(false)
let leave = () => {}

const isOpening = (event: Event) => (event as ToggleEvent).newState === 'open'

/** The contents are there before the panel is seen. */
function begin(event: Event) {
  if (isOpening(event)) isOpen.value = true
}
async function toggled(event: Event) {
  leave()
  if (!isOpening(event)) {
    isOpen.value = false
    return
  }
  await nextTick()
  if (props.takesFocus) panel.value?.querySelector<HTMLElement>('button, input, select, a')?.focus()
  const floating = await latePart(() => import('./place-panel'))
  // Without its place it stands where the browser puts it, in the middle.
  if (floating && isOpen.value && button.value && panel.value)
    leave = floating.placePanel(button.value, panel.value, props.side)
}
const close = () => panel.value?.hidePopover()
onBeforeUnmount(() => leave())
</script>

<template>
  <span class="inline-block print:hidden" :class="$attrs.class">
    <button
      ref="button"
      type="button"
      :popovertarget="id"
      :aria-label="label"
      :aria-expanded="isOpen"
      :class="buttonClass"
      v-bind="{ ...$attrs, class: undefined }"
    >
      <slot name="button" />
    </button>
    <div
      :id="id"
      ref="panel"
      popover="auto"
      data-pop-up
      class="plate fixed inset-0 m-auto h-fit w-fit max-w-[92vw] overflow-y-auto text-left text-ink shadow-lg"
      :class="panelClass"
      @beforetoggle="begin"
      @toggle="toggled"
      @keydown.esc.stop
    >
      <slot v-if="isOpen" :close="close" />
    </div>
  </span>
</template>
