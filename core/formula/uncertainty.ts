import type { FormulaGroup } from './formula'

export const uncertainty = {
  title: 'How sure is it',
  formulas: [
    {
      id: 'uncertainty-standard',
      quantity: 'standard uncertainty',
      statement: 'half a width or a half range a: a/√3; a standard deviation as it is; a half-width of 95 %: /1.96',
      tex: 'u = \\frac{a}{\\sqrt{3}}',
      source: 'GUM, JCGM 100, 4.3.7',
      check: { says: '±0.40: 0.23', gives: [0.231, 0.24, 1], within: 0.0005 },
    },
    {
      id: 'uncertainty-combined',
      quantity: 'of a figure',
      statement:
        '√Σ(∂y/∂xᵢ·uᵢ)², the slopes by central differences over ±u through the cascade itself; one device in two strips is one input; shown ± is 2 u',
      tex: 'u = \\sqrt{\\sum_i \\left(\\frac{\\partial y}{\\partial x_i}\\,u_i\\right)^2}',
      source: 'GUM, JCGM 100, 5.1.2',
      check: { says: 'worked example 1, recorded peak: 3.37 dB', gives: [3.37], within: 0.005 },
    },
    {
      id: 'uncertainty-curved',
      quantity: 'of a curved figure',
      statement:
        'One that lies over 0.2 u beside the straight line when everything moves to where it is most likely 2 u higher or lower. Seeded draws are made until the standard error of u is under 2 %, 20,000 at most',
      source: 'JCGM 101',
      check: {
        says: 'generated sessions: u within 5 %, or said to be curved',
        test: 'uncertainty.test.ts',
        named: 'u of each figure within 5 %',
      },
    },
    {
      id: 'uncertainty-chance',
      quantity: 'risk of clipping',
      statement: 'Φ(−z), z = headroom with the surge/u; of several stages the greatest',
      tex: 'p = \\Phi\\left(-\\frac{H}{u}\\right)',
      source: 'normal law',
      check: { says: '13.49 dB, u 3.79: 0.018 %', gives: [0.018], within: 0.001 },
    },
    {
      id: 'uncertainty-reading',
      quantity: 'after a reading',
      statement:
        'A reading is of the sum of its inputs. What is left of a figure’s variance is u² − c²/(u_r² + w²), with c their covariance and w what the reading is worth. For a peak or an average w is 0.5 dB, for PFL or a sound level 1 dB. For a VU or a light it is 3/√3 (common practice)',
      source: 'Bayes’ rule for normal laws',
      check: { says: 'one reading of ±1: 3.37 → 0.49 dB at the recorder', gives: [0.4946], within: 0.0005 },
    },
    {
      id: 'uncertainty-next',
      quantity: 'what to measure next',
      statement: 'u with an input’s uncertainty replaced by that of its procedure; ranked by dB (or ms) a minute',
      source: 'definition here; minutes are common practice, no source',
      check: {
        says: 'example 1: ±6.7 → ±1.0 dB in 1 min',
        test: 'uncertainty.test.ts',
        named: 'the first thing to do is one reading',
      },
    },
  ],
  notes: `Half-widths where a maker gives none and nobody measured (common practice, no source): a performer’s level 5 dB, crest 2, surge 3. The room 3. A distance by eye 10 %. Sensitivity 2 dB. Maximum SPL, self-noise, EIN, dynamic range and other noises 1. Full scale, maximum levels, losses and fixed gains 0.5. A gain by steps 0.3, by measured marks 0.5, by an unmeasured knob 2, a fader by its marks 0.5. Impedances 20 %. Converter, margin and fixed delays 10 %. A device may state its own (\`tolerance\`, in the value’s unit). What was measured once,
without a spread, counts a quarter of these. Percent of a distance are a factor up or down: 10 % is 0.83 dB.`,
} as const satisfies FormulaGroup
