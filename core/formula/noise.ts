import type { FormulaGroup } from './formula'

export const noise = {
  title: 'Noise, all A-weighted, 20 Hz–20 kHz',
  formulas: [
    {
      id: 'noise-a-weighting',
      quantity: 'A-weighting',
      statement: 'the pole form with 20.60, 107.7, 737.9 and 12194 Hz',
      source: 'IEC 61672-1',
      check: { says: 'tabled: 63 Hz −26.2, 1 kHz 0, 8 kHz −1.1 dB', gives: [-26.2, 0, -1.1], within: 0.05 },
    },
    {
      id: 'noise-white-noise-under-a',
      quantity: 'white noise under A',
      statement: '−2.05 dB (integrated over ln f, Simpson)',
      source: 'from the above',
      check: { says: 'pink: −2.86', gives: [-2.05, -2.86], within: 0.005 },
    },
    {
      id: 'noise-thermal',
      quantity: 'thermal',
      statement: 'U = √(4 k T R B), 293.15 K, 19 980 Hz',
      tex: 'U = \\sqrt{4\\,k\\,T\\,R\\,B}',
      source: 'Johnson, Nyquist 1928',
      check: { says: '150 Ω: −130.92 dBu, −132.97 dBu(A)', gives: [-130.92, -132.97], within: 0.005 },
    },
    {
      id: 'noise-passive-resistance',
      quantity: 'passive resistance',
      statement:
        'thermal noise of the output resistance of a pickup, ribbon, moving coil, pad or transformer (Zs/n²), loaded like the signal. All resistors of a passive pair together make that of their output, once',
      source: 'as above',
      check: { says: 'a 150 Ω pad into EIN −127: −127.00 dBu(A); −131: −131.00', gives: [-127, -131], within: 0.05 },
    },
    {
      id: 'noise-ein-excess',
      quantity: 'EIN excess',
      statement:
        '10 lg(10^(EIN/10) − 10^(N_R/10)), R = `einSource`, 150 Ω where not stated, 0 shorted; a Z figure first loses 2.05 dB',
      tex: 'N_x = 10\\,\\lg\\left(10^{N/10} - 10^{N_R/10}\\right)',
      source: 'EIN is measured with, and contains, its resistor',
      check: {
        says: '−127: −128.27 dBu(A); −131 shorted: −128.86 with 150 Ω in',
        gives: [-128.27, -128.86],
        within: 0.005,
      },
    },
    {
      id: 'noise-ein-below-its-resistor',
      quantity: 'EIN below its resistor',
      statement: 'measured shorted, or a misprint: no excess is counted, and both are said',
      source: 'definition here',
      check: { says: '−133.5', test: 'examples.test.ts', named: 'an EIN below its own resistor has no excess' },
    },
    {
      id: 'noise-preamp-at-the-recorder',
      quantity: 'preamp at the recorder',
      statement: 'excess − (fullScale − (gain − gainMin))',
      tex: 'N = N_x - F_G',
      source: 'definition',
      check: { says: 'see the worked example', gives: [-108.27], within: 0.005 },
    },
    {
      id: 'noise-converter',
      quantity: 'converter',
      statement: '−dynamic range',
      tex: 'N = -D',
      source: 'AES17',
      check: { says: 'see the worked example', gives: [-110], within: 0.005 },
    },
    {
      id: 'noise-word-length-tpdf',
      quantity: 'word length, TPDF',
      statement: '−(6.02 N + 1.76) + 4.77 − 2.05 dBFS(A)',
      tex: 'N = -(6.02\\,n + 1.76) + 4.77 - 2.05',
      source: 'quantisation and dither theory',
      check: { says: '16: −95.37, 24: −143.53', gives: [-95.37, -143.53], within: 0.005 },
    },
    {
      id: 'noise-crossover-gain',
      quantity: 'crossover gain',
      statement: 'fullScale − dynamic range − excess + gainMin',
      source: 'preamp = converter',
      check: { says: '15, 110, −128.27: 33.3 dB', gives: [33.3], within: 0.05 },
    },
  ],
  notes: `**The pad stands before the preamp.** 0 dBFS moves up by the pad's loss, but the preamp's noise stays where it is at the converter. Seen from the source the preamp has become noisier by the pad. So a pad that is not needed costs
signal-to-noise, dB for dB, where the preamp is the greatest noise.

A measured EIN is A-weighted, as everything measured here; the weighting belongs to the data sheet’s. A 32-bit
floating-point file is given no word-length noise: it follows the signal far below any converter.`,
} as const satisfies FormulaGroup
