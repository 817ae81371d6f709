import type { Gear } from './gear'
import { inputSpecs, outputSpecs } from './gear'
import type { GearFileReading } from './gear-file'
import { GEAR_FORMAT, GEAR_VERSION, readGearFile } from './gear-file'
import { specFields } from './spec-fields'

/**
 * Gear as a table of text, one row an item; an interface has a row for itself and one for each of its ports.
 *
 * Columns: `id`, `kind`, `name`, `origin`, `port` (`input:…` or `output:…` of an interface), one for every printed
 * specification, `measured` and `properties` (JSON: what else there is). A table that was written reads back the same.
 */
export function gearToTable(items: readonly Gear[]): string[][] {
  return [[...COLUMNS], ...items.flatMap(rowsOf).map((row) => COLUMNS.map((column) => guarded(row[column] ?? '')))]
}

type Row = Partial<Record<string, string>>

const SPECS = [
  ...new Set([...Object.values(specFields), inputSpecs, outputSpecs].flatMap((table) => Object.keys(table))),
  'einWeighting',
]
const COLUMNS = ['id', 'kind', 'name', 'origin', 'port', ...SPECS, 'measured', 'properties']
const TEXT_SPECS = new Set(['einWeighting'])

/**
 * A cell that a spreadsheet would take for a formula gets an apostrophe before it, and so does one that begins with
 * an apostrophe: reading takes exactly one away.
 */
const guarded = (cell: string) => (/^['=+\-@\t\r]/.test(cell) ? `'${cell}` : cell)
const unguarded = (cell: string) => (cell.startsWith("'") ? cell.slice(1) : cell)

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
  if (item.kind !== 'interface') {
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

  const items = new Map<string, Record<string, unknown>>()
  const rowOf: number[] = []
  for (const [i, cells] of body.entries()) {
    if (cells.every((cell) => cell.trim() === '')) continue
    const row = Object.fromEntries(columns.map((column, k) => [column, unguarded(cells[k] ?? '')]))
    const read = partFrom(row)
    if (typeof read === 'string') return wrong(`row ${i + 2}`, 'not-json', read)
    const id = String(row.id)
    const [side, port] = [row.port?.split(':')[0], row.port?.split(':').slice(1).join(':')]
    if (!row.port) {
      const { specs, ...more } = read
      items.set(id, {
        id,
        kind: row.kind,
        name: row.name,
        ...(row.origin && { origin: row.origin }),
        ...more,
        ...(row.kind === 'interface' ? { inputs: [], outputs: [] } : { specs }),
      })
      rowOf.push(i + 2)
      continue
    }
    const unit = items.get(id)
    const list = unit?.[side === 'output' ? 'outputs' : 'inputs']
    if (!Array.isArray(list))
      return wrong(
        `row ${i + 2}`,
        'order',
        `This row is a port of "${id.slice(0, 64)}", which has no row before it. Put the unit's own row first.`,
      )
    const { specs, ...more } = read
    list.push({ id: port, ...more, ...(Object.keys(specs).length > 0 && { specs }) })
  }
  const reading = readGearFile({ format: GEAR_FORMAT, version: GEAR_VERSION, items: [...items.values()] })
  if (reading.ok) return reading
  return {
    ok: false,
    faults: reading.faults.map((fault) => ({
      ...fault,
      path: fault.path.replace(/^items\[(\d+)\]/, (_, n) => `row ${rowOf[Number(n)]}`),
    })),
  }
}

/** The specifications, measurements and further properties of a row; a text where one of its JSON cells is broken. */
function partFrom(row: Record<string, string>): { specs: Record<string, unknown>; measured?: unknown } | string {
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
      return `The cell "${column}" is not JSON (${error instanceof SyntaxError ? error.message.slice(0, 100) : 'unreadable'}). Mend it, or leave it empty.`
    }
  }
  return {
    ...(typeof parts.properties === 'object' ? parts.properties : {}),
    specs,
    ...(parts.measured !== undefined && { measured: parts.measured }),
  }
}

/** A number where the cell holds one, with a decimal comma too; otherwise the text, for the reader to refuse in words. */
function numberOr(cell: string): number | string {
  const value = Number(cell.trim().replace(',', '.').replace('−', '-'))
  return Number.isFinite(value) ? value : cell
}
