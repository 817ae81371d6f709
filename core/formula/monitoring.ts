import type { FormulaGroup } from './formula'

export const monitoring = {
  title: 'Monitoring',
  formulas: [
    {
      id: 'monitoring-comb-first-notch',
      quantity: 'comb, first notch',
      statement: '1/(2τ)',
      source: 'handbook acoustics',
      check: { says: '1 ms: 500 Hz; 7 ms: 71.4 Hz', gives: [500, 71.43], within: 0.005 },
    },
    {
      id: 'monitoring-ripple',
      quantity: 'ripple',
      statement: '20 lg((1 + a)/(1 − a)), a = 10^(−|ΔL|/20)',
      source: 'as above',
      check: { says: '−6 dB: 9.57; −12: 4.46; −20: 1.74 dB', gives: [9.57, 4.46, 1.74], within: 0.02 },
    },
    {
      id: 'monitoring-headphones',
      quantity: 'headphones',
      statement: 'V = U·Zh/(Zh + Zo), P = V²/Zh, S + 10 lg P[mW]',
      source: 'voltage divider',
      check: { says: '+10 dBu, 10 Ω, 32 Ω, 98 dB/mW: 118.4 dB SPL', gives: [118.4], within: 0.05 },
    },
    {
      id: 'monitoring-mix-control',
      quantity: 'mix control',
      statement: 'own signal 20 lg min(1, 2(1 − b)), playback 20 lg min(1, 2b)',
      source: 'common practice, no source',
      check: { says: '50 %: 0 and 0; 75 %: −6.02 dB', gives: [0, 0, -6.02], within: 0.005 },
    },
    {
      id: 'monitoring-hours',
      quantity: 'hours',
      statement: '8 / 2^((L − 85)/3)',
      source: 'NIOSH 1998',
      check: { says: '94 dBA: 1 h; 100 dBA: 15 min', gives: [1, 0.25], within: 0.005 },
    },
    {
      id: 'monitoring-european-values',
      quantity: 'European values',
      statement: 'action 80 and 85, limit 87 dB(A)',
      source: 'Directive 2003/10/EC',
      check: { says: 'as the test says', test: 'monitoring.test.ts', named: '85 dBA 8 h' },
    },
    {
      id: 'monitoring-a-week',
      quantity: 'a week',
      statement: '40 h / 2^((L − 80)/3)',
      source: 'WHO, ITU-T H.870 (from memory)',
      check: { says: '80 dBA 40 h, 83 dBA 20 h', gives: [40, 20], within: 0.001 },
    },
    {
      id: 'monitoring-potential-acoustic-gain',
      quantity: 'potential acoustic gain',
      statement: '20 lg(D₀D₁/(D₂Dₛ)) − 10 lg NOM − 6',
      source: 'Davis and Patronis (from memory)',
      check: { says: '6, 4, 7, 0.3 m: 15.16 dB', gives: [15.16], within: 0.005 },
    },
  ],
  notes: `Where no volume is set, the one that brings the average to 75 dBA is shown; none over 85 dBA is ever proposed. These are
cautions, not advice on anyone's hearing.`,
} as const satisfies FormulaGroup
