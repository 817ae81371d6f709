import { formatDecimal, formatShort } from '../../units'
import type { CableFindings } from '../findings'
import type { Draft, SheetContext } from './draft'

/** Response figures rest on whole periods; what is left between two meters (common practice, no source), dB. */
const RESPONSE_U = 0.02

export function distortion({ dynamicRange, distortion: tones }: CableFindings, { bench }: SheetContext): Draft[] {
  return [
    ...(dynamicRange
      ? [
          {
            id: 'dynamic-range',
            group: 'Distortion' as const,
            name: 'Dynamic range, output and input together',
            unit: 'dB(A)',
            digits: 1,
            ...dynamicRange,
            printed: bench.input.specs.dynamicRange,
            within: 0.5,
            better: 'higher' as const,
            more: 'more',
            less: 'less',
            method: '997 Hz at −60 dBFS taken out of the recording (AES17)',
          },
        ]
      : []),
    ...tones.map(({ read, value, u, second, third }, i) => ({
      id: `thd-n-${i + 1}`,
      group: 'Distortion' as const,
      name: `THD+N at ${formatDecimal(read, 1)} dBFS`,
      unit: 'dB',
      digits: 1,
      value,
      u,
      printed: null,
      says: [
        `${(100 * 10 ** (value / 20)).toPrecision(2)} % of the tone`,
        ...(second === null ? [] : [`second harmonic ${formatDecimal(second, 1)} dB`]),
        ...(third === null ? [] : [`third harmonic ${formatDecimal(third, 1)} dB`]),
      ].join(', '),
      method: '997 Hz taken out of the recording, 20 Hz to 20 kHz',
    })),
  ]
}

export function response({ response: points }: CableFindings): Draft[] {
  const at = (id: string, name: string, frequency: number): Draft[] => {
    const point = points.find((each) => each.frequency === frequency)
    return point
      ? [
          {
            id,
            group: 'Response',
            name,
            unit: 'dB',
            digits: 2,
            value: point.level,
            u: RESPONSE_U,
            printed: null,
            says: 'Against 1 kHz; output and input together.',
            method: '31 tones at once, a third of an octave apart',
          },
        ]
      : []
  }
  return [...at('response-low', 'Response at 20 Hz', 20), ...at('response-high', 'Response at 20 kHz', 19_997)]
}

export function channels({ second, cable, balance, crosstalk }: CableFindings): Draft[] {
  if (!second) return []
  return [
    ...(balance
      ? [
          {
            id: 'balance',
            group: 'Channels' as const,
            name: `Channel ${second.input + 1} over channel ${cable.input + 1}`,
            unit: 'dB',
            digits: 2,
            ...balance,
            printed: null,
            says: 'Outputs and inputs together: exchange the two cables at one end to tell them apart.',
            method: '970 Hz over each cable in turn',
          },
        ]
      : []),
    ...crosstalk.map(({ frequency, value, u, isFloor }, i) => ({
      id: `crosstalk-${i + 1}`,
      group: 'Channels' as const,
      name: `Crosstalk at ${formatShort(Math.round(frequency / 1000))} kHz`,
      unit: 'dB',
      digits: 1,
      value,
      u: Math.hypot(u, 0.05),
      printed: null,
      doubt: isFloor ? 'Only noise is seen there: the crosstalk is lower than this.' : null,
      says: isFloor
        ? 'At most this.'
        : `Channel ${second.input + 1} under channel ${cable.input + 1}, which is driven.`,
      method: 'Tone over the first cable, read at the second input',
    })),
  ]
}
