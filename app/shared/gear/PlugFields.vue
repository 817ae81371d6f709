<script setup lang="ts">
import type { Plug } from '#core/gear'
import { balances, connectors } from '#core/gear'
import SelectInput from '~/shared/fields/SelectInput.vue'

/** The socket of an input or an output: which plug it takes and how it is driven. */
const props = defineProps<{ plug: Plug | undefined; name: string; edit: (plug: Plug | undefined) => string | null }>()

const NOT_SAID = { value: '', text: 'not set' }
const plugs = [
  NOT_SAID,
  ...connectors.map((value) => ({
    value,
    text: { xlr: 'XLR', jack: 'jack', combo: 'XLR and jack', phono: 'phono', usb: 'USB', optical: 'optical' }[value],
  })),
]
const drives = [
  NOT_SAID,
  ...balances.map((value) => ({
    value,
    text: {
      'balanced': 'balanced',
      'impedance-balanced': 'impedance-balanced',
      'floating': 'floating (transformer, coil)',
      'one-leg': 'unbalanced',
    }[value],
  })),
]
function set(part: { connector?: string; balance?: string }) {
  const next = Object.fromEntries(Object.entries({ ...props.plug, ...part }).filter(([, value]) => value))
  return props.edit(Object.keys(next).length > 0 ? (next as Plug) : undefined)
}
</script>

<template>
  <p class="flex items-baseline gap-3 py-0.5">
    <span class="w-16 text-muted">{{ name }}</span>
    <SelectInput
      :value="plug?.connector ?? ''"
      :label="`${name}, connector`"
      :options="plugs"
      :commit="(connector) => set({ connector })"
    />
    <SelectInput
      :value="plug?.balance ?? ''"
      :label="`${name}, balance`"
      :options="drives"
      :commit="(balance) => set({ balance })"
    />
  </p>
</template>
