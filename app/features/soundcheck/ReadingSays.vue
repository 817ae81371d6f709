<script setup lang="ts">
import { computed } from 'vue'
import { applyChanges } from '#core/edits'
import { formatChance } from '#core/evaluation/how-sure-words'
import { turnWords } from '#core/soundcheck/turn-words'
import { formatDecimal, formatSigned } from '#core/units'
import { useSoundcheck } from './use-soundcheck'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'

/** What a reading says of source and gains, what to turn now, and what it makes of the take. */
const store = useSessionStore()
const state = useSoundcheckStore()
const soundcheck = useSoundcheck()

const reading = computed(() => state.reading)
const inferred = computed(() => state.inferred)
const largest = computed(() => Math.max(0.1, ...(inferred.value?.explains ?? []).map(({ shift }) => Math.abs(shift))))
/** The parts that matter; the others together are next to nothing. */
const parts = computed(() => (inferred.value?.explains ?? []).slice(0, 6))

const turn = computed(() => {
  const [change] = inferred.value?.changes ?? []
  const words = change && store.session && turnWords(store.session, change)
  if (!words) return null
  const again = soundcheck.opened((session) => applyChanges(session, inferred.value?.changes ?? []))
  return {
    words: `Turn ${words.where} from ${words.from} to ${words.to}`,
    then: inferred.value?.then ?? null,
    atLeast: inferred.value?.thenAtLeast ?? false,
    again,
  }
})
const againWords = (steps: readonly number[]) =>
  steps.length === 1 ? `Step ${steps[0]} again.` : `Steps ${steps.slice(0, -1).join(', ')} and ${steps.at(-1)} again.`
</script>

<template>
  <section v-if="reading" aria-labelledby="says-title" class="mt-4" data-says>
    <h2 id="says-title" class="border-b border-ink pb-0.5">What the reading means</h2>
    <p v-if="!inferred" class="mt-1 text-muted" role="status">Working it out…</p>
    <template v-else>
      <p
        class="mt-1 font-semibold"
        :class="{ 'border-l-3 border-ceiling pl-2': inferred.contradicts }"
        role="status"
        data-sentence
      >
        {{ inferred.says }}
      </p>
      <table v-if="parts.length > 0" class="mt-1 w-full max-w-xl">
        <caption class="sr-only">
          What likely makes the difference
        </caption>
        <tbody>
          <tr v-for="each in parts" :key="each.input">
            <th scope="row" class="w-1/2 py-0.5 pr-2 text-left font-normal">{{ each.name }}</th>
            <td class="w-1/3" aria-hidden="true">
              <span
                class="block h-2.5 bg-floor"
                :style="{ width: `${(100 * Math.abs(each.shift)) / largest}%`, minWidth: '2px' }"
              />
            </td>
            <td class="figure pl-2 text-right whitespace-nowrap">{{ formatSigned(each.shift, 1) }} dB</td>
          </tr>
        </tbody>
      </table>
      <p v-if="turn" class="mt-1" data-turn>
        {{ turn.words
        }}<template v-if="turn.then !== null"
          >: the meter then shows {{ turn.atLeast ? 'at least ' : ''
          }}<span class="figure">{{ formatDecimal(turn.then, 1) }}</span></template
        >. <template v-if="turn.again.length > 0">{{ againWords(turn.again) }}</template>
      </p>
      <p v-else-if="!inferred.contradicts?.reading && inferred.difference !== null" class="mt-1">
        {{
          inferred.contradicts
            ? 'No gain is offered until that is cleared.'
            : 'The level is in its window: leave the gain as it is.'
        }}
      </p>
      <p v-if="inferred.chance !== null" class="mt-1 text-muted" data-chance>
        {{ formatChance(inferred.chance) }} risk of clipping with the gains as they are.
      </p>
      <p class="mt-1.5 flex flex-wrap items-center gap-2">
        <template
          v-if="!reading.kept && !inferred.fault && !inferred.contradicts?.reading && inferred.difference !== null"
        >
          <button
            v-if="turn"
            type="button"
            class="push-main"
            data-set-and-keep
            @click="soundcheck.keep(reading, inferred, { turning: true })"
          >
            Set and keep
          </button>
          <button
            type="button"
            :class="turn ? 'push' : 'push-main'"
            data-keep
            @click="soundcheck.keep(reading, inferred, { turning: false })"
          >
            Keep
          </button>
        </template>
        <button v-else-if="turn" type="button" class="push-main" data-set @click="soundcheck.turn(inferred)">
          Set
        </button>
        <button type="button" class="push" data-remove @click="soundcheck.remove(reading.id)">
          Remove the reading
        </button>
        <span v-if="!reading.kept && !inferred.fault && !inferred.contradicts?.reading" class="text-xs text-muted"
          >The figures already follow the reading. “Keep” stores it as measured; Undo takes it back.</span
        >
      </p>
      <p v-if="soundcheck.told.value" role="alert" class="mt-1 text-ceiling">{{ soundcheck.told.value }}</p>
    </template>
  </section>
</template>
