<script setup lang="ts">
import type { Shortcut } from '~/composables/use-shortcuts'
import ModalDialog from './ModalDialog.vue'

defineProps<{ shortcuts: readonly Shortcut[] }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <ModalDialog title="Keys" closing="Close" @close="emit('close')">
    <div class="w-[28rem]">
      <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
        <template v-for="shortcut in shortcuts" :key="shortcut.does">
          <dt class="text-right">
            <template v-for="(key, i) in shortcut.keys" :key="key"
              >{{ i > 0 ? ' or ' : '' }}<kbd class="figure border border-line px-1">{{ key }}</kbd></template
            >
          </dt>
          <dd>{{ shortcut.does }}</dd>
        </template>
      </dl>
    </div>
  </ModalDialog>
</template>
