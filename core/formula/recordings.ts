import type { FormulaGroup } from './formula'

export const recordings = {
  title: 'Recordings',
  formulas: [
    {
      id: 'recordings-level',
      quantity: 'level',
      statement: '10 lg(2·mean square): a full-scale sine is 0 dBFS',
      source: 'AES17',
      check: { says: 'sine of peak 0.5: −6.02 on both meters', gives: [-6.02, -6.02], within: 0.01 },
    },
    {
      id: 'recordings-a-weighted',
      quantity: 'A-weighted',
      statement:
        'Half-overlapping Hann windows tell what part of the power the A-curve leaves, 20 Hz–20 kHz. That part is taken of the power under the middle of each window, and at the ends of all that is left. No sample counts less than another',
      source: 'IEC 61672-1',
      check: {
        says: 'white noise of 20 Hz–20 kHz: −2.05 dB; class 1 at every third octave: levels-of-files.test.ts',
        gives: [-2.05],
        within: 0.1,
      },
    },
    {
      id: 'recordings-loudness',
      quantity: 'loudness',
      statement: 'K-weighting (bilinear, any rate), 400 ms blocks every 100 ms, gates at −70 LUFS and −10 LU',
      source: 'ITU-R BS.1770-4',
      check: {
        says: '997 Hz stereo at −23 dBFS: −23.0; EBU Tech 3341 signals 1–6, 9–14: levels-of-files.test.ts',
        gives: [-23],
        within: 0.05,
      },
    },
    {
      id: 'recordings-range',
      quantity: 'range',
      statement: '10th to 95th percentile of 3 s blocks over −20 LU',
      source: 'EBU Tech 3342',
      check: { says: 'signals 1–4', test: 'levels-of-files.test.ts', named: 'Tech 3342 signal %s: range' },
    },
    {
      id: 'recordings-true-peak',
      quantity: 'true peak',
      statement: '4 times oversampled by the tabled filter',
      source: 'BS.1770-4, Annex 2 (taps from memory)',
      check: { says: 'fs/4 at 45°, −6 dBTP: −9.03 in the samples', gives: [-6.1, -9.03], within: 0.3 },
    },
    {
      id: 'recordings-clipping',
      quantity: 'clipping',
      statement:
        'Three samples or more at the extreme of their polarity, which the samples beside them do not approach gently. A slow sine’s flat top is none',
      source: 'definition here',
      check: {
        says: 'sine 6 dB over full scale',
        test: 'levels-of-files.test.ts',
        named: 'a mere touch of full scale is none',
      },
    },
    {
      id: 'recordings-loopback',
      quantity: 'loopback',
      statement:
        'maximum of the cross-correlation, sought between the frames by its spectrum. Then each pass by itself: their mean, half their range, and their slope as drift',
      source: 'definition here',
      check: {
        says: '0.02 frame at 20 dB SNR; 40 ppm within 2',
        test: 'recordings.test.ts',
        named: 'each pass has its own lag',
      },
    },
    {
      id: 'recordings-sweep-sequence',
      quantity: 'sweep, sequence',
      statement: 'exponential sweep; maximum-length sequences from tabled polynomials',
      source: 'Farina 2000 (from memory); tables',
      check: {
        says: 'as the test says',
        test: '../unit/signals.test.ts',
        named: '%s has the peak that was asked for, within 0.01 dB of it',
      },
    },
    {
      id: 'recordings-take-check',
      quantity: 'take check',
      statement:
        'level + RMS − modelled average; crest = peak − RMS + 3.01; surge: up to what the take passes with 1 %',
      source: 'definition here',
      check: { says: 'as the test says', test: 'statistics.test.ts', named: 'a longer take is likelier to clip' },
    },
    {
      id: 'recordings-spectrum',
      quantity: 'spectrum',
      statement: 'Welch; third octaves with exact middles 10^(n/10) Hz, a step across an edge shared in proportion',
      source: 'IEC 61260-1',
      check: {
        says: 'white noise +1 dB a band, pink level',
        test: 'recordings.test.ts',
        named: 'white noise rises by 1 dB',
      },
    },
    {
      id: 'recordings-tone',
      quantity: 'tone',
      statement: "least squares of sine, cosine and mean, block by block; the frequency from the blocks' phase",
      source: 'IEEE Std 1057 (from memory)',
      check: { says: '0.002 Hz, 0.002 dB', test: 'recordings.test.ts', named: 'of %f Hz: frequency and level' },
    },
    {
      id: 'recordings-dynamic-range',
      quantity: 'dynamic range',
      statement: '−(A-weighted rest) of a tone of −60 dBFS, the tone fitted and taken out',
      source: 'AES17',
      check: { says: '−90 dBFS of white noise, 0.15 dB', test: 'bench.test.ts', named: 'dynamic range, 0.3 dB' },
    },
    {
      id: 'recordings-thd-n',
      quantity: 'THD+N',
      statement: 'the rest of 20 Hz–20 kHz over the tone',
      source: 'AES17',
      check: {
        says: '1 % and 0.1 % of harmonics: −39.96 dB',
        test: 'recordings.test.ts',
        named: 'harmonics by their order',
      },
    },
    {
      id: 'recordings-hum',
      quantity: 'hum',
      statement: 'power of each multiple of 50 or 60 Hz (± 0.5 Hz) over the noise beside it, from 8 dB on',
      source: 'definition here',
      check: { says: '0.2 dB', test: 'recordings.test.ts', named: 'each multiple’s level, within 0.2 dB' },
    },
    {
      id: 'recordings-full-scale',
      quantity: 'full scale',
      statement: 'output: dBu − dBFS played; input: dBu − dBFS read + (G − G_min) − pad',
      source: 'definition',
      check: { says: '0.7746 V at −20 dBFS: +20 dBu', test: 'bench.test.ts', named: 'input full scale, 0.05 dB' },
    },
    {
      id: 'recordings-loading-of-the-cable',
      quantity: 'loading of the cable',
      statement: '−20 lg(1 + Zs/Zl) between output and input',
      source: 'definition here',
      check: { says: 'as on the path', test: 'bench.test.ts', named: 'output full scale, 0.05 dB' },
    },
    {
      id: 'recordings-ein',
      quantity: 'EIN',
      statement:
        "noise(A) + FS_G; with several gains 10^(N/10) = a·10^(−FS_G/10) + c by relative least squares. The converter's c is taken out at each gain, since a preamp is often noisier at lower ones",
      source: 'crossover FS_min − DR − excess at that gain, as above',
      check: { says: '0.3 dB, crossover 1 dB', test: 'bench.test.ts', named: 'EIN, 0.3 dB' },
    },
    {
      id: 'recordings-resistor',
      quantity: 'resistor',
      statement:
        "other than 150 Ω: its thermal noise out, that of 150 Ω in; an EIN not above the resistor's own is refused",
      source: 'Johnson and Nyquist',
      check: {
        says: 'shorted plug found out',
        test: '../unit/bench.test.ts',
        named: 'a shorted plug is found out, and not kept',
      },
    },
    {
      id: 'recordings-disturbed',
      quantity: 'disturbed',
      statement:
        'Noise: the longest run of seconds within 1.5 dB of their median level(A). A tone: of quarter seconds whose rest is within 6 dB of the median rest',
      source: 'common practice, no source',
      check: {
        says: 'a knock and a dropout left out: 0.15 dB',
        test: 'recordings.test.ts',
        named: 'a knock and a dropout are left out',
      },
    },
    {
      id: 'recordings-knob',
      quantity: 'knob',
      statement: 'positions and gains: piecewise cubic that never falls',
      source: 'Fritsch and Carlson 1980 (from memory)',
      check: {
        says: 'inverse to 1e-6 h',
        test: '../unit/knob.test.ts',
        named: 'position and gain are each other’s inverse all along the turn',
      },
    },
    {
      id: 'recordings-chance-of-clipping',
      quantity: 'chance of clipping',
      statement:
        'Gumbel law of the greatest amplitudes of equal blocks, by maximum likelihood; of n blocks 1 − F(1)^n; intervals by the delta method',
      source: 'Coles 2001 (from memory)',
      check: {
        says: 'jstat; 400 seeded rehearsals hold the truth in 90–99 %',
        test: 'statistics.test.ts',
        named: '400 rehearsals from a known law',
      },
    },
    {
      id: 'recordings-gain-for-1',
      quantity: 'gain for 1 %',
      statement: '−20 lg of the amplitude that n blocks stay under with 99 %',
      source: 'as above',
      check: { says: 'the chance is 1 % then', test: 'statistics.test.ts', named: 'brings the chance to 1 %' },
    },
  ],
  notes: `The tone is fitted, not notched. The notch filter of AES17 takes a
band of noise with it, so this reads up to a few tenths of a dB more noise.

The law of peaks is taken in amplitude, not in dB. The samples of programme thin out towards the peaks at least as fast as an exponential. Speech is close to Laplace's law, dense music to a normal one. The maxima of such samples follow Gumbel's law.
In dB the same rehearsal would promise peaks far over anything that is played.

A-weighting is applied to the spectrum because there it is exact up to half the sample rate; a bilinear filter bends near it.`,
} as const satisfies FormulaGroup
