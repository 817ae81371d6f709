import type { Place } from '~/shared/section/section-curves'
import { between, closed, curve, round } from '~/shared/section/section-curves'
import type { Confluence, SectionColumn, SectionModel, Tributary } from '~/shared/section/section-model'

/** Width of the ruler at the left, px: the cards below begin where it ends. */
export const RULER = 52

/** Colours by what they stand for; the style sheet knows them in either theme and on paper. */
export type Tone = 'ink' | 'muted' | 'line' | 'ceiling' | 'floor' | 'body' | 'on-body'

export interface TextShape {
  words: string
  x: number
  y: number
  tone: Tone
  anchor: 'start' | 'middle' | 'end'
  size: number
  bold: boolean
  mono: boolean
  /** Written upwards, along a narrow place. */
  upright?: true
  /** Words on a small ground, so that a pattern behind them does not break the letters. */
  plate: boolean
  /** The figure that it tells: what it is made of can be asked for. */
  figure?: { stage: string; figure: string }
}
export interface LineShape {
  path: string
  tone: Tone
  width: number
  dash?: string
  /** Tips are filled. */
  filled?: boolean
}

/** The section as shapes: areas of the river, lines, lettering. */
export interface SectionDrawing {
  areas: { ceiling: string; surge: string; body: string; floor: string }
  /** How far the edges of the band and of the bed may be off; empty where it is not shown. */
  penumbra: { surge: string; average: string; floor: string }
  /** What flows into a bus, the quietest first. */
  tributaries: { strip: string; path: string; x: number; y: number }[]
  /** Where the first column begins, px. */
  left: number
  edges: { ceiling: string; surge: string; floor: string }
  lines: LineShape[]
  texts: TextShape[]
  /** px of a decibel. */
  perDb: number
  columnWidth: number
  y: (level: number) => number
}

/** Where a column’s level stands still; between two columns the band runs from the one level to the other. */
const PLATEAU = { from: 0.15, to: 0.85 }

/** Width of what flows into a bus, in columns. */
export const INFLOW = 1.4
/** Part of it in which the strips stand side by side; in the rest they flow together. */
const SIDE_BY_SIDE = 0.62

/** Pixels below which a piece of the picture has no room for its words. */
const LEGIBLE = 15

/** Pixels of width below which a column has no room for units beside its numbers. */
const NARROW = 130
/** What a headroom and the words beside it take, px. */
const BESIDE_HEADROOM = 145

/** Width of a character of the monospaced face in parts of its size. */
const MONO = 0.6

const PLAIN = { anchor: 'start', size: 11.5, bold: true, mono: false, plate: false } as const

/** Draws a section into a frame of a size, px. A pure function of what is shown. */
export function drawSection(model: SectionModel, width: number, height: number): SectionDrawing {
  return new Drawing(model, width, height).drawn()
}

type LevelOf = (column: SectionColumn) => number | null

class Drawing {
  private readonly texts: TextShape[] = []
  private readonly lines: LineShape[] = []
  private inflow: Place[] = []
  private readonly columnWidth: number
  private readonly narrow: boolean
  /** Where the columns begin: behind the ruler, and on a bus behind what flows into it. */
  private readonly left: number

  constructor(
    private readonly model: SectionModel,
    private readonly width: number,
    private readonly height: number,
  ) {
    const inflow = model.confluence ? INFLOW : 0
    this.columnWidth = Math.max(1, width - RULER) / Math.max(1, model.columns.length + inflow)
    this.left = RULER + inflow * this.columnWidth
    this.narrow = this.columnWidth < NARROW
  }

