import type { Gear } from '../gear'
import { inputSpecs, kinds, outputSpecs, isInterface } from '../gear'
import { parseDecimal } from '../units'
import { record } from './consistency/raw'
import type { Fault } from './fault'
import type { GearFileReading } from './gear-file'
import { GEAR_FORMAT, GEAR_VERSION, readGearFile } from './gear-file'

/**
 * Gear as a table of text, one row an item; an interface has a row for itself and one for each of its ports.
 *
 * Columns: `id`, `kind`, `name`, `origin`, `port` (`input:…` or `output:…` of an interface), one for every printed
 * specification, `measured` and `properties` (JSON: what else there is). A table that was written reads back the same.
 */
export function gearToTable(items: readonly Gear[]): string[][] {
  return [[...COLUMNS], ...items.flatMap(rowsOf).map((row) => COLUMNS.map((column) => row[column] ?? ''))]
}

type Row = Partial<Record<string, string>>

const SPECS = [
  ...new Set(
    [...Object.values(kinds).map((each) => each.allFields), inputSpecs, outputSpecs].flatMap((table) =>
      Object.keys(table),
    ),
  ),
  'einWeighting',
]
const COLUMNS = ['id', 'kind', 'name', 'origin', 'port', ...SPECS, 'measured', 'properties']
const TEXT_SPECS = new Set(['einWeighting'])

const json = (value: object | undefined) => (value && Object.keys(value).length > 0 ? JSON.stringify(value) : '')

function specCells(specs: object): Row {
  return Object.fromEntries(
    Object.entries(specs)
      .filter(([, value]) => value !== undefined)
      .map(([key, value]) => [key, String(value)]),
  )
}

function rowsOf(item: Gear): Row[] {
  const { id, kind, name, origin, ...rest } = item
  const head = { id, kind, name, origin: origin ?? '' }
  if (!isInterface(item)) {
    const { specs, measured, ...properties } = rest as { specs: object; measured?: object }
    return [{ ...head, ...specCells(specs), measured: json(measured), properties: json(properties) }]
  }
  const { inputs, outputs, ...properties } = rest as Pick<typeof item, 'inputs' | 'outputs'>
  const port =
    (side: string) =>
    (each: { id: string; specs?: object | undefined; measured?: object | undefined }): Row => {
      const { id: portId, specs, measured, ...more } = each
      return {
        ...head,
        origin: '',
        port: `${side}:${portId}`,
        ...specCells(specs ?? {}),
        measured: json(measured),
        properties: json(more),
      }
    }
  return [{ ...head, properties: json(properties) }, ...inputs.map(port('input')), ...outputs.map(port('output'))]
}

/** Reads such a table. Faults name the row as a spreadsheet counts it. */
export function gearFromTable(table: readonly (readonly string[])[]): GearFileReading {
  const [header = [], ...body] = table
  const columns = header.map((cell) => cell.trim())
  const wrong = (path: string, code: string, message: string): GearFileReading => ({
    ok: false,
    faults: [{ path, code, message }],
  })
  if (!columns.includes('id') || !columns.includes('kind'))
    return wrong(
      'row 1',
      'other-format',
      'The first row names the columns, with "id" and "kind" among them. Choose a gear table, or export one to see its columns.',
    )
  const strange = columns.find((column) => !COLUMNS.includes(column))
  if (strange !== undefined)
    return wrong(
      'row 1',
      'unknown-key',
      `The column "${strange.slice(0, 40)}" is not known. Remove it, or check its spelling.`,
    )

  const items = new Map<string, ItemFromRows>()
  const refused: Fault[] = []
  for (const [i, cells] of body.entries()) {
    if (cells.every((cell) => cell.trim() === '')) continue
    const number = i + 2
    const row = Object.fromEntries(columns.map((column, k) => [column, cells[k] ?? '']))
    const fault = row.port ? addPort(items, row, number) : addItem(items, row, number)
    if (fault) refused.push({ path: `row ${number}`, ...fault })
  }
  if (refused.length > 0) return { ok: false, faults: refused.slice(0, 100) }
  const parts = [...items.values()]
  const reading = readGearFile({ format: GEAR_FORMAT, version: GEAR_VERSION, items: parts.map((each) => each.item) })
  return reading.ok
    ? reading
    : { ok: false, faults: reading.faults.map((each) => ({ ...each, path: rowPath(each.path, parts) })) }
}

