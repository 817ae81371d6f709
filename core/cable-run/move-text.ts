import { positionInWords } from '../chain/knob'
import { formatShort } from '../units'
import type { CableProblem, GainMark, Move } from './hand'

/** A move as a hand is told it, and what is special about it. */
export interface MoveText {
  title: string
  detail: string
}

/**
 * What a hand is to do.
 * @param input the one that was chosen
 * @param nameOf the name of an input channel, counted from 0
 */
export function moveText(move: Move, input: string, nameOf: (channel: number) => string): MoveText {
  switch (move.do) {
    case 'cable':
      return cableText(move.problem, input)
    case 'gain':
      return { title: `Turn the gain up ${gainText(move.to)}.`, detail: HINTS[move.hint ?? 'none'] }
    case 'plug':
      return {
        title: `Take the cable out of input ${nameOf(move.input)} and plug in 150 Ω.`,
        detail: move.isCableIn
          ? 'The tone is still heard there: the cable is plugged in. Then press Done.'
          : 'Leave the gain where it is. Then press Done.',
      }
    case 'buffer':
      return {
        title: `Set the buffer to ${move.frames} frames.`,
        detail: 'In the driver’s or host’s settings. Then press Done.',
      }
    case 'meter':
      return {
        title: 'Read the AC voltage of the tone.',
        detail: `130 Hz at ${formatShort(move.played)} dBFS plays without a pause. Leave the cable plugged in and measure between its two signal conductors: pins 2 and 3, or tip and sleeve.`,
      }
    case 'microphone':
      return {
        title: `Plug the microphone into input ${input} and sound ${formatShort(move.level)} dB SPL at it.`,
        detail:
          'Gain fully down. Put a calibrator on the capsule, or play a steady tone and read it on a level meter beside it. Switch 48 V on only if the microphone needs it.',
      }
  }
}

function cableText(problem: CableProblem | null, input: string): MoveText {
  switch (problem?.code) {
    case undefined:
      return {
        title: `Plug the cable from an output into input ${input}.`,
        detail: 'Switch 48 V off first and wait a few seconds. Then press Done.',
      }
    case 'none':
      return {
        title: 'No cable found.',
        detail: `Quiet tones were played at up to −12 dBFS from every output, and none came back. Plug the cable into input ${input}, check mutes and the output’s volume, then press Done.`,
      }
    case 'other-sound':
      return {
        title: `Input channel ${problem.input + 1} hears something else.`,
        detail: `What comes in there was not played here. Unplug or mute it, plug the cable into input ${input}, then press Done.`,
      }
    case 'loose':
      return {
        title: 'The cable makes poor contact.',
        detail: `From output ${problem.output + 1} to input ${problem.input + 1} the level jumps. Replace the cable or turn its plugs, then press Done.`,
      }
    case 'samples-lost':
      return {
        title: 'Samples are being lost.',
        detail: 'Raise the buffer in the driver’s settings and close other programs, then press Done.',
      }
    case 'wrong-input':
      return {
        title: `The cable is in input channel ${problem.input + 1}, not in channel ${problem.wanted + 1}.`,
        detail: `Move it to input ${input} and press Done. Leave it out to measure channel ${problem.input + 1} instead.`,
      }
  }
}

const gainText = (mark: GainMark): string =>
  'said' in mark
    ? `to ${formatShort(mark.said)} dB on its scale`
    : mark.position >= 17
      ? 'fully'
      : `to ${positionInWords(mark.position)}`

const HINTS = {
  'none': 'Nothing to press: the run hears when the gain was turned and stands still.',
  'turned-down': 'The gain is lower than before. Turn it up.',
  'cable-out': 'The tone is gone. Check the cable and mutes.',
} as const
