<script setup lang="ts">
import { computed } from 'vue'
import type { Shortcut } from '~/composables/use-shortcuts'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { listedKeys } from './listed-keys'

/** All keys, those of the place that one is at first. */
const props = defineProps<{ shortcuts: readonly Shortcut[]; place: string }>()
const emit = defineEmits<{ close: [] }>()

const groups = computed(() => {
  const all = [...props.shortcuts, ...listedKeys]
  const others = [...new Set(all.flatMap(({ at }) => (at && at !== props.place ? [at] : [])))]
  return [props.place, null, ...others]
    .map((at) => ({ title: at ?? 'Everywhere', shortcuts: all.filter((each) => (each.at ?? null) === at) }))
    .filter(({ shortcuts }) => shortcuts.length > 0)
})
</script>

<template>
  <ModalDialog title="Keys" closing="Close" @close="emit('close')">
    <div class="max-w-full card:w-[28rem]">
      <section v-for="group in groups" :key="group.title">
        <h3 class="mt-3 border-b border-line">{{ group.title }}</h3>
        <dl class="mt-1 grid grid-cols-[7rem_1fr] gap-x-5 gap-y-1">
          <template v-for="shortcut in group.shortcuts" :key="shortcut.does">
            <dt class="text-right">
              <template v-for="(key, i) in shortcut.keys" :key="key"
                >{{ i > 0 ? ' or ' : '' }}<kbd class="figure border border-line px-1">{{ key }}</kbd></template
              >
            </dt>
            <dd>{{ shortcut.does }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </ModalDialog>
</template>
