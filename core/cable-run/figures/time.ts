import { estimateRoundTrip, modelRoundTrip } from '../../latency/round-trip'
import { formatDecimal } from '../../units'
import type { CableFindings } from '../findings'
import type { Draft, SheetContext } from './draft'
import { DOUBTS } from './draft'

export function times(
  { roundTrips, sampleRate, doubts }: CableFindings,
  { bench, isThroughBrowser }: SheetContext,
): Draft[] {
  const doubt = doubts.includes('two-clocks') ? DOUBTS['two-clocks'] : null
  const { unit, session } = bench
  const [first, second] = roundTrips
  return [
    ...roundTrips.map((each, i) => ({
      id: `round-trip-${i + 1}`,
      group: 'Time' as const,
      name: isThroughBrowser ? 'Round trip through this browser' : `Round trip, ${each.bufferFrames} frames`,
      doubt,
      unit: 'ms',
      digits: 3,
      value: (1000 * each.value) / sampleRate,
      u: (1000 * each.u) / sampleRate,
      printed:
        unit.latency && !isThroughBrowser ? modelRoundTrip(unit, session.system, sampleRate, each.bufferFrames) : null,
      within: 0.05,
      more: 'later',
      less: 'sooner',
      says: isThroughBrowser
        ? 'The browser’s buffers are in it. Measure the host’s with “Round trip by loopback”.'
        : unit.latency
          ? undefined
          : `The session expected ${formatDecimal(estimateRoundTrip(unit, session.system, sampleRate, each.bufferFrames).milliseconds, 2)} ms.`,
      method: `Maximum-length sequence, 5 passes within ±${formatDecimal(each.spread, 2)} frames`,
    })),
    ...(first && second && first.bufferFrames !== second.bufferFrames
      ? [
          {
            id: 'buffers',
            group: 'Time' as const,
            doubt,
            name: 'Buffers held both ways',
            unit: 'buffers',
            digits: 2,
            value: (second.value - first.value) / (second.bufferFrames - first.bufferFrames),
            u: Math.hypot(first.u, second.u) / Math.abs(second.bufferFrames - first.bufferFrames),
            printed: unit.latency ? (unit.latency.buffersIn ?? 1) + (unit.latency.buffersOut ?? 1) : null,
            within: 0.05,
            method: 'From the round trips at two buffers',
          },
        ]
      : []),
  ]
}
