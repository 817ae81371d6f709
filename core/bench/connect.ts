import type { Connection } from '../simulated/record'

const SILENT: Connection = { from: 'host', signal: { kind: 'silence', seconds: 1 } }

/**
 * The channels of a simulated interface's recording: each connection on the one that was typed, counted from 1, and silence on
 * those between.
 */
export const onChannels = (
  ...placed: readonly { channel: number | undefined; connection: Connection }[]
): Connection[] =>
  Array.from(
    { length: Math.max(...placed.map(({ channel }) => channel ?? 1)) },
    (_, i) => placed.find(({ channel }) => (channel ?? 1) === i + 1)?.connection ?? SILENT,
  )
