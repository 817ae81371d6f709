<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { gearDifferences } from '#core/edits'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useShelfStore } from '~/stores/shelf'

/** What taking the shelf's figures would change in the session's copy of a box. */
const chain = useChainEdit()
const shelf = useShelfStore()
const edit = useStageEdit()
onMounted(shelf.open)

const mine = computed(() => chain.updating.value)
const theirs = computed(() => (mine.value?.shelf ? shelf.get(mine.value.shelf) : null))
const differences = computed(() => (mine.value && theirs.value ? gearDifferences(mine.value, theirs.value) : []))
const close = () => {
  chain.updating.value = null
}

function take() {
  const [from, own] = [theirs.value, mine.value]
  if (from && own)
    chain.told.value = edit.session('Update from the shelf', (session) => ({
      ...session,
      gear: session.gear.map((item) => (item.id === own.id ? { ...from, id: own.id, shelf: from.id } : item)),
    }))
  close()
}
</script>

<template>
  <ModalDialog :title="`Update “${mine?.name}” from the shelf`" closing="Cancel" @close="close">
    <div class="max-w-full card:w-[34rem] pt-3">
      <p v-if="!theirs">This item is no longer on the shelf. The session keeps its copy.</p>
      <p v-else-if="differences.length === 0">Nothing would change: the copy is the same as the shelf’s.</p>
      <template v-else>
        <table class="w-full">
          <thead>
            <tr class="border-b border-ink text-left">
              <th class="py-1 font-semibold">What</th>
              <th class="text-right font-semibold">Here</th>
              <th class="text-right font-semibold">On the shelf</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="each in differences" :key="each.path" class="border-b border-line" data-difference>
              <td class="py-1">{{ each.words }}</td>
              <td class="figure text-right">{{ each.from }}</td>
              <td class="figure text-right">{{ each.to }}</td>
            </tr>
          </tbody>
        </table>
        <p class="mt-3 flex justify-end">
          <button type="button" class="push-main" @click="take">Take the shelf’s</button>
        </p>
      </template>
    </div>
  </ModalDialog>
</template>
