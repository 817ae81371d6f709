import type { Answer, Hand, Move } from './hand'
import type { SimulatedRig } from '../simulated/rig'
import { seeded } from '../numeric/random'
import { filteredAt } from '../simulated/rig'
import { loadedBy } from '../simulated/truth'

/** What a hand at a simulated interface finds there. */
export interface SimulatedHandTruth {
  /** The rig’s gain for a scale that says so many dB: the unit’s whole range is a little off. */
  gainSaid: (said: number) => number
  /** ± of its multimeter, %. */
  meterAccuracy: number
  /** Level that the calibrator is taken to give at the microphone’s terminals, dBu, and what it is off, dB. */
  calibrator: { level: number; off: number }
}

/** Makes a move at a simulated interface as a hand would. @returns what it answers; `null` where the run hears it by itself */
export function moveAt(
  rig: SimulatedRig,
  move: Move,
  { gainSaid, meterAccuracy, calibrator }: SimulatedHandTruth,
): Answer | null {
  switch (move.do) {
    case 'cable':
      rig.plugged = { socket: 'cables' }
      if (move.problem?.code === 'samples-lost') rig.truth.unit.dropoutEvery = 0
      else if (move.problem) rig.truth.cables = [{ output: 0, input: 0, state: 'good' }]
      return { done: true }
    case 'gain':
      if ('position' in move.to) rig.turnTo(move.to.position)
      else rig.gain = gainSaid(move.to.said)
      return null
    case 'plug':
      rig.plugged = { socket: 'plug', input: move.input, ohms: 150 }
      return { done: true }
    case 'buffer':
      rig.truth.bufferFrames = move.frames
      return { done: true }
    case 'meter':
      return { done: true, value: voltsAt(rig, move.played, meterAccuracy) }
    case 'microphone':
      rig.plugged = { socket: 'calibrator', level: calibrator.level + calibrator.off, ohms: 150 }
      return { done: true }
  }
}

/** What a multimeter shows at the input’s socket while a tone plays, V, to four figures and within what it may be off. */
function voltsAt({ truth, sampleRate }: SimulatedRig, played: number, accuracy: number): number {
  const { unit } = truth
  const next = seeded(unit.seed * 193 + 5)
  next()
  const cable = truth.cables.find(({ input }) => input === 0) ?? truth.cables[0]
  const lost = cable?.state === 'one-leg' ? ONE_LEG : 0
  const level =
    unit.output.fullScale +
    (cable?.output ?? 0) * truth.outputImbalance +
    loadedBy(unit, unit.output.impedance) +
    filteredAt(truth, sampleRate, METER_TONE) +
    played -
    lost
  const volts = Math.sqrt(0.6) * 10 ** (level / 20) * (1 + (accuracy / 100) * (2 * next() - 1))
  return Number(volts.toPrecision(4))
}

/** Hz. */
const METER_TONE = 130
/** What one leg alone carries less, dB. */
const ONE_LEG = 20 * Math.log10(2)

/** A hand that makes every move at once, and leaves those out that it is told to. */
export function simulatedHand(
  rig: SimulatedRig,
  truth: SimulatedHandTruth,
  progress: Hand['progress'] = () => undefined,
  leavesOut: (move: Move) => boolean = () => false,
): Hand & { moves: Move[]; gains: number[] } {
  const hand = {
    moves: [] as Move[],
    /** Truly given at each gain that was asked for. */
    gains: [] as number[],
    progress,
    settled: () => undefined,
    ask: (move: Move) => {
      hand.moves.push(move)
      const answer: Answer | null = leavesOut(move) ? { done: false } : moveAt(rig, move, truth)
      // A hint asks for the same mark again.
      if (move.do === 'gain' && move.hint === null && answer === null) hand.gains.push(rig.gain)
      return () => answer
    },
  }
  return hand
}
