/** Reading and writing of decimals as people do: comma or point, a true minus sign, no exponent. */

const DECIMAL = /^[+\-−–]?(\d+([.,]\d*)?|[.,]\d+)$/

/**
 * The number in a typed text, or `null` where there is none.
 * Takes a decimal comma, a typographic minus and spaces around; a trailing unit is allowed where it is the expected one.
 * Example: `parseDecimal('−12,5 dB', 'dB')` is −12.5.
 */
export function parseDecimal(text: string, unit = ''): number | null {
  let digits = text.trim()
  if (unit && digits.toLowerCase().endsWith(unit.toLowerCase())) digits = digits.slice(0, -unit.length)
  digits = digits.replace(/\s/g, '')
  if (!DECIMAL.test(digits)) return null
  const value = Number(digits.replace(',', '.').replace(/[−–]/, '-'))
  return Number.isFinite(value) ? value : null
}

/** A number with fixed decimals and a true minus; an absent or non-finite value is a dash, never "NaN". */
export function formatDecimal(value: number | null | undefined, digits: number): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–'
  const text = Math.abs(value).toFixed(digits)
  return value < 0 && Number(text) !== 0 ? `−${text}` : text
}

/** A level with its sign always shown, for references that run both ways (dBu). */
export function formatSigned(value: number | null | undefined, digits: number): string {
  const text = formatDecimal(value, digits)
  return value !== null && value !== undefined && Number.isFinite(value) && value > 0 && Number(text) !== 0 ? `+${text}` : text
}

/** A value with as many decimals as it needs, at most `digits`: 150, 0.3, −127.4. */
export function formatShort(value: number, digits = 2): string {
  const text = formatDecimal(value, digits)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}
