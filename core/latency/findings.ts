import type { Finding } from '../checks/finding'
import { formatShort } from '../units'
import type { Route, RouteInputs } from './routes'

const kHz = (rate: number) => `${formatShort(rate / 1000)} kHz`

/** What is wrong with the clock, the buffer and the route, said at the interface's stage. */
export function timingFindings(
  stage: string,
  { unit, system, monitor }: RouteInputs,
  all: readonly Route[],
): Finding[] {
  const found: Finding[] = []
  if (unit.sampleRates && !unit.sampleRates.includes(system.sampleRate)) {
    found.push({
      code: 'rate-not-offered',
      severity: 'stop',
      stage,
      message: `“${unit.name}” does not offer ${kHz(system.sampleRate)}.`,
      action: `Choose one of its rates: ${unit.sampleRates.map(kHz).join(', ')}; the same in every device and program.`,
    })
  }
  if (unit.bufferSizes && !unit.bufferSizes.includes(system.bufferFrames)) {
    found.push({
      code: 'buffer-not-offered',
      severity: 'caution',
      stage,
      message: `The driver of “${unit.name}” does not offer a buffer of ${system.bufferFrames} frames.`,
      action: `Choose one of its sizes: ${unit.bufferSizes.join(', ')}.`,
    })
  }
  if (all.some(({ route, atLeast }) => route === 'software' && atLeast)) {
    found.push({
      code: 'latency-unprinted',
      severity: 'note',
      stage,
      message: `Nothing is known about the converters and the driver of “${unit.name}”: the times shown are its buffers alone; the true delay is longer.`,
      action: 'Enter its latency figures, or measure the round trip with a loopback cable.',
    })
  }
  if (monitor.route === 'direct' && unit.direct === 'none') {
    found.push({
      code: 'no-direct-route',
      severity: 'stop',
      stage,
      message: `The performer is set to direct monitoring, but “${unit.name}” has none.`,
      action: 'Monitor through the host, or split the signal before the interface.',
    })
  }
  return found
}
