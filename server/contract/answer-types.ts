import type { Gear } from '#core/gear'
import type { Diagnosis } from '#core/diagnosis/diagnose'
import type { Evaluation } from '#core/evaluation/evaluate-session'
import type { ExplanationFile } from '#core/explain/explain'
import type { Settings } from '#core/model'
import type { ChannelLevels, LevelsReport } from '#core/measure/levels/measure-levels'
import type { Loopback } from '#core/measure/loopback'
import type { Plan } from '#core/plan/plan-session'
import type { SoundcheckAnswer } from '#core/soundcheck/soundcheck'
import type { Timing } from '#core/timing/time-session'
import type { HowSure } from '#core/uncertainty/how-sure'
import type { RelaySetting } from '../relay/setting'
import type { Problem } from '../utils/problem'

/** Figures of a recording, without the drawing of its level over time. */
export interface Levels extends Omit<LevelsReport, 'channels'> {
  channels: Omit<ChannelLevels, 'overview'>[]
}
/** The lag between two channels, and what has to be said about it. */
export interface MeasuredLoopback extends Loopback {
  remarks: string[]
}
/** Delays of a session, and what to try against crackles and dropouts, what helps most first. */
export interface TimingAnswer extends Timing {
  remedies: string[]
}

/**
 * What is answered, by the name under which its schema is had. The schemas (answers.json, OpenAPI) are made from these types by
 * `npm run contract`: units from the brands of numbers, descriptions from the comments.
 */
export interface AnswerTypes {
  evaluation: Evaluation
  plan: Plan
  timing: TimingAnswer
  uncertainty: HowSure
  soundcheck: SoundcheckAnswer
  diagnosis: Diagnosis
  explanation: ExplanationFile
  levels: Levels
  loopback: MeasuredLoopback
  relay: RelaySetting
  problem: Problem
}

/**
 * What is told in the schema of the session file, and only named in those of the answers.
 * @public read by scripts/contract.mjs
 */
export interface OfTheFile {
  /** A device as in the gear of a session file. */
  device: Gear
  /** Settings of a stage as in a session file. */
  settings: Settings
}
