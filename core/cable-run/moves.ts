/** What is to be measured besides what the cable tells by itself. */
export interface Wanted {
  /** Gain marks, the lowest among them: 1 to 10. */
  marks: number
  /** A plug of 150 Ω is at hand. */
  plug: boolean
  /** The round trip at another buffer too, frames; `null` for the one that is set alone. */
  otherBuffer: number | null
  /** The voltage of the tone can be read. */
  meter: boolean
  /** A microphone and a level that is known, dB SPL, and how well, ± dB; `null` for none. */
  microphone: { level: number; give: number } | null
}

/** A part of the run that a hand has to make ready for. */
export type Part = 'microphone' | 'loop' | 'meter' | 'other-buffer' | 'marks' | 'plug'

/** How the interface has to stand for a part: what is in the input, and how the gain stands. */
const NEEDS: Record<Part, { socket: 'microphone' | 'cable' | 'plug'; gain: 'lowest' | 'rising' | 'highest' }> = {
  'microphone': { socket: 'microphone', gain: 'lowest' },
  'loop': { socket: 'cable', gain: 'lowest' },
  'meter': { socket: 'cable', gain: 'lowest' },
  'other-buffer': { socket: 'cable', gain: 'lowest' },
  'marks': { socket: 'cable', gain: 'rising' },
  'plug': { socket: 'plug', gain: 'highest' },
}

/** Sockets to plug and gains to turn between parts in an order; what stands there at the beginning is plugged in any case. */
export function movesBetween(order: readonly Part[]): number {
  return order.slice(1).reduce((moves, part, i) => {
    const [before, next] = [NEEDS[order[i] as Part], NEEDS[part]]
    const left = before.gain === 'rising' ? 'highest' : before.gain
    const wanted = next.gain === 'rising' ? 'lowest' : next.gain
    return moves + Number(before.socket !== next.socket) + Number(left !== wanted)
  }, 0)
}

/**
 * The parts in the order with the fewest moves: the microphone before the cable, since something has to be plugged at the beginning
 * anyway; all that needs the lowest gain before it is turned; the plug last, where the gain stands at the top already. A plug asks for
 * the highest gain, and that is found with the cable.
 */
export function partsInOrder({ marks, plug, otherBuffer, meter, microphone }: Wanted): Part[] {
  return [
    ...(microphone ? (['microphone'] as const) : []),
    'loop',
    ...(meter ? (['meter'] as const) : []),
    ...(otherBuffer === null ? [] : (['other-buffer'] as const)),
    ...(marks > 1 || plug ? (['marks'] as const) : []),
    ...(plug ? (['plug'] as const) : []),
  ]
}
