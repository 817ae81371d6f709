import type { Measurement, NumberField, Tolerance, ValueOrigin, StatedTolerance } from '#core/model'

/** A figure, where it is from, and how each part of that is edited. */
export interface KnownOfValue {
  name: string
  field: NumberField
  printed: number | undefined
  /** Of the value in force. */
  origin: ValueOrigin
  measured: Measurement | undefined
  /** How far a printed or assumed value may be off; `null` for what is certain. */
  tolerance: Tolerance | null
  ownTolerance: StatedTolerance | undefined
  editPrinted: (value: number | undefined) => string | null
  editMeasured: (measurement: Measurement | undefined) => string | null
  editTolerance: (stated: StatedTolerance | undefined) => string | null
}
