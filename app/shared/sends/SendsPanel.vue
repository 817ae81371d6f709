<script setup lang="ts">
import { computed } from 'vue'
import type { Strip } from '#core/model'
import { isBus } from '#core/model'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useSends } from './use-sends'
import SendRow from './SendRow.vue'

/** The busses that a strip goes to, each with its own level. */
const props = defineProps<{ strip: Strip }>()
const sends = useSends()
const own = computed(() => sends.sendsOf(props.strip))
const options = computed(() => [
  { value: '', text: 'add a send…' },
  ...sends.open(props.strip).map(({ id, name }) => ({ value: id, text: name })),
])
function begin(id: string) {
  const bus = sends.busses.value.find((each) => each.id === id)
  return bus ? sends.begin(props.strip, bus) : null
}
</script>

<template>
  <section aria-labelledby="sends-title" data-sends>
    <h2 id="sends-title" class="border-b border-ink pb-0.5">Sends</h2>
    <SendRow v-for="send in own" :key="send.bus.id" class="py-0.5" :send="send" shows="bus" narrow />
    <p v-if="own.length === 0" class="mt-1 text-muted">
      {{ isBus(strip) ? 'Into no other bus.' : 'To the recorder alone.' }}
    </p>
    <SelectInput v-if="options.length > 1" value="" label="Begin a send" :options="options" :commit="begin" />
  </section>
</template>