  drawn(): SectionDrawing {
    const { model } = this
    this.ruler()
    model.columns.forEach((column, i) => this.column(column, i))
    if (model.window) this.window(model.window)
    const tributaries = model.confluence ? this.confluence(model.confluence) : []
    const [surge, peak, average] = [
      this.run((each) => each.surge),
      this.run((each) => each.peak),
      this.run((each) => each.average),
    ]
    return {
      areas: {
        ceiling: this.runs((each) => each.ceiling)
          .map((run) => closed(run, 0))
          .join(''),
        surge: between(surge, peak),
        body: between(peak, average),
        floor: [this.inflow, ...this.runs((each) => each.noise)].map((run) => closed(run, this.height)).join(''),
      },
      penumbra: {
        surge: this.around(
          (each) => each.surge,
          (each) => each.doubt?.surge ?? null,
        ),
        average: this.around(
          (each) => each.average,
          (each) => each.doubt?.average ?? null,
        ),
        floor: this.around(
          (each) => each.noise,
          (each) => each.doubt?.noise ?? null,
        ),
      },
      tributaries,
      left: this.left,
      edges: {
        ceiling: this.runs((each) => each.ceiling)
          .map(curve)
          .join(''),
        surge: curve(surge),
        floor: [this.inflow, ...this.runs((each) => each.noise)].map(curve).join(''),
      },
      lines: this.lines,
      texts: this.texts,
      perDb: this.height / (model.top - model.bottom),
      columnWidth: this.columnWidth,
      y: this.y,
    }
  }

  private x = (column: number) => this.left + column * this.columnWidth
  private y = (level: number) => ((this.model.top - level) * this.height) / (this.model.top - this.model.bottom)

  /** The level as a line through all columns: a plateau in each, a slope at each joint. */
  private run = (of: LevelOf): Place[] => this.runs(of).flat()

  /** The same, broken where a column has no such level. */
  private runs(of: LevelOf): Place[][] {
    const runs: Place[][] = [[]]
    const last = this.model.columns.length - 1
    this.model.columns.forEach((column, i) => {
      const level = of(column)
      if (level === null) {
        runs.push([])
        return
      }
      const y = this.y(level)
      const [from, to] = [i === 0 ? 0 : i + PLATEAU.from, i === last ? last + 1 : i + PLATEAU.to]
      runs.at(-1)?.push({ x: this.x(from), y }, { x: this.x(to), y })
    })
    return runs.filter((run) => run.length > 0)
  }

  /** The area that an edge lies in, where it is known how far it may be off. */
  private around(of: LevelOf, doubt: LevelOf): string {
    const moved = (way: 1 | -1) =>
      this.runs((column) => {
        const [level, by] = [of(column), doubt(column)]
        return level === null || by === null ? null : level + way * by
      })
    const lower = moved(-1)
    return moved(1)
      .map((run, i) => between(run, lower[i] ?? []))
      .join('')
  }

  private text(words: string, x: number, y: number, tone: Tone, more: Partial<TextShape> = {}) {
    this.texts.push({ words, x, y, tone, anchor: 'start', size: 11.5, bold: false, mono: true, plate: false, ...more })
  }
  private plate(words: string, x: number, y: number, tone: Tone, more: Partial<TextShape> = {}) {
    this.text(words, x, y, tone, { anchor: 'middle', plate: true, ...more })
  }

  /** Under the ceiling the ruler counts down from clipping; the ends of the axis carry no number. */
  private ruler() {
    const { top, bottom, reading } = this.model
    for (let level = 20 * Math.ceil(bottom / 20); level <= top; level += 20) {
      const y = this.y(level)
      this.lines.push({ path: `M${RULER} ${round(y)}H${round(this.width)}`, tone: 'line', width: 1 })
      const words =
        reading === 'own' ? String(level).replace('-', '−') : level === 0 ? 'clip' : level < 0 ? String(-level) : ''
      if (words !== '' && y > 6 && y < this.height - 4)
        this.text(words, RULER - 8, y, 'muted', { anchor: 'end', size: 11 })
    }
  }

  private column(column: SectionColumn, i: number) {
    if (i > 0) this.lines.push({ path: `M${round(this.x(i))} 0V${this.height}`, tone: 'muted', width: 1, dash: '1 4' })
    this.ceiling(column, i)
    this.headroom(column, i)
    this.levels(column, i)
    this.floor(column, i)
  }

