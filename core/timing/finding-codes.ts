import type { FindingFacts } from '../checks/finding-codes'
import { findingCodes } from '../checks/finding-codes'
import { MOST_LOAD } from '../latency/cpu-load'

const COMMON = 'common practice, no source'
const DEFINITION = 'definition'

/** Every finding about the clock, the driver, the measurements and the disk. docs/findings.md is made from this table. */
export const timingFindingCodes = {
  'no-interface': {
    title: 'no interface',
    cause: 'No strip reaches an interface.',
    rule: 'No interface input among the stages.',
    source: DEFINITION,
  },
  'rate-not-offered': findingCodes['rate-not-offered'],
  'rate-mismatch': {
    title: 'two sample rates',
    cause: 'Another device or program is set to another rate than the session.',
    rule: 'Played at another rate, material changes its speed and pitch by the ratio of the rates: 12·lb of it in semitones.',
    source: DEFINITION,
  },
  'outlier': {
    title: 'a measurement does not fit the others',
    cause: 'Another buffer, another route or a restarted driver was measured.',
    rule: 'A round trip that lies away from the fit of the others by more than their spread allows, with 95 % confidence.',
    source: 'Student’s t over the residuals, handbook statistics',
  },
  'fit': {
    title: 'what the measurements cannot show',
    cause: 'One rate or one buffer size only was measured, or the fit would want a negative time.',
    rule: 'Least squares of k·N + c frames and t milliseconds, none of them negative.',
    source: 'handbook statistics',
  },
  'rate-lacking': {
    title: 'a measurement at a rate the unit does not offer',
    cause: 'A rate was mistyped, or the unit’s list of rates is not complete.',
    rule: 'A round trip at a rate that is not on the list.',
    source: DEFINITION,
  },
  'measurements-differ': {
    title: 'measurements of one cell differ',
    cause: 'Some drivers restart with another delay each time.',
    rule: 'Two round trips at one rate and buffer that lie more than 0.5 ms apart.',
    source: COMMON,
  },
  'shorter-than-buffer': {
    title: 'shorter than one buffer',
    cause: 'The direct monitoring path was measured instead of the way through the host.',
    rule: 'A round trip under N/fs.',
    source: DEFINITION,
  },
  'load-assumption': {
    title: 'the load is known at one buffer only',
    cause: 'One reading of the load meter.',
    rule: 'With one buffer size read, a smaller one loads at least as much, a larger one at most.',
    source: DEFINITION,
  },
  'shared-period': {
    title: 'the shared mixer’s period is not known',
    cause: 'The driver is shared with the system’s mixer, which has a period of its own.',
    rule: 'Driver "shared" without its period.',
    source: COMMON,
  },
  'not-sustained': {
    title: 'the buffer drops out',
    cause: 'The machine does not finish its work within one buffer.',
    rule: `A dropout in a trial at this buffer, or a load of the model’s limit or more (${MOST_LOAD} %).`,
    source: COMMON,
  },
  'wav-limit': {
    title: 'a file grows past 4 GiB',
    cause: 'A long take, a high rate, or many channels in one file.',
    rule: 'Seconds · rate · bytes · channels over 2³² − 1.',
    source: 'RIFF: its size is a number of 32 bits',
  },
} as const satisfies Record<string, FindingFacts>

export type TimingFindingCode = keyof typeof timingFindingCodes
