import type { SessionQuestion } from '../worker/answer'

/** Where a session is answered: on the server's own thread, or in a thread for short or for long work. */
export type Place = 'here' | 'short' | 'long'

/** The longest that the server's own thread may be held, and that short work may take, ms. */
const HERE = 20
const SHORT = 300

/**
 * What one stage of a session costs, and what every session does, ms on a slow core: reading it and answering. Planning tries the gains
 * of each strip, uncertainty moves every input.
 */
const COST: Record<SessionQuestion, { once: number; stage: number }> = {
  evaluate: { once: 1, stage: 0.4 },
  explain: { once: 2, stage: 0.5 },
  timing: { once: 10, stage: 0.5 },
  plan: { once: 5, stage: 6 },
  diagnose: { once: 40, stage: 6 },
  soundcheck: { once: 40, stage: 6 },
  uncertainty: { once: 400, stage: 30 },
}

/** What a character of a body costs before anything is known of it: reading its JSON, ms. */
const CHARACTER = 2e-5

/**
 * Estimates how long a body takes to answer, without reading it: each stage, and each list or object that a faulty body has in its
 * place, opens a brace.
 */
export function placeOf(question: SessionQuestion, text: string): Place {
  const { once, stage } = COST[question]
  const braces = text.split('{').length - 1
  // A stage opens two, for itself and its settings; with its box and that box's inputs it is about three.
  const cost = once + CHARACTER * text.length + (stage * braces) / 3
  return cost <= HERE ? 'here' : cost <= SHORT ? 'short' : 'long'
}