  private ceiling(column: SectionColumn, i: number) {
    const y = column.ceiling === null ? 9 : Math.max(9, this.y(column.ceiling) - 10)
    const asked = column.ceiling === null ? {} : told(column, 'ceiling')
    const words = column.ceiling === null && this.narrow ? 'none given' : column.ceilingText
    this.plate(words, this.x(i + 0.5), y, column.ceiling === null ? 'muted' : 'ceiling', asked)
  }

  /** A dimension line between two heights, with arrowheads where there is room for them. */
  private dimension(x: number, from: number, to: number, tone: Tone, arrows: boolean) {
    this.lines.push({ path: `M${round(x)} ${round(from)}V${round(to)}`, tone, width: 1 })
    if (!arrows || Math.abs(to - from) < LEGIBLE) return
    const tip = (y: number, way: 1 | -1) => `M${round(x)} ${round(y)}l-3 ${way * 6}h6z`
    this.lines.push({ path: tip(from, 1) + tip(to, -1), tone, width: 0, filled: true })
  }

  private headroom(column: SectionColumn, i: number) {
    if (column.ceiling === null || column.headroomText === null) return
    const x = this.x(i) + this.columnWidth * 0.36
    const [ceiling, peak, surge] = [this.y(column.ceiling), this.y(column.peak), this.y(column.surge)]
    const bold = column.tightest || column.clipped
    const tone = bold ? 'ceiling' : 'muted'
    this.dimension(x, ceiling, peak, tone, true)
    // Where the band leaves no room under the ceiling, the words go below the band.
    const room = surge - ceiling
    const below = Math.max(this.y(column.average), ceiling) + 12
    const at = room >= LEGIBLE ? ceiling + room / 2 : below + (this.narrow ? 18 : 0)
    this.text(column.headroomText, x + 7, at, tone, { bold, size: bold ? 14 : 11.5, ...told(column, 'headroom') })
    const hasRoom = 0.64 * this.columnWidth > BESIDE_HEADROOM
    // Where there is no room beside the number, the word goes under it.
    if (bold)
      this.text(
        column.clipped ? 'clips' : hasRoom ? 'least headroom' : 'least',
        x + (this.narrow ? 7 : 52),
        at + (this.narrow ? 14 : 0),
        tone,
        { mono: false },
      )
    if (column.surgeText && room > 3.2 * LEGIBLE && !this.narrow)
      this.text(`${column.surgeText} with the surge`, x + 7, at + 15, 'muted', {
        mono: false,
        size: 11,
        ...told(column, 'surgeHeadroom'),
      })
  }

  private levels(column: SectionColumn, i: number) {
    const x = this.x(i + 0.6)
    const [peak, average] = [this.y(column.peak), this.y(column.average)]
    const inside = average - peak >= LEGIBLE
    if (average - peak >= 2.2 * LEGIBLE)
      this.text(`peak ${column.peakText}`, x, peak + 9, 'on-body', { anchor: 'middle', ...told(column, 'peak') })
    this.text(
      this.narrow ? column.averageShort : column.averageText,
      x,
      inside ? average - 9 : average + 9,
      inside ? 'on-body' : 'ink',
      { bold: true, anchor: 'middle', ...told(column, 'average') },
    )
  }

  private floor(column: SectionColumn, i: number) {
    const words = this.narrow ? column.noiseShort : column.noiseText
    if (column.noise === null || column.snrText === null) {
      this.text(words, this.x(i + 0.5), this.height - 10, 'muted', { anchor: 'middle', mono: false })
      return
    }
    const x = this.x(i) + this.columnWidth * 0.82
    const [average, noise] = [this.y(column.average), this.y(column.noise)]
    this.dimension(x, average + 4, noise, 'floor', false)
    this.text(column.snrText, x - 6, (average + noise) / 2, 'floor', { anchor: 'end', ...told(column, 'snr') })
    this.plate(words, this.x(i + 0.5), Math.min(this.height - 10, noise + 14), 'floor', told(column, 'noise'))
    if (i === 0 && this.height - noise > 3 * LEGIBLE)
      this.text('noise bed, A-weighted', this.x(0) + 8, this.height - 9, 'floor', { mono: false, size: 11 })
  }

