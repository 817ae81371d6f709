/** A place in a picture, px. */
export interface Place {
  x: number
  y: number
}

/** Tenths of a pixel are all that is seen. */
export const round = (value: number) => Math.round(value * 10) / 10

/** Level along the plateaus, level at both ends of every slope: a cubic with flat tangents there. */
export function curve(places: readonly Place[]): string {
  return places
    .map(({ x, y }, i) => {
      const before = places[i - 1]
      if (!before) return `M${round(x)} ${round(y)}`
      if (before.y === y) return `H${round(x)}`
      const third = (x - before.x) / 3
      return `C${round(before.x + third)} ${round(before.y)} ${round(x - third)} ${round(y)} ${round(x)} ${round(y)}`
    })
    .join('')
}

/** From a line straight to the edge of the frame and back. */
export function closed(places: readonly Place[], edge: number): string {
  const [first, last] = [places[0], places.at(-1)]
  return first && last ? `${curve(places)}L${round(last.x)} ${edge}H${round(first.x)}Z` : ''
}

/** Between two lines over the same columns. */
export function between(upper: readonly Place[], lower: readonly Place[]): string {
  const back = curve([...lower].reverse())
  return upper.length > 0 && back !== '' ? `${curve(upper)}${back.replace('M', 'L')}Z` : ''
}
