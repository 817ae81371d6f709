<script setup lang="ts">
import { computed } from 'vue'
import type { DiagnosisView } from '#core/diagnosis/view'
import type { Change } from '#core/edits'
import type { NumberField, SettingName, SettingValue } from '#core/model'
import { traitsOf } from '#core/gear'
import { settingFields } from '#core/model'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import { drawMini } from '~/shared/section/mini-section'
import { sectionModel } from '~/shared/section/section-model'

/** A chain’s section with its figures under it, stage by stage, and the settings that a hand can turn. */
const props = defineProps<{ view: DiagnosisView }>()
const emit = defineEmits<{ turn: [changes: Change[]] }>()

const [WIDTH, HEIGHT] = [600, 150]
const drawn = computed(() =>
  drawMini(
    sectionModel(props.view.evaluated.points, 'ceiling', props.view.evaluated.tightest?.stage ?? null, null),
    WIDTH,
    HEIGHT,
  ),
)
const SWITCHES = { phantom: '48 V', pad: 'Pad', lowCut: 'Low cut' } as const
type SwitchSetting = keyof typeof SWITCHES
const NUMBERS = ['gain', 'fader', 'distance', 'angle', 'cable'] as const
const UNIT = { dBSPL: 'dB SPL', dBu: 'dBu', dBFS: 'dBFS' } as const

const rows = computed(() =>
  props.view.stages.map((stage, i) => {
    const port = props.view.strip.stages[i]?.port
    const traits = traitsOf(stage.gear)
    const own = traits.settings(stage.gear, port)
    const point = props.view.points.find((each) => each.stage === stage.id)
    const numbers = NUMBERS.flatMap((setting) => {
      if (!own.includes(setting)) return []
      const range = setting === 'gain' || setting === 'fader' ? traits.gainRange(stage.gear, port, setting) : null
      if (range && range.gainMax <= range.gainMin) return []
      const field: NumberField = range
        ? { ...settingFields[setting], min: range.gainMin, max: range.gainMax }
        : settingFields[setting]
      const value = stage.settings[setting]
      if (value === undefined && (setting === 'angle' || setting === 'cable')) return []
      return [{ setting, field, value: value as number | undefined }]
    })
    const switches = (Object.keys(SWITCHES) as SwitchSetting[]).filter(
      (setting) => own.includes(setting) && traits.hasSwitch(stage.gear, port, setting),
    )
    return { stage, port, point, numbers, switches }
  }),
)
const turn = (stage: string, setting: SettingName, to: number | boolean | undefined) =>
  emit('turn', [{ strip: props.view.strip.id, stage, setting, to: to as SettingValue }])
const figure = (value: number | null | undefined) => formatDecimal(value, 1)
</script>

<template>
  <svg
    class="mt-2 h-36 w-full border-b border-ink"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    preserveAspectRatio="none"
    role="img"
    aria-label="Section of the chain; its figures are in the table"
  >
    <path :d="drawn.ceiling" fill="var(--ceiling-soft)" />
    <path :d="drawn.floor" fill="var(--floor-soft)" />
    <path :d="drawn.surge" fill="var(--lip)" />
    <path :d="drawn.body" fill="var(--body)" />
    <path :d="drawn.edge" fill="none" stroke="var(--ceiling)" vector-effect="non-scaling-stroke" />
  </svg>
  <div class="overflow-x-auto" tabindex="0" aria-label="Figures and settings">
    <table class="mt-1 w-full text-right" data-chain-table>
      <thead class="text-xs text-muted">
        <tr>
          <th scope="col" class="pr-3 text-left font-normal">Stage</th>
          <th scope="col" class="pr-3 font-normal">Average</th>
          <th scope="col" class="pr-3 font-normal">Peak</th>
          <th scope="col" class="pr-3 font-normal">Headroom</th>
          <th scope="col" class="pr-3 font-normal">Noise (A)</th>
          <th scope="col" class="text-left font-normal">Set to</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="{ stage, port, point, numbers, switches } in rows"
          :key="stage.id"
          class="border-t border-line align-baseline"
        >
          <th scope="row" class="py-1 pr-3 text-left font-normal">
            {{ port ? `${stage.gear.name}, ${port}` : stage.gear.name }}
          </th>
          <td class="figure py-1 pr-3 whitespace-nowrap">{{ figure(point?.average) }}</td>
          <td class="figure py-1 pr-3 whitespace-nowrap">
            {{ figure(point?.peak) }} <span class="text-muted">{{ point ? UNIT[point.unit] : '' }}</span>
          </td>
          <td
            class="figure py-1 pr-3 whitespace-nowrap"
            :class="{ 'font-bold text-ceiling': (point?.headroom ?? 1) < 0 }"
          >
            {{ figure(point?.headroom) }}
          </td>
          <td class="figure py-1 pr-3 whitespace-nowrap">{{ figure(point?.noise) }}</td>
          <td class="py-1 text-left">
            <span class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
              <span v-for="{ setting, field, value } in numbers" :key="setting" class="whitespace-nowrap"
                ><span class="text-muted">{{ field.label.toLowerCase() }}</span>
                <NumberInput
                  :value="value"
                  :field="field"
                  :name="`${field.label} of ${stage.gear.name}, ${field.unit}`"
                  :commit="
                    (to) => {
                      if (to !== undefined) turn(stage.id, setting, to)
                      return null
                    }
                  "
              /></span>
              <SwitchChip
                v-for="setting in switches"
                :key="setting"
                :on="stage.settings[setting] === true"
                :label="SWITCHES[setting]"
                @change="(on: boolean) => turn(stage.id, setting, on)"
              />
            </span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
