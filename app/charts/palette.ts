/** The colours and fills that a chart is drawn with, read from the theme. */
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
  hatch: CanvasPattern | string
  stipple: CanvasPattern | string
}

/** Reads the theme’s tokens where an element stands, and paints the two pattern fills with them. */
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
    hatch: hatch(token('ceiling-soft'), token('ceiling')),
    stipple: stipple(token('floor-soft'), token('floor')),
  }
}

/** Slanted strokes, as rock is drawn in a section. */
const hatch = (ground: string, stroke: string) =>
  pattern(9, ground, (context, size) => {
    context.strokeStyle = stroke
    context.globalAlpha = 0.45
    context.beginPath()
    for (const shift of [-size, 0, size]) {
      context.moveTo(shift, size)
      context.lineTo(shift + size, 0)
    }
    context.stroke()
  })

/** Dots, as gravel is drawn in a section. */
const stipple = (ground: string, dot: string) =>
  pattern(10, ground, (context) => {
    context.fillStyle = dot
    context.globalAlpha = 0.55
    for (const [x, y] of [
      [2, 3],
      [7, 8],
    ] as const) {
      context.beginPath()
      context.arc(x, y, 0.8, 0, 2 * Math.PI)
      context.fill()
    }
  })

function pattern(
  size: number,
  ground: string,
  paint: (context: CanvasRenderingContext2D, size: number) => void,
): CanvasPattern | string {
  const tile = document.createElement('canvas')
  tile.width = tile.height = size
  const context = tile.getContext('2d')
  if (!context) return ground
  context.fillStyle = ground
  context.fillRect(0, 0, size, size)
  paint(context, size)
  return context.createPattern(tile, 'repeat') ?? ground
}
