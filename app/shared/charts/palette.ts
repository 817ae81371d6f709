/** The colours that a chart is drawn with, read from the theme. */
export interface Palette {
  ink: string
  muted: string
  line: string
  sheet: string
  ceiling: string
  floor: string
  change: string
  body: string
  lip: string
  onBody: string
}

/** Reads the theme’s tokens where an element stands. */
export function readPalette(element: Element): Palette {
  const style = getComputedStyle(element)
  const token = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    ink: token('ink'),
    muted: token('muted'),
    line: token('line'),
    sheet: token('sheet'),
    ceiling: token('ceiling'),
    floor: token('floor'),
    change: token('change'),
    body: token('body'),
    lip: token('lip'),
    onBody: token('on-body'),
  }
}
