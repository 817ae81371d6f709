import type { AnswerTypes } from './answer-types'
import type { asked } from './asked'

export interface Endpoint {
  readonly method: 'get' | 'post'
  readonly summary: string
  /** What the body holds; a `get` has none. */
  readonly takes?: 'session' | 'recording' | keyof typeof asked
  readonly query?: Readonly<Record<string, string>>
  /** What comes back: one of the answers, or a JSON document of another kind. */
  readonly gives: keyof AnswerTypes | 'schema' | 'openapi'
}

/** Everything that is answered under /api. */
export const endpoints = {
  '/api/evaluate': {
    method: 'post',
    summary: 'Every level, headroom, noise, delay and finding of a session as it is set',
    takes: 'session',
    gives: 'evaluation',
  },
  '/api/plan': {
    method: 'post',
    summary: 'Gains that bring every strip to its target, and why',
    takes: 'session',
    gives: 'plan',
  },
  '/api/timing': {
    method: 'post',
    summary: 'Round trips by rate and buffer, load, recommendations and remedies',
    takes: 'session',
    gives: 'timing',
  },
  '/api/uncertainty': {
    method: 'post',
    summary: 'How sure every figure is, and what to measure next',
    takes: 'session',
    query: { draws: '0 for the straight line alone: curved figures are not drawn. Left out, or 1: they are.' },
    gives: 'uncertainty',
  },
  '/api/soundcheck': {
    method: 'post',
    summary: 'The run sheet, and what the readings say',
    takes: 'session',
    gives: 'soundcheck',
  },
  '/api/explain': { method: 'post', summary: 'What one figure is made of', takes: 'explain', gives: 'explanation' },
  '/api/diagnose': {
    method: 'post',
    summary: 'What may be wrong, and what to check next',
    takes: 'diagnose',
    gives: 'diagnosis',
  },
  '/api/measure/levels': {
    method: 'post',
    summary: 'Levels and loudness of a recording, measured as it streams in',
    takes: 'recording',
    gives: 'levels',
  },
  '/api/measure/loopback': {
    method: 'post',
    summary: 'The lag between two channels of a recording',
    takes: 'recording',
    query: {
      reference: 'Channel of the signal that was played, from 1.',
      return: 'Channel of what came back, from 1.',
    },
    gives: 'loopback',
  },
  '/api/relay': {
    method: 'get',
    summary: 'Whether and where a session can be opened on another device',
    gives: 'relay',
  },
  '/api/schema/{name}': {
    method: 'get',
    summary: 'A JSON Schema: session, backup, gear, or one of the answers by its name',
    gives: 'schema',
  },
  '/api/openapi': { method: 'get', summary: 'This description', gives: 'openapi' },
} as const satisfies Record<string, Endpoint>