/** An item as it is gathered from its rows, with the row of every part. */
interface ItemFromRows {
  item: Record<string, unknown>
  row: number
  ports: Record<'inputs' | 'outputs', { part: object; row: number }[]>
}
type Refusal = Pick<Fault, 'code' | 'message'>
type Cells = Record<string, string>

function addItem(items: Map<string, ItemFromRows>, row: Cells, number: number): Refusal | null {
  const id = String(row.id)
  const before = items.get(id)
  if (before)
    return {
      code: 'duplicate-id',
      message: `The id "${id.slice(0, 64)}" stands in row ${before.row} already. Give each item its own.`,
    }
  const read = partFrom(row)
  if ('code' in read) return read
  const ports = { inputs: [], outputs: [] }
  const { specs, measured, properties } = read
  const item = {
    ...properties,
    id,
    kind: row.kind,
    name: row.name,
    ...(row.origin && { origin: row.origin }),
    ...(!isInterface(row) && { specs }),
    ...(measured !== undefined && { measured }),
  }
  items.set(id, { item, row: number, ports })
  return null
}

function addPort(items: Map<string, ItemFromRows>, row: Cells, number: number): Refusal | null {
  const unit = items.get(String(row.id))
  if (!isInterface(unit?.item))
    return {
      code: 'order',
      message: `This row is a port of "${String(row.id).slice(0, 64)}", which has no row before it as an interface. Put the unit’s own row first.`,
    }
  const [side, ...rest] = String(row.port).split(':')
  if (side !== 'input' && side !== 'output')
    return {
      code: 'not-an-option',
      message: `The port is "${String(row.port).slice(0, 40)}". Write input: or output: and its id.`,
    }
  const read = partFrom(row)
  if ('code' in read) return read
  const { specs, measured, properties } = read
  const part = {
    ...properties,
    id: rest.join(':'),
    ...(Object.keys(specs).length > 0 && { specs }),
    ...(measured !== undefined && { measured }),
  }
  const list = unit.ports[side === 'input' ? 'inputs' : 'outputs']
  list.push({ part, row: number })
  unit.item[`${side}s`] = list.map((each) => each.part)
  return null
}

/** The path of a fault with the row that it is about in place of the item's number. */
function rowPath(path: string, parts: readonly ItemFromRows[]): string {
  const [, n, side, m, rest] = /^items\[(\d+)\](?:\.(inputs|outputs)\[(\d+)\])?(.*)$/.exec(path) ?? []
  const item = parts[Number(n)]
  if (!item) return path
  const port = item.ports[side as 'inputs' | 'outputs']?.[Number(m)]
  return `row ${port?.row ?? item.row}${rest ?? ''}`
}

/** What stands in a column of its own, or in a row of its own: properties cannot say it once more. */
const COLUMNED = ['id', 'kind', 'name', 'origin', 'specs', 'measured', 'inputs', 'outputs']

interface RowParts {
  specs: Record<string, unknown>
  measured: unknown
  properties: Record<string, unknown>
}

/** The specifications, measurements and further properties of a row, or what is wrong with one of its cells. */
function partFrom(row: Cells): RowParts | Refusal {
  const specs = Object.fromEntries(
    SPECS.filter((key) => (row[key] ?? '').trim() !== '').map((key) => [
      key,
      TEXT_SPECS.has(key) ? row[key] : numberOr(row[key] ?? ''),
    ]),
  )
  const parts: Record<string, unknown> = {}
  for (const column of ['measured', 'properties'] as const) {
    const text = (row[column] ?? '').trim()
    if (text === '') continue
    try {
      parts[column] = JSON.parse(text)
    } catch (error) {
      const why = error instanceof SyntaxError ? error.message.slice(0, 100) : 'unreadable'
      return { code: 'not-json', message: `The cell "${column}" is not JSON (${why}). Correct it, or leave it empty.` }
    }
  }
  const properties = record(parts.properties)
  const twice = COLUMNED.find((key) => key in properties)
  if (twice !== undefined)
    return { code: 'twice', message: `"properties" holds "${twice}", which has a place of its own. Take it out there.` }
  return { specs, measured: parts.measured, properties }
}

/** A number as programs write very small and very large ones. */
const EXPONENT = /^[+-]?\d+(\.\d+)?e[+-]?\d+$/i

/** A number where the cell holds one; otherwise the text, for the reader to refuse in words. */
function numberOr(cell: string): number | string {
  const value = parseDecimal(cell)
  return typeof value === 'number' ? value : EXPONENT.test(cell.trim()) ? Number(cell) : cell
}
