<script setup lang="ts">
import type { Bench, Procedure } from '#core/bench/procedure'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useProcedure } from './use-procedure'
import BenchChoice from './BenchChoice.vue'
import FilePick from '~/shared/recordings/FilePick.vue'
import MeasuringLine from '~/shared/recordings/MeasuringLine.vue'
import OutcomeSheet from './OutcomeSheet.vue'
import PlayRecord from './PlayRecord.vue'
import ProcedureGuide from './ProcedureGuide.vue'
import ReadingField from './ReadingField.vue'
import RowTable from './RowTable.vue'
import SimulatedNumber from './SimulatedNumber.vue'

/** One guided measurement: what to do on the left, what was recorded and what comes of it on the right. */
const props = defineProps<{ procedure: Procedure; bench: Bench }>()
const work = useProcedure(
  () => props.procedure,
  () => props.bench,
)
const { progress, trouble, name, known, missing, typed, rows, outcome, kept, played } = work
</script>

<template>
  <article :aria-labelledby="`${procedure.id}-title`" :data-procedure="procedure.id">
    <header class="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 border-b border-ink pb-1">
      <h2 :id="`${procedure.id}-title`" class="text-[15px]">{{ procedure.title }}</h2>
      <BenchChoice :bench="bench" :procedure="procedure" />
      <p class="basis-full text-muted">
        {{ procedure.purpose
        }}<span v-if="known" class="block text-ink" data-known
          >In the session: <strong class="figure">{{ known.words }}</strong>{{ known.on ? `, ${known.on}` : ''
          }}{{ known.method ? `; ${known.method}` : '' }}</span
        >
      </p>
    </header>
    <p v-if="missing" class="text-ceiling">{{ missing }}</p>
    <div v-else class="grid rail:grid-cols-[minmax(0,21rem)_minmax(0,1fr)] gap-x-8">
      <ProcedureGuide
        :guide="procedure.guide(bench, typed)"
        :signal="procedure.signal(bench, typed)"
        :sample-rate="bench.session.system.sampleRate"
      />
      <div class="min-w-0">
        <p class="flex flex-wrap gap-x-5 gap-y-1">
          <label v-for="(field, key) in procedure.settings" :key="key"
            >{{ field.label }}
            <NumberInput :value="typed[key]" :field="field" :commit="(value) => work.type(String(key), value)"
          /></label>
        </p>
        <template v-if="!procedure.question">
          <ReadingField :fields="procedure.each" @read="work.read" />
          <PlayRecord
            v-if="procedure.signal(bench, typed)"
            play-only
            :signal="procedure.signal(bench, typed)"
            :sample-rate="bench.session.system.sampleRate"
            :name="procedure.title"
          />
        </template>
        <template v-else>
          <div class="mt-2"><FilePick label="Choose recordings" several @files="work.takeFiles" /></div>
          <PlayRecord
            v-if="played === null"
            :signal="procedure.signal(bench, typed)"
            :sample-rate="bench.session.system.sampleRate"
            :name="procedure.title"
            @file="(file) => work.takeFiles([file])"
          />
          <p v-if="procedure.playedApart" class="mt-1 text-muted">
            If the recording does not contain what was played:
            <label class="action cursor-pointer"
              >{{ played ? played.name : 'choose the played file'
              }}<input
                type="file"
                accept=".wav,.wave,audio/wav"
                class="sr-only"
                aria-label="Played file"
                @change="played = ($event.target as HTMLInputElement).files?.[0] ?? null" /></label
            ><button v-if="played" type="button" class="action ml-2" @click="played = null">none</button>
          </p>
        </template>
        <p class="mt-1.5 flex flex-wrap items-baseline gap-3">
          <button type="button" class="push" @click="work.trySimulated">Try it on the simulated interface</button>
          <SimulatedNumber />
          <button v-if="rows.length > 0" type="button" class="action" @click="work.clear">Start over</button>
        </p>
        <MeasuringLine :name="name" :progress="progress" :trouble="trouble" @cancel="work.cancel" />
        <RowTable
          v-if="rows.length > 0"
          :procedure="procedure"
          :rows="rows"
          :change="work.typeRow"
          :remove="work.remove"
        />
        <OutcomeSheet
          v-if="rows.length > 0"
          :outcome="outcome"
          :kept="kept"
          :practice="rows.some((row) => row.simulated !== null)"
          @keep="work.keep"
        />
      </div>
    </div>
  </article>
</template>
