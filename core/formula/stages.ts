import type { FormulaGroup } from './formula'

export const stages = {
  title: 'Stages on the way',
  formulas: [
    {
      id: 'stages-electric-source',
      quantity: 'electric source',
      statement:
        'gain: level loaded by the next input; ceiling: `maxOutput`; noise: `noise`; a passive pickup without one: thermal noise of its impedance',
      source: 'definition here',
      check: {
        says: 'a template worked out by hand',
        test: 'templates.test.ts',
        named: '4 passive pickup → instrument input',
      },
    },
    {
      id: 'stages-inline-preamp',
      quantity: 'inline preamp',
      statement: 'gain: `gain`; ceiling: `maxOutput`; noise: excess of its EIN, raised by the gain',
      source: 'definition here',
      check: { says: '24 dB: +24', gives: [24], within: 0.001 },
    },
    {
      id: 'stages-preamp',
      quantity: 'preamp',
      statement:
        'Gain: gain − pad. Ceiling at the input: `maxInput` − (gain − gainMin) + pad. At the output: `maxOutput`. Noise: excess + gain (the pad stands before it). `outputNoise` at the output',
      source: 'definition here',
      check: {
        says: 'gain 40, pad 20: +20; takes 10 dBu at 0 and −10 at 40 with the pad: headroom 14.98 with a peak of −24.98',
        gives: [20, 14.98],
        within: 0.01,
      },
    },
    {
      id: 'stages-desk-channel',
      quantity: 'desk channel',
      statement:
        "Gain: gain − pad + fader (not where it is taken before the fader). Ceiling: the preamp's, and `maxOutput` before the fader as well as after it. Noise: as the preamp, through the fader",
      source: 'definition here',
      check: { says: 'gain 40, fader −6: +34', gives: [34], within: 0.001 },
    },
    {
      id: 'stages-processor',
      quantity: 'processor',
      statement:
        'gain: static curve, then its output gain; ceiling: `maxInput`, `maxOutput`; fixed point 0 dBFS, floating point none; noise: `outputNoise`',
      source: 'definition here',
      check: {
        says: 'a template worked out by hand',
        test: 'edges.test.ts',
        named: 'its input is overdriven by what comes in',
      },
    },
    {
      id: 'stages-fader',
      quantity: 'fader',
      statement:
        'gain: its mark; ceiling: `maxInput` whatever the mark, `maxOutput`; digital as above; noise: `outputNoise`',
      source: 'definition here',
      check: { says: 'mark −6: −6', gives: [-6], within: 0.001 },
    },
    {
      id: 'stages-wireless-link',
      quantity: 'wireless link',
      statement: 'gain: `gain`; ceiling: `maxInput`, `maxOutput`; noise: `maxOutput` − dynamic range',
      source: 'definition here',
      check: { says: 'maximum +4, dynamic range 100: noise −96 dBu', gives: [-96], within: 0.01 },
    },
    {
      id: 'stages-digital-link-digital-input',
      quantity: 'digital link, digital input',
      statement: 'gain: 0 dB; ceiling: 0 dBFS; noise: −dynamic range where given',
      source: 'definition here',
      check: { says: '−20 dBFS, crest 12: 0 dB, headroom 11.01', gives: [0, 11.01], within: 0.01 },
    },
    {
      id: 'stages-the-file',
      quantity: 'the file',
      statement:
        'gain: –; ceiling: 0 dBFS at 16 and 24 bits, none at 32 (floating point); noise: its word length, once, at the last digital stage',
      source: 'definition here',
      check: {
        says: 'a template worked out by hand',
        test: 'templates.test.ts',
        named: '13 plug-ins and a fader to a file',
      },
    },
  ],
  notes:
    'Every ceiling is judged at its own terminal. `maxInput` of a compressor or limiter is held against the level before the curve. `headroom` is\nthe least of them, `surgeHeadroom` the same for the\npeak with the surge. What a curve takes off at average, peak and surge is `reduction`.\n\nA stage passes on at most its ceiling. Its own point shows what it would put out, marked `clipped`. Every later point\nnames it in `carriesClipping`.\n\n**Static curves** (handbook). Compressor above T: T + (x − T)/R (−10 through −20, 4 : 1 → −17.5). Expander below T:\nT + (x − T)·R, at most its range (−40 through −30, 2 : 1 → −50). Limiter: min(x, ceiling). A curve acts on average, peak and\nsurge each by itself. On the noise it acts at the level that the noise has alone, as in a pause. A compressor leaves the floor\nwhere it is, and so costs signal-to-noise. An expander lowers it. For programme this is an *estimate*. A real compressor\nworks on a level smoothed over attack and release, so short peaks pass it higher than the curve says. Between words the\ngain is on its way from one value to the other.',
} as const satisfies FormulaGroup
