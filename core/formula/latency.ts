import type { FormulaGroup } from './formula'

export const latency = {
  title: 'Latency',
  formulas: [
    {
      id: 'latency-buffer',
      quantity: 'buffer',
      statement: 'N / fs',
      tex: 't = \\frac{N}{f_s}',
      source: 'definition',
      check: { says: '128 at 48 kHz: 2.667 ms', gives: [2.667], within: 0.0005 },
    },
    {
      id: 'latency-software',
      quantity: 'software',
      statement: 'air + (converterIn + safetyIn + b_in·N + plug-ins + b_out·N + safetyOut + converterOut)/fs + fixed',
      tex: 't = t_\\text{air} + \\frac{c_i + s_i + b_i N + p + b_o N + s_o + c_o}{f_s} + t_0',
      source: 'definition',
      check: { says: '128 at 48 kHz, 1 + 1, 88 frames, 0.5 ms: 7.667 ms', gives: [7.667], within: 0.0005 },
    },
    {
      id: 'latency-direct',
      quantity: 'direct',
      statement:
        'the time in air, and (converterIn + converterOut)/fs in a digital mixer; 0 besides in analogue; none where the unit has none',
      tex: 't = \\frac{d}{c} + \\frac{c_i + c_o}{f_s}',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '0.3 m and 40 frames: 0.874 + 0.833 = 1.708 ms', gives: [1.708], within: 0.001 },
    },
    {
      id: 'latency-air',
      quantity: 'air',
      statement: 'distance / c, from the source to the capsule, on every route',
      tex: 't = \\frac{d}{c}',
      source: 'definition',
      check: { says: '1 m: 2.91 ms', gives: [2.91], within: 0.005 },
    },
    {
      id: 'latency-speed-of-sound',
      quantity: 'speed of sound',
      statement: 'c = 331.3 √(1 + ϑ/273.15)',
      source: 'ideal gas law, handbook acoustics',
      check: { says: '20 °C: 343.2 m/s', gives: [343.2], within: 0.05 },
    },
    {
      id: 'latency-link-loudspeaker',
      quantity: 'link, loudspeaker',
      statement: "a link's own time; loudspeaker distance / c on both routes",
      source: 'definition; limits and load are common practice, no source',
      check: { says: '3.43 m: 10 ms', gives: [9.994], within: 0.01 },
    },
    {
      id: 'latency-shared-driver',
      quantity: 'shared driver',
      statement: 'its engine period, once on each way',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '10 ms: +20 ms', gives: [20], within: 0.005 },
    },
    {
      id: 'latency-measured',
      quantity: 'measured',
      statement: 'a measured cell is its mean; the route\'s part "measured besides" is measured − printed',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '9.0 and 9.2 ms: 9.1 ms', gives: [9.1], within: 0.001 },
    },
    {
      id: 'latency-fit',
      quantity: 'fit',
      statement:
        'least squares (QR) of k·1000N/fs + c·1000/fs + t, none negative. Where t (or c) would be, the others are fitted again without it. One rate: k and the sum. One buffer size: k held at a whole or half number. The predictions’ spread holds what could not be told',
      source: 'ordinary least squares',
      check: {
        says: "driver's 14.9 / 14.7 ms at 512, 44.1 kHz → 9.10 / 8.90 at 256",
        gives: [9.1, 8.9],
        within: 0.005,
      },
    },
    {
      id: 'latency-its-spread',
      quantity: 'its spread',
      statement: 't-quantile · s · √(XᵀX)⁻¹, all parameters together 95 % (Bonferroni)',
      source: 'handbook statistics',
      check: {
        says: '1,000 seeded runs of ±0.05 ms',
        test: 'timing.test.ts',
        named: 'recovers planted parameters within its stated spread',
      },
    },
    {
      id: 'latency-outlier',
      quantity: 'outlier',
      statement: 'off by over twice the 95 % prediction of a fit without it, and over 0.3 ms: named, left out',
      source: 'definition; limits and load are common practice, no source',
      check: { says: 'as the test says', test: 'timing.test.ts', named: 'an outlier is named and left out' },
    },
    {
      id: 'latency-load',
      quantity: 'load',
      statement:
        '(a + b·N)/(N/fs); one buffer size N₀ of time T alone: T·fs/N₀, at least for smaller buffers, at most for larger',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '83 % at 128, 61 % at 256 → 50 % at 512', gives: [50], within: 0.001 },
    },
    {
      id: 'latency-sustained',
      quantity: 'sustained',
      statement:
        'load under 70 % (common practice). Dropouts at that or a larger buffer say no. A clean run at that or a smaller one says yes',
      source: 'definition; limits and load are common practice, no source',
      check: { says: 'as the test says', test: 'timing.test.ts', named: 'what was tried wins over the model' },
    },
    {
      id: 'latency-recording-offset',
      quantity: 'recording offset',
      statement: '(measured − reported) · fs, frames: positive where takes lie too late and are to be moved earlier',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '2 ms at 48 kHz: 96', gives: [96], within: 0.001 },
    },
    {
      id: 'latency-rate-mismatch',
      quantity: 'rate mismatch',
      statement: 'longer: material/clock − 1; pitch: 12 lg₂(clock/material)',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '48 at 44.1 kHz: 8.84 %, −1.47 semitones', gives: [8.84, -1.47], within: 0.005 },
    },
    {
      id: 'latency-file-size',
      quantity: 'file size',
      statement: 'fs · bits/8 · channels · s',
      source: 'definition; limits and load are common practice, no source',
      check: { says: '48 kHz, 24 bit, 2 ch, 1 h: 1.0368 GB', gives: [1.0368], within: 1e-5 },
    },
  ],
  notes: `Limits by what is listened to: own voice 5, wind 6, plucked strings 8, drums 10, keys 15, click only 50 ms. Voice and strings are
common practice; the others follow Lester and Boley, AES 123rd Convention, 2007 (from memory). Each can be set per performer.

**Guided trial.** The sizes are halved: crackles rule out the smaller, "late" the larger, "fine" keeps the chosen side. Eight
sizes take three answers. An answer that an earlier one contradicts is asked once more.`,
} as const satisfies FormulaGroup
