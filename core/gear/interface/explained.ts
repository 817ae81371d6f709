import type { ExplainedTraits } from '../explained-traits'
import { figure, gainSetting } from '../explained-traits'
import type { ResolvedDigitalInput, ResolvedInput, ResolvedOutput } from './stage'

export const interfaceInputExplained: ExplainedTraits<ResolvedInput> = {
  gain: ({ specs: { fullScale, gainMin, pad }, gain, pad: isIn }) => ({
    formula: 'planner-0-dbfs-as-set',
    parts: [
      gainSetting(gain, 'Gain', gain - gainMin),
      figure('fullScale', 'Its maximum input level is 0 dBFS', fullScale, 'dBu', -fullScale),
      ...(isIn ? [figure('pad', 'Pad', pad, 'dB', -pad)] : []),
    ],
    remarks: gainMin === 0 ? [] : [`The gain counts from its lowest, ${gainMin} dB.`],
  }),
}

export const digitalInputExplained: ExplainedTraits<ResolvedDigitalInput> = {
  gain: () => ({ formula: 'stages-digital-link-digital-input', parts: [] }),
}

export const interfaceOutputExplained: ExplainedTraits<ResolvedOutput> = {
  gain: ({ specs: { fullScale } }) => ({
    formula: 'recordings-full-scale',
    parts: [figure('fullScale', '0 dBFS gives', fullScale, 'dBu', fullScale)],
  }),
  ceiling: ({ specs: { fullScale } }) => ({
    formula: 'recordings-full-scale',
    parts: [figure('fullScale', 'Maximum output level', fullScale, 'dBu', null)],
    remarks: ['Clips at 0 dBFS, which comes out at this level.'],
  }),
}
