import type { FormulaGroup } from './formula'

export const planner = {
  title: 'Input and planner',
  formulas: [
    {
      id: 'planner-0-dbfs-as-set',
      quantity: '0 dBFS as set',
      statement: 'fullScale − (gain − gainMin) + pad if in',
      tex: 'F_G = F - (G - G_\\text{min}) + P',
      source: 'definition',
      check: { says: '15 dBu, 35 dB: −20 dBu', gives: [-20], within: 0.005 },
    },
    {
      id: 'planner-aim-of-a-convention',
      quantity: 'aim of a convention',
      statement: 'the middle of its window; `hot-limited`: −1 dBFS with the surge',
      source: 'definition here; the conventions and reserves are common practice, no source',
      check: { says: 'see the worked example', gives: [-15], within: 0.005 },
    },
    {
      id: 'planner-aim-by-risk-p',
      quantity: 'aim by risk p',
      statement:
        '−Φ⁻¹(1 − p) · u, read with the surge; u: root of the sum of squares of what is printed (half-width/√3) or measured (its spread)',
      tex: 'A = -\\Phi^{-1}(1 - p)\\cdot u',
      source: 'GUM, JCGM 100',
      check: { says: 'GUM, JCGM 100: example 1 u = 3.79 dB, 1 %: −8.81 dBFS', gives: [-8.81], within: 0.005 },
    },
    {
      id: 'planner-planned-gain',
      quantity: 'planned gain',
      statement:
        'the highest step (0.1 dB without steps) at which the reading does not pass the aim. Where that lands under the window, and one step more lands inside it, it is that one',
      source: 'definition here; the conventions and reserves are common practice, no source',
      check: { says: 'example 1: 39 dB; steps of 5: 40', gives: [39, 40], within: 0.001 },
    },
    {
      id: 'planner-place-of-reading',
      quantity: 'place of reading',
      statement:
        'the last analogue-to-digital input; of `live-6-0` the desk’s meter, whose 0 is `zero` dBu, where there is a desk',
      source: 'definition here; the conventions and reserves are common practice, no source',
      check: {
        says: 'as the test says',
        test: '../unit/planner-limits.test.ts',
        named: 'a convention for a live mix reads the desk’s meter',
      },
    },
    {
      id: 'planner-reserve-at-an-analogue-stage',
      quantity: 'reserve at an analogue stage',
      statement: 'the greater of 10 dB over the peak and 3 dB over the surge (common practice)',
      source: 'definition here; the conventions and reserves are common practice, no source',
      check: {
        says: 'as the test says',
        test: '../unit/planner-limits.test.ts',
        named: 'a surge of 12 dB: the 3 dB over it count',
      },
    },
    {
      id: 'planner-held',
      quantity: 'held',
      statement:
        'the level at a processor with a threshold stays where it was set. A stage driven on purpose stays. Faders rest at their zero mark unless nothing else reaches',
      source: 'definition here; the conventions and reserves are common practice, no source',
      check: {
        says: 'as the test says',
        test: '../unit/planner-limits.test.ts',
        named: 'shares the gains before it so that their sum stays and the first has as much as can be',
      },
    },
    {
      id: 'planner-several-gains',
      quantity: 'several gains',
      statement:
        'Each in turn, from the source. As high as its range, the reserve at every analogue stage behind it, and the aim allow while those after it are fully down',
      source: 'own proof: the gain behind each stage is the least',
      check: {
        says: 'never noisier than 500 random allocations of the same total on 200 chains',
        test: '../unit/several-gains.test.ts',
        named: 'any of 500 random allocations',
      },
    },
    {
      id: 'planner-hiss',
      quantity: 'hiss',
      statement:
        "all noise but the room's, against the reading, compared with the gain filled from the last stage backwards. Where that is quieter by 0.1 dB, it is the plan",
      source: 'definition here',
      check: {
        says: 'as the test says',
        test: '../unit/several-gains.test.ts',
        named: 'says how much quieter this is than all gain at the last stage',
      },
    },
  ],
  notes: `Why front to back is quietest: the noise of a stage arrives at the recorder with the gain behind it. Raising every gain as early as allowed makes the gain before each stage the greatest. The gain behind it is then the least that any allowed sharing of the same total gives. Behind the converter gains change signal and noise alike: the planner leaves them, but puts the
operating system's slider to 0 dB.

The conventions are common practice, no source. So are the 6 dB of reserve above the surge and the reserve at analogue stages.

The two sides of a stereo pair get the gain of the louder side, or of the locked one. Where their ranges do not meet, the difference is said, with what to make up behind them.`,
} as const satisfies FormulaGroup
