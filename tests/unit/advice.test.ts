import fc from 'fast-check'
import { expect, it } from 'vitest'
import { breaches } from '../support/advice'
import { anyMix, anySession } from '../support/generate'
import { runs } from '../support/runs'

/** A small set of seeds here; `npm run advice` takes thousands. */
const RUNS = Number(process.env.ADVICE_RUNS ?? runs(120))
const SEED = Number(process.env.ADVICE_SEED ?? 20261129)

it.each([
  ['strips', anySession],
  ['strips into busses', anyMix],
])('advice on generated %s is safe, solved to the end and true in its numbers', (_, sessions) => {
  fc.assert(
    fc.property(sessions, (session) => {
      expect(breaches(session)).toEqual([])
    }),
    { seed: SEED, numRuns: RUNS },
  )
})
