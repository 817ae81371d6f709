<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AudioInterface, Gear, Plug, Preamp } from '#core/gear'
import type { Specified } from '#core/edits'
import { isDeskChannel, isInterface, isPreamp, isSoundSource, sizeField, traitsOf, withChoice } from '#core/gear'
import { withPlug, withSize } from '#core/edits'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { useShelfStore } from '~/stores/shelf'
import DataSheetDialog from '~/shared/gear/DataSheetDialog.vue'
import KnobTable from '~/shared/gear/KnobTable.vue'
import PlugFields from '~/shared/gear/PlugFields.vue'
import SpecTable from './SpecTable.vue'
import UnitForm from './UnitForm.vue'

/** A box of the shelf in full: a form made from its kind’s own description. */
const props = defineProps<{ item: Gear }>()
const shelf = useShelfStore()

const edit = (change: (item: Gear) => Gear) => shelf.edit(props.item.id, change)
const choose = (key: string) => (value: string) => edit((item) => withChoice(item, key, value))
const traits = computed(() => traitsOf(props.item))
const choices = computed(() => traits.value.choices(props.item))
const plugs = computed(() => ('plugs' in props.item ? props.item.plugs : undefined))
const sides = computed(() => traits.value.sockets(props.item))
const setPlug = (side: 'in' | 'out') => (plug: Plug | undefined) => edit((item) => withPlug(item, side, plug))
const editSelf = (change: Change) => edit((item) => (isInterface(item) ? item : change(item)))
const setKnob = (knob: KnobTableOf) =>
  edit((item) => (isPreamp(item) || isDeskChannel(item) ? { ...item, knob } : item))
type KnobTableOf = Preamp['knob']
const setSize = (size: number | undefined) => edit((item) => (isSoundSource(item) ? withSize(item, size) : item))
type Change = <T extends Specified>(owner: T) => T

const editUnit = (change: (unit: AudioInterface) => AudioInterface) =>
  edit((item) => (isInterface(item) ? change(item) : item))
const sheetOpen = ref(false)
</script>

<template>
  <section :aria-label="item.name">
    <p class="text-xs text-muted">
      {{ traits.words.box ?? traits.words.title }}
    </p>
    <h3 class="text-[17px]">
      <TextInput
        class="w-full"
        :value="item.name"
        label="Name of the item"
        :commit="(name) => edit((each) => ({ ...each, name }))"
      />
    </h3>
    <p class="flex gap-2 py-1">
      <span class="text-muted">Data sheet</span
      ><TextInput
        class="grow"
        optional
        :value="item.origin ?? ''"
        label="Source of the data sheet"
        :commit="(origin) => edit((each) => ({ ...each, origin: origin || undefined }))"
      />
    </p>
    <p v-if="choices.length > 0" class="flex flex-wrap gap-3 py-1">
      <SelectInput
        v-for="choice in choices"
        :key="choice.key"
        :value="choice.value"
        :label="choice.label"
        :options="choice.options"
        :commit="choose(choice.key)"
      />
    </p>
    <p class="py-1">
      <button type="button" class="action" @click="sheetOpen = true">Read a data sheet…</button>
    </p>
    <DataSheetDialog v-if="sheetOpen" :gear="item" :edit="(_, change) => edit(change)" @close="sheetOpen = false" />
    <PlugFields
      v-for="side in sides"
      :key="side"
      :plug="plugs?.[side]"
      :name="side === 'in' ? 'Input' : 'Output'"
      :edit="setPlug(side)"
    />

    <template v-if="!isInterface(item)">
      <p v-if="isSoundSource(item)" class="py-1">
        <span class="text-muted">{{ sizeField.label }} </span><NumberInput
          :value="item.size"
          :field="sizeField"
          :commit="setSize"
        />
      </p>
      <SpecTable class="mt-2" :owner="item as Specified" :fields="traits.fields(item)" :edit="editSelf" />
      <KnobTable
        v-if="isPreamp(item) || isDeskChannel(item)"
        :knob="item.knob"
        :lowest="item.specs.gainMin"
        :edit="setKnob"
      />
    </template>
    <UnitForm v-else :unit="item" :edit="editUnit" />
  </section>
</template>
