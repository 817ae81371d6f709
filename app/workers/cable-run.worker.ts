import type { CableFindings } from '#core/cable-run/findings'
import type { Wanted } from '#core/cable-run/moves'
import type { Answer, Hand, Move } from '#core/cable-run/hand'
import { runCable } from '#core/cable-run/run'
import { NoCable } from '#core/cable-run/search'
import type { SimulatedHandTruth } from '#core/cable-run/simulated-hand'
import { moveAt } from '#core/cable-run/simulated-hand'
import type { Subject } from '#core/cable-run/subject'
import { trueFigures } from '#core/cable-run/truth'
import type { SimulatedCable, SimulatedRig } from '#core/simulated/rig'
import { simulatedRig } from '#core/simulated/rig'
import type { SimulatedInterface } from '#core/simulated/simulated-interface'
import { gainSaid } from '#core/simulated/simulated-interface'
import type { Rig, RigMessage, RigTask } from '#core/signals/rig'

/** What a run is made on. */
export type RunOn =
  | { live: { sampleRate: number; outputs: number; inputs: number; port: MessagePort } }
  | { simulated: { unit: SimulatedInterface; sampleRate: number; cables: SimulatedCable[]; meterAccuracy: number } }

export type CableTask =
  | { begin: { on: RunOn; subject: Subject; wanted: Wanted } }
  | { answer: Answer }
  /** At the simulated interface: the move that is asked for is made. */
  | { makeMove: true }

export type CableMessage =
  | { progress: { doing: string; part: number } }
  | { ask: Move }
  /** What was asked for was heard, or answered. */
  | { answered: true }
  | { found: CableFindings; truth: Record<string, number> | null }
  | { ended: 'no-cable' }
  | { failed: string }

/** While a hand is waited for, a simulated interface rests so long between two looks, ms. */
const RESTS = 120
/** The calibrator of the simulated microphone: dBu at the terminals. */
const CALIBRATOR = -40

const post = (message: CableMessage) => postMessage(message)

let answer: Answer | null = null
let asked: Move | null = null
let simulated: { rig: SimulatedRig; hand: SimulatedHandTruth; gains: number[] } | null = null

const hand: Hand = {
  progress: (doing, part) => post({ progress: { doing, part } }),
  ask: (move) => {
    answer = null
    asked = move
    post({ ask: move })
    return () => answer
  },
  settled: () => {
    asked = null
    post({ answered: true })
  },
}

/** The interface on the desk, through its port: the audio thread answers each take. */
function liveRig({ sampleRate, outputs, inputs, port }: Extract<RunOn, { live: unknown }>['live']): Rig {
  return {
    sampleRate,
    outputs,
    inputs,
    take: (played, frames, goesOn) =>
      new Promise((resolve) => {
        port.onmessage = ({ data }: MessageEvent<RigMessage>) =>
          resolve(data.recorded.map((samples) => Float64Array.from(samples)))
        const task: RigTask = {
          played: Array.from({ length: outputs }, (_, i) => (played[i] ? Float32Array.from(played[i]) : null)),
          frames,
          goesOn,
        }
        port.postMessage(task)
      }),
  }
}

const rest = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds))

/** A simulated rig that lets messages in between its takes, and rests while a hand is waited for. */
const restingRig = (rig: SimulatedRig): Rig => ({
  sampleRate: rig.sampleRate,
  outputs: rig.outputs,
  inputs: rig.inputs,
  take: async (played, frames) => {
    await rest(asked ? RESTS : 0)
    return rig.take(played, frames)
  },
})

function rigOf(on: RunOn, { gainMax, bufferFrames }: Subject): Rig {
  if ('live' in on) return liveRig(on.live)
  const { unit, sampleRate, cables, meterAccuracy } = on.simulated
  const rig = simulatedRig(unit, sampleRate, bufferFrames)
  rig.truth.cables = cables
  simulated = {
    rig,
    gains: [],
    hand: {
      gainSaid: (said) => gainSaid(unit, said, gainMax),
      meterAccuracy,
      calibrator: { level: CALIBRATOR, off: 0 },
    },
  }
  return restingRig(rig)
}

async function begin({ on, subject, wanted }: Extract<CableTask, { begin: unknown }>['begin']) {
  try {
    const found = await runCable(rigOf(on, subject), subject, wanted, hand)
    const truth = simulated && trueFigures(simulated.rig, found, { gains: simulated.gains, calibrator: CALIBRATOR })
    post({ found, truth })
  } catch (error) {
    post(
      error instanceof NoCable
        ? { ended: 'no-cable' }
        : { failed: error instanceof Error ? error.message : 'unknown reason' },
    )
  }
}

self.onmessage = ({ data }: MessageEvent<CableTask>) => {
  if ('begin' in data) void begin(data.begin)
  else if ('answer' in data) answer = data.answer
  else if (simulated && asked) {
    const { rig, gains } = simulated
    const made = moveAt(rig, asked, simulated.hand)
    if (asked.do === 'gain' && asked.hint === null) gains.push(rig.gain)
    answer = made ?? answer
  }
}
