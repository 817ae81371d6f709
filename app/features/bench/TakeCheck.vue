<script setup lang="ts">
import { isElectricSource, isSoundSource } from '#core/gear'
import { formatISO } from 'date-fns'
import { computed, ref } from 'vue'
import type { RehearsedKind } from '#core/bench/take-check'
import { checkTake, isChance, keepTake } from '#core/bench/take-check'
import type { ChannelLevels } from '#core/measure/levels/measure-levels'
import { inForce, timingFields } from '#core/model'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The recording as a rehearsal of the selected strip: what its source is, and whether the take will clip. */
const props = defineProps<{ channel: ChannelLevels; number: number; name: string; practice: boolean }>()
const view = useViewStore()
const store = useSessionStore()
const edit = useStageEdit()
const { stages } = useStripStages()
const minutes = ref(store.session?.system.takeMinutes ?? 10)
const kept = ref<string | null>(null)

const source = computed(() => {
  const first = stages.value[0]
  return isSoundSource(first) || isElectricSource(first) ? first.gear : null
})
const end = computed(() => view.evaluated?.points.at(-1) ?? null)
const check = computed(() => {
  if (!source.value || end.value?.unit !== 'dBFS') return null
  return checkTake(props.channel, 60 * minutes.value, inForce<{ level: number }>(source.value), end.value)
})
/** The simulated interface plays the source as loud as it is in force. */
const truth = computed(() => (source.value ? inForce<{ level: number }>(source.value).level : null))
const unit = computed(() => (isSoundSource(source.value) ? 'dB SPL' : 'dBu'))
const chance = computed(() => (check.value && isChance(check.value.clipping) ? check.value.clipping : null))
const why = computed(() => (check.value && !isChance(check.value.clipping) ? check.value.clipping.message : null))
const perCent = (part: number) => (part < 0.0001 ? 'under 0.01' : formatDecimal(100 * part, part < 0.1 ? 2 : 0))
const range = ([low, high]: readonly [number, number]) =>
  perCent(low) === perCent(high) ? 'all of its interval' : `${perCent(low)} to ${perCent(high)} %`
const turn = (change: number) =>
  change < 0 ? `${formatDecimal(-change, 1)} dB down` : `up by ${formatDecimal(change, 1)} dB at most`
function keep() {
  const [gear, values] = [source.value, check.value]
  if (!gear || !values) return
  const method = `Take check of ${props.name}${props.practice ? ', for practice' : ''}`.slice(0, 200)
  const on = formatISO(new Date(), { representation: 'date' })
  kept.value =
    edit.session('Take check', (session) =>
      keepTake(session, { id: gear.id, kind: gear.kind as RehearsedKind }, values, method, on),
    ) ?? 'Kept as measured; the stated values stay beside them.'
}
</script>

<template>
  <div class="plate px-3 py-2" data-take>
    <h3>As a rehearsal of {{ view.strip?.name }}, channel {{ number }}</h3>
    <p v-if="!source" class="text-muted">
      This strip does not start with a source. Select one that does in the list of strips.
    </p>
    <p v-else-if="!check" class="text-muted">The strip does not reach the recorder, or the channel is silent.</p>
    <template v-else>
      <p>
        Recorded with the gains as they are set, its source is at
        <span class="figure">{{ formatDecimal(check.level, 1) }}</span> {{ unit }} with a crest of
        <span class="figure">{{ formatDecimal(check.crest, 1) }}</span> dB; the average is
        <span class="figure">{{ formatDecimal(check.snr, 1) }}</span> dB over the quietest second.<template
          v-if="practice"
        >
          The true level of the simulated source is
          <span class="figure" data-true>{{ formatDecimal(truth, 1) }}</span> {{ unit }}; keep it for practice
          only.</template
        >
      </p>
      <p class="mt-1">
        In a take of
        <NumberInput
          :value="minutes"
          :field="{ ...timingFields.takeMinutes, min: 0.1 }"
          name="Length of the take"
          :commit="
            (value) => {
              if (value !== undefined) minutes = value
              return null
            }
          "
        />
        <template v-if="chance">
          the chance of clipping is <strong class="figure" data-chance>{{ perCent(chance.chance) }} %</strong> ({{
            range(chance.between)
          }}).</template
        >
      </p>
      <p v-if="why" class="text-ceiling" data-no-chance>{{ why }}</p>
      <template v-if="chance">
        <p>
          With 1 % it passes <span class="figure">{{ formatDecimal(chance.seldomPassed, 1) }}</span> dBFS (<span
            class="figure"
            >{{ formatDecimal(chance.seldomBetween[0], 1) }}</span
          >
          to <span class="figure">{{ formatDecimal(chance.seldomBetween[1], 1) }}</span>), a surge of
          <span class="figure">{{ formatDecimal(check.surge, 1) }}</span> dB: for 1 % the gain may go
          <strong>{{ turn(chance.change) }}</strong>; to be on the safe side, {{ turn(chance.safeChange) }}.
        </p>
        <p class="text-xs text-muted">
          From the greatest peaks of {{ chance.blocks }} blocks of {{ formatDecimal(chance.blockSeconds, 1) }} s (Gumbel
          law); 95 % intervals. It holds for a take played like the rehearsal.
        </p>
      </template>
      <p v-if="channel.clippedRunCount > 0" class="mt-1.5 text-ceiling" data-not-kept>
        The rehearsal clips: its peaks are cut off, so level and crest factor are not kept. Turn the gain down and
        rehearse again.
      </p>
      <p v-else class="mt-1.5 flex items-baseline gap-3">
        <button type="button" class="push-main" @click="keep">Keep as measured</button
        ><span v-if="kept" role="status" class="text-muted">{{ kept }}</span>
      </p>
    </template>
  </div>
</template>
