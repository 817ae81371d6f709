import { seeded } from '../numeric/random'
import type { AnalogueInput, AudioInterface, InterfaceOutput } from '../gear'
import type { System } from '../model'

/** Mains hum at an input: its fundamental as dBu, and multiples against it in dB. */
export interface SimulatedHum {
  mains: 50 | 60
  level: number
  multiples: readonly { order: number; under: number }[]
}

/**
 * A simulated interface: what it truly does, with no knowledge of what its maker prints. Levels in dBu and dBFS, noise
 * A-weighted. Everything it does follows from these figures and the seed.
 */
export interface SimulatedInterface {
  seed: number
  input: {
    gainMin: number
    /** What the gain control truly gives at its top. */
    gainMax: number
    /** How the gain grows with the turn of the knob: 1 is even, more comes late. */
    taper: number
    /** dBu that reads 0 dBFS at the lowest gain. */
    fullScale: number
    /** dBu(A) with 150 Ω, at the highest gain. */
    ein: number
    /** How much noisier the EIN is at the lowest gain, dB; even between. */
    einRise: number
    /** Of the converter, dBFS(A). */
    converterNoise: number
    /** Ω. */
    impedance: number
    /** Second and third harmonic of a full-scale sine, dB under it. */
    harmonics: { second: number; third: number }
    /** Mean of the converter's output, part of full scale. */
    dc: number
    hum: SimulatedHum | null
  }
  /** The second input is like the first but for this, dB. */
  imbalance: number
  /** The second input turns polarity over. */
  secondInverts: boolean
  output: { fullScale: number; noise: number; impedance: number }
  wordLength: 16 | 24
  /** From the output's samples to the input's, frames besides the buffers; with a fraction. */
  latencyFrames: number
  /** How much faster the recording's clock runs than the playing one's, ppm. */
  driftPpm: number
  /** A buffer is lost every so many seconds; 0 for never. */
  dropoutEvery: number
}

/** Of nine simulated interfaces one runs on a clock of its own, and one on a machine that loses buffers: to learn how that looks. */
const [NUMBERS, DRIFTING, LOSING] = [9, 7, 8]

/** An output of which nothing is known. */
const USUAL_OUTPUT = { fullScale: 12, impedance: 100 }
/** Input impedances that are usual, Ω (common practice, no source). */
const USUAL_IMPEDANCE = { mic: 2400, line: 20_000, instrument: 1_000_000 } as const
/** How much noisier a simulated interface's preamp is at its lowest gain, dB: each is one of these. */
const EIN_RISES = [1.5, 0.5, 3] as const
/** An input that prints no EIN: as that of a fair line input. */
const USUAL_EIN = -110

/**
 * A unit such as the one on the bench may truly be: near its printed figures, and mostly a little worse. The seed decides by
 * how much; two units of one make have different seeds.
 */
export function simulatedFor(
  unit: AudioInterface,
  input: AnalogueInput,
  output: InterfaceOutput | null,
  system: System,
  seed: number,
): SimulatedInterface {
  const next = seeded(seed * 7919 + 17)
  next()
  const between = (low: number, high: number) => low + (high - low) * next()
  const { specs } = input
  const { converterIn = 0, converterOut = 0, safetyIn = 0, safetyOut = 0, fixed = 0 } = unit.latency ?? {}
  return {
    seed,
    input: {
      gainMin: specs.gainMin,
      gainMax: specs.gainMax - between(0.2, 1.4) * (specs.gainMax > specs.gainMin ? 1 : 0),
      taper: between(0.85, 1.35),
      fullScale: specs.fullScale + between(-0.9, 0.6),
      ein: Math.max(-131.5, (specs.ein ?? USUAL_EIN) + between(0.4, 2.2)),
      einRise: EIN_RISES[seed % EIN_RISES.length] as number,
      converterNoise: -specs.dynamicRange + between(0.5, 3),
      impedance: specs.impedance ?? USUAL_IMPEDANCE[input.type],
      harmonics: { second: between(92, 104), third: between(96, 110) },
      dc: between(-1, 1) * 2e-5,
      hum: {
        mains: seed % 3 === 0 ? 60 : 50,
        level: between(-116, -108),
        multiples: [
          { order: 2, under: 14 },
          { order: 3, under: 6 },
          { order: 5, under: 11 },
          { order: 7, under: 17 },
        ],
      },
    },
    imbalance: between(-0.5, 0.5),
    secondInverts: seed % 2 === 1,
    output: {
      fullScale: (output?.specs.fullScale ?? USUAL_OUTPUT.fullScale) + between(-0.6, 0.4),
      noise: -(output?.specs.dynamicRange ?? specs.dynamicRange) - between(6, 9),
      impedance: output?.specs.impedance ?? USUAL_OUTPUT.impedance,
    },
    wordLength: system.bitDepth === 16 ? 16 : 24,
    latencyFrames:
      converterIn + converterOut + safetyIn + safetyOut + (fixed * system.sampleRate) / 1000 + between(3, 60),
    driftPpm: seed % NUMBERS === DRIFTING ? 14 : 0,
    dropoutEvery: seed % NUMBERS === LOSING ? 0.7 : 0,
  }
}

/** The gain truly given where the unit says another: the whole range is a little off. */
export function gainSaid(simulated: SimulatedInterface, said: number, saidMax: number): number {
  const { gainMin, gainMax } = simulated.input
  return saidMax > gainMin ? gainMin + ((said - gainMin) * (gainMax - gainMin)) / (saidMax - gainMin) : gainMin
}

/** The gain truly given at a knob position, hours 7 to 17. */
export function gainAtPosition({ input: { gainMin, gainMax, taper } }: SimulatedInterface, position: number): number {
  const turn = Math.min(1, Math.max(0, (position - 7) / 10))
  return gainMin + (gainMax - gainMin) * turn ** taper
}
