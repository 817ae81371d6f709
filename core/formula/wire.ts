import type { FormulaGroup } from './formula'

export const wire = {
  title: 'From the air to the wire',
  formulas: [
    {
      id: 'wire-microphone-open-circuit',
      quantity: 'microphone, open circuit',
      statement: 'SPL − 93.979 + 20 lg(S/1000) + 2.2185 dBu, S in mV/Pa',
      tex: 'L_u = L_p - 93.98 + 20\\,\\lg\\frac{S}{1000} + 2.22',
      source: 'definition of sensitivity',
      check: { says: '10 mV/Pa at 94 dB SPL: −37.8 dBu', gives: [-37.8], within: 0.05 },
    },
    {
      id: 'wire-microphone-digital',
      quantity: 'microphone with a converter of its own',
      statement: 'SPL − 94 + S + gain dBFS, S its level at 94 dB SPL with the gain at its minimum',
      tex: 'L_{FS} = L_p - 94 + S + G',
      source: 'definition of sensitivity; IEC 60268-4 gives it for digital microphones (from memory)',
      check: { says: '−38 dBFS at 94 dB SPL, gain 20 dB up, 74 dB SPL: −38 dBFS', gives: [-38], within: 0.005 },
    },
    {
      id: 'wire-pattern-of-a-diffuse-room',
      quantity: 'pattern, of a diffuse room',
      statement: '10 lg(a² + b²/3), a + b = 1: random energy efficiency; left out: omnidirectional, the cautious case',
      tex: '10\\,\\lg\\left(a^2 + \\frac{b^2}{3}\\right)',
      source: 'handbook acoustics',
      check: {
        says: 'cardioid −4.77, super −5.72, hyper −6.02, figure-8 −4.77, wide −2.34 dB',
        gives: [-4.77, -5.72, -6.02, -4.77, -2.34],
        within: 0.005,
      },
    },
    {
      id: 'wire-off-its-axis',
      quantity: 'off its axis',
      statement: "20 lg |a + b cos φ|, not below −40 dB (common practice); the capsule's limit moves with it",
      tex: '20\\,\\lg\\left|a + b\\cos\\varphi\\right|',
      source: 'as above',
      check: { says: 'cardioid at 90°: −6.02 dB', gives: [-6.02], within: 0.005 },
    },
    {
      id: 'wire-its-ceiling',
      quantity: 'its ceiling',
      statement: "maximum SPL, shown at the source's point; through its gain at its own",
      source: "makers' convention",
      check: { says: 'see the worked example', gives: [44.55], within: 0.005 },
    },
    {
      id: 'wire-loading',
      quantity: 'loading',
      statement: '−20 lg(1 + Zs/Zl), on signal, room and own noise alike',
      tex: '-20\\,\\lg\\left(1 + \\frac{Z_s}{Z_l}\\right)',
      source: 'voltage divider',
      check: { says: '150 Ω into 1.5 kΩ: −0.83 dB', gives: [-0.83], within: 0.005 },
    },
    {
      id: 'wire-a-load-to-speak-of',
      quantity: 'a load to speak of',
      statement: 'below 5 times the source; 10 times is the bridging rule',
      source: 'common practice',
      check: {
        says: 'as the test says',
        test: '../unit/findings.test.ts',
        named: 'loading worse than 1:5 names the ratio and the loss',
      },
    },
    {
      id: 'wire-a-coil',
      quantity: 'a coil',
      statement:
        '−20 lg |1 + (R + jωL)(1/Zl + jωC)|: coil, cable and load are one circuit; it resonates at 1/(2π√(LC)). A volume pot of Rp at x is ((1 − x)·Rp + R) ‖ x·Rp before the cable',
      source: 'network theory',
      check: {
        says: '7 kΩ, 4 H into 20 kΩ: −2.6 dB at 100 Hz, −16.2 at 5 kHz; 500 pF: 3.56 kHz',
        gives: [-2.6, -16.2],
        within: 0.06,
      },
    },
    {
      id: 'wire-a-passive-volume-knob',
      quantity: 'a passive volume knob',
      statement: "a loss inside the source; the connection behind it stays an instrument's",
      source: 'definition here',
      check: { says: '6 dB down: −6 dB at the next input', gives: [-6], within: 0.005 },
    },
    {
      id: 'wire-di-box-turns-ratio-n',
      quantity: 'DI box, turns ratio n',
      statement: '−20 lg n',
      tex: '-20\\,\\lg n',
      source: 'transformer',
      check: { says: '12 : 1: −21.58 dB', gives: [-21.58], within: 0.005 },
    },
    {
      id: 'wire-pad',
      quantity: 'pad',
      statement: '−loss, between its printed impedances',
      source: 'definition here',
      check: { says: '20 dB: −20', gives: [-20], within: 0.001 },
    },
    {
      id: 'wire-an-unbalanced-input-at-a-balanced-output',
      quantity: 'an unbalanced input at a balanced output',
      statement:
        '−20 lg 2 where both legs are driven; 0 where one is (impedance-balanced), and of a floating output (transformer, moving coil, ribbon, passive DI box)',
      source: 'voltage',
      check: { says: '−6.02 dB; 0', gives: [-6.02, 0], within: 0.005 },
    },
    {
      id: 'wire-a-cable-s-corner',
      quantity: "a cable's corner",
      statement: 'f = 1/(2πRC), 100 pF/m and 6 m where not given (common practice)',
      source: 'low-pass',
      check: { says: '250 kΩ, 600 pF: 1.06 kHz', gives: [1061], within: 1 },
    },
    {
      id: 'wire-low-cut',
      quantity: 'low cut',
      statement: '10 lg(1 + (fc/f)^(2n)), n = slope / 6 dB/oct',
      source: 'Butterworth',
      check: { says: '80 Hz, 12 dB/oct: 12.3 dB at 40 Hz', gives: [12.3], within: 0.05 },
    },
  ],
  notes: `**Connections.** The loss by loading and by an unbalanced input belongs to the connection. A stage's own point shows its open-circuit level. The loss is seen at the next stage's input, before anything there can clip. A microphone's and an electric source's own
point shows it loaded. A passive pickup below 1 : 1.5 is a stop, any connection below 1 : 5 a caution.`,
} as const satisfies FormulaGroup
