import type { FormulaGroup } from './formula'

export const busses = {
  title: 'Strips that meet',
  formulas: [
    {
      id: 'busses-average-of-a-sum',
      quantity: 'average of a sum',
      statement: 'unrelated strips in power; one sound on two ways in amplitude',
      tex: 'L = 10\\,\\lg\\sum_i 10^{L_i/10}',
      source: 'handbook acoustics',
      check: { says: 'two equal: +3.01, +6.02 dB', gives: [3.01, 6.02], within: 0.005 },
    },
    {
      id: 'busses-certain-bound',
      quantity: 'certain bound',
      statement: '20 lg Σ10^(peak/20)',
      tex: 'L = 20\\,\\lg\\sum_i 10^{L_i/20}',
      source: 'definition',
      check: { says: 'two of −9: −2.98', gives: [-2.98], within: 0.005 },
    },
    {
      id: 'busses-likely-peak',
      quantity: 'likely peak',
      statement:
        'the greater of max over i of 20 lg(10^(pᵢ/20) + 10^((A_rest − 3.01)/20)) and average + 10.2, never over the bound',
      tex: 'L = \\max\\left(20\\,\\lg\\left(10^{p_i/20} + 10^{(A_r - 3.01)/20}\\right),\\; A + 10.2\\right)',
      source: 'own simulation',
      check: {
        says: '−20/−9 twice: −6.79; with −26/−12 and −30/−20: −8.03; seeded sounds, 2 to 16: within 2.5 dB',
        gives: [-6.79, -8.03],
        within: 0.005,
      },
    },
    {
      id: 'busses-surge-of-a-sum',
      quantity: 'surge of a sum',
      statement: 'the same with one strip louder by its surge, average and peak: the worst one',
      source: 'definition here',
      check: { says: 'one louder by 6 dB, one by 10: −2.58', gives: [-2.58], within: 0.005 },
    },
    {
      id: 'busses-noise-of-a-sum',
      quantity: 'noise of a sum',
      statement: 'every noise once; on two ways in amplitude; the room through N microphones +10 lg N',
      source: 'common practice, no source',
      check: {
        says: 'two devices of −80 dB: +3.01 dB; one device on two ways: +6.02 dB',
        gives: [3.01, 6.02],
        within: 0.005,
      },
    },
    {
      id: 'busses-pfl',
      quantity: 'PFL',
      statement: "peak before the fader − the desk's zero mark (+4 dBu)",
      source: 'common practice, no source',
      check: { says: 'docs/two-mixes.md: −4.96, −3.96 and −5.10 dB', gives: [-4.96, -3.96, -5.1], within: 0.005 },
    },
    {
      id: 'busses-loudspeaker',
      quantity: 'loudspeaker',
      statement: 'S + level − 20 lg d + 10 lg n, knob included',
      tex: 'L_p = S + L_u - 20\\,\\lg d + 10\\,\\lg n',
      source: 'free field, handbook acoustics',
      check: { says: 'docs/two-mixes.md: 79.51 dB SPL', gives: [79.51], within: 0.005 },
    },
    {
      id: 'busses-amplifier',
      quantity: 'amplifier',
      statement: 'U = √(P·R); sensitivity: that level − gain',
      tex: 'U = \\sqrt{P\\,R}',
      source: "Ohm's law",
      check: { says: '200 W, 8 Ω, 32 dB: +34.26 and +2.26 dBu', gives: [34.26, 2.26], within: 0.005 },
    },
    {
      id: 'busses-feedback-margin',
      quantity: 'feedback margin',
      statement:
        '−10 lg Σ10^(loop/10) − 6. The loop is the small-signal gain from the capsule, on axis, to the loudspeaker at 1 m, + 10 lg n − 20 lg D₁. Every curve counts at its greatest gain. It is the potential acoustic gain less the gain that is set',
      source: 'Davis and Patronis (from memory)',
      check: { says: 'docs/two-mixes.md: 17.35 dB', gives: [17.35], within: 0.005 },
    },
    {
      id: 'busses-loudness-estimated',
      quantity: 'loudness, estimated',
      statement: 'AES17 RMS − 3.70 + K (0.69 ± 0.75) + 10 lg 2',
      source: 'ITU-R BS.1770',
      check: { says: '997 Hz, −23 dBFS, two channels: −23.0 LUFS', gives: [-23], within: 0.005 },
    },
    {
      id: 'busses-trim-of-pieces',
      quantity: 'trim of pieces',
      statement: 'mark − level; the mark not over −1 − (peak − average) of any',
      source: 'EBU R 128, −1 dBTP',
      check: { says: 'as the test says', test: '../unit/pieces.test.ts', named: 'all to one mark; none above −1 dBFS' },
    },
  ],
  notes:
    'PFL reads peaks here. On a desk whose meter is a VU, give as `zero` what its 0 means for peaks, 8 to 14 dB higher (common practice).\nThe estimate of loudness knows levels only: no pauses, no spectrum; the whole stream reads lower than its loud passages.\nMicrophones are taken as open to the loudspeaker, and the room as without walls. The margin is for choosing between sends. It is no promise.\n[Two mixes](two-mixes.md) works a whole desk out by hand.',
} as const satisfies FormulaGroup