  /**
   * The strips side by side, each at its own level, and from there into the sum. The bed rises with what each of them brings; over
   * the sum a line tells how high it goes at the very most.
   */
  private confluence({ tributaries, likely, average, surge, bound, noise, boundText }: Confluence) {
    const meets = this.x(0)
    const slot = ((meets - RULER) * SIDE_BY_SIDE) / Math.max(1, tributaries.length)
    const flowing = tributaries.map((each, i) => {
      const [from, to] = [RULER + i * slot, RULER + (i + 0.8) * slot]
      const level = (of: number) => Math.min(this.height - 4, this.y(of))
      const upper = [
        { x: from, y: level(each.peak) },
        { x: to, y: level(each.peak) },
        { x: meets, y: this.y(likely) },
      ]
      const lower = [
        { x: from, y: level(each.average) },
        { x: to, y: level(each.average) },
        { x: meets, y: this.y(average) },
      ]
      const middle = (from + to) / 2
      this.text(each.averageText, middle, Math.min(level(each.average) + 9, this.height - 8), 'ink', {
        anchor: 'middle',
        size: 11,
      })
      this.lines.push({ path: `M${round(from)} 0V${this.height}`, tone: 'line', width: 1, dash: '1 4' })
      this.texts.push({ ...PLAIN, words: each.name, x: middle + 1, y: this.height - 8, tone: 'ink', upright: true })
      return { strip: each.strip, path: between(upper, lower), x: middle, y: Math.max(14, level(each.peak) - 14) }
    })
    this.lines.push({ path: `M${round(meets)} 0V${this.height}`, tone: 'muted', width: 1, dash: '1 4' })
    this.bed(tributaries, noise, slot, meets)
    const [y, top] = [this.y(bound), this.y(surge)]
    if (boundText !== null) {
      this.lines.push({
        path: `M${round(meets)} ${round(y)}H${round(this.x(0.9))}`,
        tone: 'ceiling',
        width: 1.25,
        dash: '4 2',
      })
      if (top - y > LEGIBLE) this.text(`bound ${boundText}`, meets + 8, y + 9, 'ceiling', { size: 11, mono: false })
    }
    return flowing
  }

  /** Under the strips the bed rises in steps, to the noise of the sum. */
  private bed(tributaries: readonly Tributary[], noise: number | null, slot: number, meets: number) {
    const places = tributaries.flatMap((each, i) => {
      if (each.noise === null) return []
      const y = Math.min(this.height - 2, this.y(each.noise))
      return [
        { x: RULER + (i + 0.1) * slot, y },
        { x: RULER + (i + 0.9) * slot, y },
      ]
    })
    if (noise === null || places.length === 0) return
    this.inflow = [...places, { x: meets, y: this.y(noise) }]
  }

  /** The target’s window as a bracket at the recorder’s edge. */
  private window({ low, high, label }: NonNullable<SectionModel['window']>) {
    const x = this.width - 5
    const [top, bottom] = [this.y(high), this.y(low)]
    this.lines.push({
      path: `M${round(x - 9)} ${round(top)}H${round(x)}V${round(bottom)}H${round(x - 9)}`,
      tone: 'ink',
      width: 1.75,
    })
    // In a narrow column the bracket stands where the headroom is written: it goes without its name.
    if (!this.narrow) this.plate(label, x - 36, bottom + 14, 'ink')
  }
}

/** What a text tells. */
const told = ({ stage }: SectionColumn, figure: string) => ({ figure: { stage, figure } })

/** Half the width of a plate around its words, px. */
export const plateHalf = ({ words, size }: Pick<TextShape, 'words' | 'size'>) => (words.length * size * MONO) / 2 + 5
