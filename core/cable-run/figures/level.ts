import type { Bench } from '../../bench/procedure'
import { loadingGain } from '../../gear/loading'
import { inForce } from '../../model'
import { formatShort, ohms, volts, voltsToDbu } from '../../units'
import type { CableFindings, Value } from '../findings'
import type { Draft, SheetContext } from './draft'

/** What the socket has while 0 dBFS plays, dBu: from the multimeter; `null` without its reading. */
function socketLevel({ meter, response }: CableFindings, { meterAccuracy }: SheetContext): Value | null {
  if (!meter) return null
  const low = response.find(({ frequency }) => frequency === 127)?.level ?? 0
  return {
    value: voltsToDbu(volts(meter.volts)) - meter.played,
    // The tone for the meter lies lower than the one of the loop, and the way's response between is partly the input's.
    u: Math.hypot((20 * Math.log10(1 + meterAccuracy / 100)) / Math.sqrt(3), low / Math.sqrt(3)),
  }
}

/** The level that reads 0 dBFS at the lowest gain, dBu; `null` where the multimeter did not say. */
export function inputFullScale(found: CableFindings, context: SheetContext): Value | null {
  const socket = socketLevel(found, context)
  return socket && { value: socket.value - found.loopGain.value, u: Math.hypot(socket.u, found.loopGain.u) }
}

/** What the output loses into the input, as a gain, dB; 0 where an impedance is not known. */
function loading({ input, output }: Bench): number {
  const source = output ? inForce(output).impedance : undefined
  return loadingGain(source === undefined ? undefined : ohms(source), inForce(input).impedance)
}

/** A loop that is quieter than its data sheet by more than this is fed by one leg of a balanced pair, or not fully up, dB. */
const TOO_QUIET = 4

export const QUIET =
  'The loop is much quieter than the data sheet says: one leg of a balanced cable carries nothing, or an output’s volume is down.'

/** What the loop lacks against the data sheet, where that is more than units differ by, dB. */
export function isTooQuiet({ loopGain }: CableFindings, bench: Bench): boolean {
  const { input, output } = bench
  return output !== null && output.specs.fullScale + loading(bench) - input.specs.fullScale - loopGain.value > TOO_QUIET
}

export function levels(found: CableFindings, context: SheetContext): Draft[] {
  const { bench } = context
  const { input, output } = bench
  const socket = socketLevel(found, context)
  const fullScale = inputFullScale(found, context)
  return [
    {
      id: 'loop-gain',
      group: 'Level',
      name: 'Loop gain, gain fully down',
      unit: 'dB',
      digits: 2,
      ...found.loopGain,
      printed: output ? output.specs.fullScale + loading(bench) - input.specs.fullScale : null,
      more: 'hotter',
      less: 'quieter',
      doubt: isTooQuiet(found, bench) ? QUIET : null,
      method: '970 Hz through the cable at −18 dBFS in the recording; it is what 0 dBFS out would read',
    },
    {
      id: 'linearity',
      group: 'Level',
      name: 'Largest deviation from −6 to −60 dBFS',
      unit: 'dB',
      digits: 3,
      value: found.linearity.value,
      u: found.linearity.u,
      printed: null,
      says:
        found.linearity.value < 0.05
          ? 'Linear.'
          : 'A level that changes does not come back as the same change: look for a limiter, an automatic gain or a driver that processes.',
      method: '970 Hz in ten steps of 6 dB',
    },
    ...(socket && output
      ? [
          {
            id: 'output-full-scale',
            group: 'Level' as const,
            name: 'Maximum output level',
            unit: 'dBu',
            digits: 2,
            value: socket.value - loading(bench),
            u: socket.u,
            printed: output.specs.fullScale,
            more: 'hotter',
            less: 'quieter',
            doubt: isTooQuiet(found, bench) ? QUIET : null,
            method: `Multimeter ±${formatShort(context.meterAccuracy)} %, 130 Hz, cable plugged in`,
          },
        ]
      : []),
    ...(fullScale
      ? [
          {
            id: 'input-full-scale',
            group: 'Level' as const,
            name: 'Maximum input level, gain fully down',
            unit: 'dBu',
            digits: 2,
            ...fullScale,
            printed: input.specs.fullScale,
            more: 'less sensitive',
            less: 'more sensitive',
            method: `Multimeter ±${formatShort(context.meterAccuracy)} % and the loop gain`,
          },
        ]
      : []),
    ...(found.microphone
      ? [
          {
            id: 'microphone-full-scale',
            group: 'Level' as const,
            name: 'Sound that reads 0 dBFS, gain fully down',
            unit: 'dB SPL',
            digits: 1,
            value: found.microphone.level - found.microphone.value,
            u: found.microphone.u,
            printed: null,
            method: `Microphone before ${formatShort(found.microphone.level)} dB SPL, ±${formatShort(found.microphone.give)} dB`,
          },
        ]
      : []),
  ]
}
