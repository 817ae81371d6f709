import type { Bench } from '#core/bench/procedure'
import type { CableFindings } from '#core/cable-run/findings'
import type { Move } from '#core/cable-run/hand'
import type { Wanted } from '#core/cable-run/moves'
import { runCable } from '#core/cable-run/run'
import { sheetOf } from '#core/cable-run/sheet'
import { simulatedHand } from '#core/cable-run/simulated-hand'
import type { Subject } from '#core/cable-run/subject'
import { trueFigures } from '#core/cable-run/truth'
import type { MeasuredSheet } from '#core/files'
import { inForce } from '#core/model'
import type { SimulatedCable } from '#core/simulated/rig'
import { simulatedRig } from '#core/simulated/rig'
import type { SimulatedInterface } from '#core/simulated/simulated-interface'
import { gainSaid, simulatedFor } from '#core/simulated/simulated-interface'
import { demoSession } from '../../demo'
import { benchFor } from './bench'

export const cableBench: Bench = benchFor(demoSession())

/** All that can be asked for. */
export const ALL: Wanted = { marks: 5, plug: true, otherBuffer: 256, meter: true, microphone: { level: 94, give: 0.5 } }
/** What a cable tells by itself. */
export const ALONE: Wanted = { marks: 1, plug: false, otherBuffer: null, meter: false, microphone: null }

interface Trial {
  seed: number
  wanted?: Wanted
  cables?: SimulatedCable[]
  /** What of the interface is other than its seed makes it. */
  unit?: Partial<SimulatedInterface>
  /** A knob in place of a scale. */
  hasKnob?: boolean
  leavesOut?: (move: Move) => boolean
  /** The hand says that the plug is in, and has left the cable where it is, the first time. */
  forgetsPlug?: boolean
}

export interface CableTrial {
  found: CableFindings
  sheet: MeasuredSheet
  moves: Move[]
}

const good: SimulatedCable[] = [{ output: 0, input: 0, state: 'good' }]
const CALIBRATOR = -40

/** A run on a simulated interface, as a hand would make it that does what it is told. */
export async function cableTrial({
  seed,
  wanted = ALL,
  cables = good,
  unit: other = {},
  hasKnob = false,
  leavesOut,
  forgetsPlug = false,
}: Trial): Promise<CableTrial> {
  const { input, output, unit: maker, session } = cableBench
  const unit = { ...simulatedFor(maker, input, output, session.system, seed), ...other }
  const rig = simulatedRig(unit, 48_000, 128)
  rig.truth.cables = structuredClone(cables)
  const { gainMin, gainMax, gainStep } = inForce({ specs: input.specs })
  const subject: Subject = { input: 0, gainMin, gainMax, gainStep: hasKnob ? 0 : gainStep, bufferFrames: 128 }
  const hand = simulatedHand(
    rig,
    {
      gainSaid: (said) => gainSaid(unit, said, gainMax),
      meterAccuracy: 1,
      calibrator: { level: CALIBRATOR, off: 0.5 * Math.sin(seed) },
    },
    () => undefined,
    leavesOut,
  )
  const asked = hand.ask
  const forgetful = (move: Move) => {
    if (!forgetsPlug || move.do !== 'plug' || move.isCableIn) return asked(move)
    hand.moves.push(move)
    return () => ({ done: true }) as const
  }
  const found = await runCable(rig, subject, wanted, { ...hand, ask: forgetful })
  const truth = trueFigures(rig, found, { gains: hand.gains, calibrator: CALIBRATOR })
  const bench = { ...cableBench, input: { ...input, measured: undefined } }
  const sheet = sheetOf(found, { bench, on: '2026-12-01', meterAccuracy: 1, isThroughBrowser: false, truth })
  return { found, sheet, moves: hand.moves }
}

/** Figures of a sheet that are further from the truth than their ±, and are not marked. */
export const wrongFigures = (sheet: MeasuredSheet) =>
  sheet.figures.filter(
    ({ value, truth, u, doubt }) => truth !== null && doubt === null && Math.abs(value - truth) > 2 * u,
  )
export const judgedFigures = (sheet: MeasuredSheet) =>
  sheet.figures.filter(({ truth, doubt }) => truth !== null && doubt === null)

export const figureOf = (sheet: MeasuredSheet, id: string) => sheet.figures.find((each) => each.id === id)
