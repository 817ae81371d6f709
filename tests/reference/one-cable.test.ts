import { describe, expect, it } from 'vitest'
import type { SimulatedCable } from '#core/simulated/rig'
import { cableTrial, judgedFigures, wrongFigures } from '../support/cable'

/** Runs that are made; two hundred take half an hour: CABLE_RUNS=200 npx vitest run tests/reference/one-cable.test.ts. */
const RUNS = Number(process.env.CABLE_RUNS ?? 3)

/** What stands in the sockets: good, loose, with a dead or crossed legs, in the wrong input, two, swapped. */
const CABLES: SimulatedCable[][] = [
  [{ output: 0, input: 0, state: 'good' }],
  [
    { output: 0, input: 0, state: 'good' },
    { output: 1, input: 1, state: 'good' },
  ],
  [{ output: 0, input: 0, state: 'loose' }],
  [{ output: 0, input: 0, state: 'one-leg' }],
  [{ output: 0, input: 0, state: 'crossed' }],
  [{ output: 0, input: 1, state: 'good' }],
  [
    { output: 0, input: 1, state: 'good' },
    { output: 1, input: 0, state: 'good' },
  ],
  [],
]

describe('measuring an interface by one cable', () => {
  // GUM (JCGM 100, 6.2): within twice the standard uncertainty in about 95 % of all cases.
  it(
    'has at least 95 % of all figures within their ± in seeded runs, and none far off without a mark',
    { timeout: 300_000 + 30_000 * RUNS },
    async () => {
      let [all, wrong] = [0, 0]
      for (let run = 0; run < RUNS; run++) {
        const seed = 1 + 7 * run
        const { sheet, found } = await cableTrial({
          seed,
          cables: CABLES[run % CABLES.length] ?? [],
          hasKnob: run % 2 === 1,
        })
        all += judgedFigures(sheet).length
        const off = wrongFigures(sheet)
        wrong += off.length
        for (const { id, value, truth, u } of off)
          expect(Math.abs(value - (truth ?? NaN)), `run ${run}, ${id}`).toBeLessThan(3.5 * u)
        // Where a hand has to put something right first, that takes its time.
        if (found.doubts.length === 0) expect(found.seconds).toBeLessThan(180)
      }
      expect(wrong / all, `${wrong} of ${all} figures in ${RUNS} runs`).toBeLessThanOrEqual(0.05)
    },
  )
})
