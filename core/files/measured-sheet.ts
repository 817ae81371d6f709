import { z } from '../model/z'
import type { Fault } from './fault'
import { describeReceived } from './fault'
import { parseSessionText } from './read'
import { faultsFrom } from './structure'

export const SHEET_FORMAT = 'remetra.measured-sheet'
export const SHEET_VERSION = 1

const text = (most: number) => z.string().check(z.maxLength(most))
const finite = z.number().check(z.minimum(-1e6), z.maximum(1e6))

/** What the figures of a measured sheet are about, in the order in which they stand. */
export const sheetGroups = ['Level', 'Gain', 'Noise', 'Distortion', 'Response', 'Channels', 'Time'] as const
export type SheetGroup = (typeof sheetGroups)[number]

const figure = z.strictObject({
  /** The same figure of two units has the same one. */
  id: text(60),
  group: z.enum(sheetGroups),
  name: text(120),
  unit: text(20),
  digits: z.number().check(z.int(), z.minimum(0), z.maximum(4)),
  value: finite,
  /** Standard uncertainty; twice of it is shown as ±. */
  u: z.number().check(z.minimum(0), z.maximum(1e6)),
  method: text(300),
  printed: z.nullable(finite),
  judgement: text(300),
  /** Of a simulated interface. */
  truth: z.nullable(finite),
  /** Why it is not to be relied on; `null` for a good one. */
  doubt: z.nullable(text(300)),
})
export type MeasuredFigure = z.infer<typeof figure>

const mark = z.strictObject({
  /** Hours on a clock face; or what the unit’s scale says, dB. */
  position: z.optional(finite),
  said: z.optional(finite),
  /** Over the lowest, dB. */
  gain: finite,
  u: z.number().check(z.minimum(0), z.maximum(1e6)),
  /** With the cable in, dBFS(A). */
  noise: z.nullable(finite),
})

/** A measured data sheet: one input and output of a unit, on one day. */
export const measuredSheet = z.strictObject({
  unit: text(200),
  input: text(64),
  output: text(64),
  on: z.iso.date(),
  sampleRate: z.number().check(z.minimum(8000), z.maximum(768_000)),
  /** Made on a simulated interface, for practice. */
  practice: z.boolean(),
  figures: z.array(figure).check(z.maxLength(100)),
  response: z.array(z.strictObject({ frequency: finite, level: finite })).check(z.maxLength(200)),
  marks: z.array(mark).check(z.maxLength(100)),
  remarks: z.array(text(500)).check(z.maxLength(100)),
})
export type MeasuredSheet = z.infer<typeof measuredSheet>

export type SheetReading = { ok: true; sheet: MeasuredSheet } | { ok: false; faults: Fault[] }

/** Reads the text of a measured sheet; all faults at once, nothing taken where there is one. */
export function readMeasuredSheet(source: string): SheetReading {
  const refuse = (path: string, code: string, message: string): SheetReading => ({
    ok: false,
    faults: [{ path, code, message }],
  })
  const json = parseSessionText(source, 'measured sheet')
  if (!json.ok) return json
  const { raw } = json
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    return refuse(
      '',
      'other-format',
      `A measured sheet is one object; this file holds ${describeReceived(raw)}. Choose a measured sheet.`,
    )
  const { format, version, ...rest } = raw as Record<string, unknown>
  if (format !== SHEET_FORMAT)
    return refuse(
      'format',
      'other-format',
      `The format is ${describeReceived(format)}, not "${SHEET_FORMAT}". Choose a measured sheet.`,
    )
  if (version !== SHEET_VERSION)
    return refuse(
      'version',
      'no-such-version',
      `The version is ${describeReceived(version)}; this program knows ${SHEET_VERSION}. Nothing was changed.`,
    )
  const parsed = measuredSheet.safeParse(rest)
  return parsed.success
    ? { ok: true, sheet: parsed.data }
    : { ok: false, faults: faultsFrom(parsed.error.issues, rest) }
}

/** The text of a measured sheet: reading and writing it again gives the same bytes. */
export const writeMeasuredSheet = (sheet: MeasuredSheet): string =>
  `${JSON.stringify({ format: SHEET_FORMAT, version: SHEET_VERSION, ...measuredSheet.parse(sheet) }, null, 2)}\n`
