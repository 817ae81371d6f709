/** Reading and writing of decimals as people do: comma or point, a true minus sign, no exponent. */

const DECIMAL = /^[+\-−–]?(\d+([.,]\d*)?|[.,]\d+)$/

/** A comma with three digits behind it and one to three before it: ten thousand to some, ten to others. */
const AMBIGUOUS = /^[+\-−–]?[1-9]\d{0,2}(,\d{3})+$/

/**
 * The number in a text; `null` where there is none, `'ambiguous'` where a comma could part thousands or decimals.
 * Takes a decimal comma, a typographic minus and spaces around.
 * Examples: '−12,5' is −12.5; '0,125' is 0.125; '10,000' is ambiguous.
 */
export function parseDecimal(text: string): number | 'ambiguous' | null {
  const digits = text.replace(/\s/g, '')
  if (AMBIGUOUS.test(digits)) return 'ambiguous'
  if (!DECIMAL.test(digits)) return null
  const value = Number(digits.replace(',', '.').replace(/[−–]/, '-'))
  return Number.isFinite(value) ? value : null
}

/** A number with fixed decimals and a true minus; an absent or non-finite value is a dash, never "NaN". */
export function formatDecimal(value: number | null | undefined, digits: number): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–'
  const scale = 10 ** digits
  const scaled = Math.round(Math.abs(value) * scale)
  const text = scaled < MOST_EXACT ? fixed(scaled, scale, digits) : Math.abs(value).toFixed(digits)
  return value < 0 && scaled !== 0 ? `−${text}` : text
}

/** Up to here every whole number is exact. */
const MOST_EXACT = Number.MAX_SAFE_INTEGER

/** What `toFixed` gives, from the scaled whole number; several times as fast, and an evaluation writes dozens of numbers. */
function fixed(scaled: number, scale: number, digits: number): string {
  if (digits === 0) return String(scaled)
  const fraction = scaled % scale
  return `${(scaled - fraction) / scale}.${String(fraction).padStart(digits, '0')}`
}

/** A level with its sign always shown, for references that run both ways (dBu). */
export function formatSigned(value: number | null | undefined, digits: number): string {
  const text = formatDecimal(value, digits)
  return value !== null && value !== undefined && Number.isFinite(value) && value > 0 && Number(text) !== 0
    ? `+${text}`
    : text
}

/** A value with as many decimals as it needs, at most `digits`: 150, 0.3, −127.4. */
export function formatShort(value: number, digits = 2): string {
  const text = formatDecimal(value, digits)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}
