import { rateMismatch } from '../../latency/rate-mismatch'
import { formatDecimal, formatShort } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { SessionView } from '../view'

/** Devices that run at another rate than the session. */
const others = ({ session: { system } }: SessionView) =>
  (system.devices ?? []).filter(({ sampleRate }) => sampleRate !== system.sampleRate)

/** What is heard where material of one rate is clocked at another, with figures. */
export function rateWords(material: number, clock: number): string {
  const { longer, semitones } = rateMismatch(material, clock)
  return `${formatDecimal(Math.abs(semitones), 2)} semitones ${semitones < 0 ? 'flat' : 'sharp'} and ${formatDecimal(Math.abs(longer), 2)} % ${longer > 0 ? 'longer' : 'shorter'}`
}

export const ratesDiffer: Cause = {
  title: 'Two sample rates',
  prior: 10,
  symptoms: { pitch: 0.95, crackle: 0.2 },
  when: { changed: 1.5, regular: 1.5 },
  codes: ['rate-mismatch', 'rate-not-offered', 'rate-lacking'],
  shows: { 'read-rates': { differ: 0.96 }, 'one-file': { all: 0.97 }, 'count-ticks': { regular: 0.5, random: 0.5 } },
  present: ({ all }) => others(all).length > 0,
  evidence: ({ all }) => {
    const { sampleRate } = all.session.system
    const [other] = others(all)
    if (!other)
      return (all.session.system.devices ?? []).length > 0
        ? [says('All devices listed run at the session’s rate.', 0.15)]
        : []
    return [
      says(
        `“${other.name}” runs at ${formatShort(other.sampleRate / 1000)} kHz, the session at ${formatShort(sampleRate / 1000)} kHz: its material plays here ${rateWords(other.sampleRate, sampleRate)}.`,
        20,
      ),
    ]
  },
  fixes: ({ all: { session } }) => [
    {
      says: `Set every device to ${formatShort(session.system.sampleRate / 1000)} kHz.`,
      changes: [
        {
          do: 'system',
          set: {
            devices: (session.system.devices ?? []).map((each) => ({ ...each, sampleRate: session.system.sampleRate })),
          },
        },
      ],
    },
  ],
  byHand: 'Set the same rate in every device and program, and let one of them give the clock.',
  after: 'Play a tone of 1 kHz through all of it and look at its frequency.',
}

export const fileUnconverted: Cause = {
  title: 'A file of another sample rate was imported without conversion',
  prior: 6,
  symptoms: { pitch: 0.9 },
  shows: { 'one-file': { one: 0.96 }, 'read-rates': { same: 0.97 } },
  byHand:
    'Import the file again with conversion, or set its true rate. 44.1 kHz material at 48 kHz is 1.47 semitones sharp and 8.13 % shorter. The reverse is 1.47 semitones flat and 8.84 % longer.',
  after: 'Compare its length with the original’s.',
}
