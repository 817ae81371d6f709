import type { ResolvedDigitalInput, ResolvedInput } from '#core/gear'
import { computed } from 'vue'
import { analogueInput } from '#core/gear'
import { useViewStore } from '~/stores/view'
import { useStageEdit } from '~/composables/use-stage-edit'

/** Choosing another input of the same unit: gain, 48 V and pad are taken along as far as the new one has them. */
export function usePortChange(stage: () => ResolvedInput | ResolvedDigitalInput) {
  const edit = useStageEdit()
  const view = useViewStore()
  const ports = computed(() => stage().gear.inputs.map(({ id, type }) => ({ value: id, text: `${id}, ${type}` })))

  function setPort(port: string) {
    const { id, gear, settings } = stage()
    const strip = view.strip?.id ?? ''
    const next = analogueInput(gear, port)
    const wanted = { gain: settings.gain ?? 0, phantom: settings.phantom ?? false, pad: settings.pad ?? false }
    return edit.changes('Input', [
      { do: 'port', strip, stage: id, port },
      ...(next
        ? [
            {
              strip,
              stage: id,
              setting: 'gain' as const,
              to: Math.min(next.specs.gainMax, Math.max(next.specs.gainMin, wanted.gain)),
            },
            { strip, stage: id, setting: 'phantom' as const, to: wanted.phantom && next.phantom },
            { strip, stage: id, setting: 'pad' as const, to: wanted.pad && next.specs.pad > 0 },
          ]
        : []),
    ])
  }
  return { ports, setPort }
}
