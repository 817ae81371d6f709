import type { FormulaGroup } from './formula'

export const levels = {
  title: 'Levels',
  formulas: [
    {
      id: 'levels-db-spl',
      quantity: 'dB SPL',
      statement: '20 lg(p / 20 µPa), RMS',
      source: 'ISO 1683',
      check: { says: '1 Pa = 93.979', gives: [93.979], within: 0.0005 },
    },
    {
      id: 'levels-dbu',
      quantity: 'dBu',
      statement: '20 lg(U / √0.6 V), RMS',
      source: '1 mW in 600 Ω',
      check: { says: '+4 dBu = 1.2277 V', gives: [1.2277], within: 5e-5 },
    },
    {
      id: 'levels-dbv',
      quantity: 'dBV',
      statement: '20 lg(U / 1 V), RMS',
      source: 'definition',
      check: { says: 'dBu = dBV + 2.2185', gives: [2.2185], within: 5e-5 },
    },
    {
      id: 'levels-dbfs',
      quantity: 'dBFS',
      statement: 'a sine that just touches full scale is 0 dBFS',
      source: 'AES17, IEC 61606',
      check: { says: 'as the test says', test: 'levels-of-files.test.ts', named: 'Tech 3341 signal 6' },
    },
    {
      id: 'levels-peak-level',
      quantity: 'peak level',
      statement: 'average + crest − 3.01 dB: the level of the sine with that peak',
      tex: 'L_\\text{peak} = L_\\text{average} + C - 3.01',
      source: 'convention of AES17',
      check: { says: '−20 dBFS, crest 12: −11.01', gives: [-11.01], within: 0.005 },
    },
    {
      id: 'levels-surge-peak',
      quantity: 'surge peak',
      statement: 'peak + surge',
      tex: 'L_\\text{surge} = L_\\text{peak} + S',
      source: 'definition here',
      check: { says: 'see the worked example', gives: [-13.49], within: 0.005 },
    },
    {
      id: 'levels-inverse-distance',
      quantity: 'inverse distance',
      statement: '−20 lg(d/d₀), point source, free field',
      tex: 'L = L_0 - 20\\,\\lg\\frac{d}{d_0}',
      source: 'handbook acoustics',
      check: { says: '1 m → 0.25 m: +12.04 dB', gives: [12.04], within: 0.005 },
    },
    {
      id: 'levels-near-a-source-of-some-size',
      quantity: 'near a source of some size',
      statement: '10 lg[ln(1 + r²/d²) / ln(1 + r²/d₀²)], an incoherent disc of radius r = size/2, on its axis',
      tex: 'L = L_0 + 10\\,\\lg\\frac{\\ln(1 + r^2/d^2)}{\\ln(1 + r^2/d_0^2)}',
      source: 'room acoustics, from memory',
      check: { says: 'r 0.5 m, 0.1 m against 1 m: 11.64 dB; r 0.05 m: 19.51', gives: [11.64, 19.51], within: 0.005 },
    },
    {
      id: 'levels-unrelated-sum',
      quantity: 'unrelated sum',
      statement: '10 lg Σ 10^(L/10)',
      tex: 'L = 10\\,\\lg\\sum_i 10^{L_i/10}',
      source: 'handbook acoustics',
      check: { says: 'two equal: +3.01 dB', gives: [3.01], within: 0.005 },
    },
  ],
  notes: `A level in dBFS is that of the sine with the same peak (a full-scale sine is 0 dBFS), for averages and peaks alike: so a peak reads
3.01 dB less than the average plus the crest factor.`,
} as const satisfies FormulaGroup
