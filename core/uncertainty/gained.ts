import type { Session } from '../session'
import { formatDecimal } from '../units'
import type { Uncertain, UncertainStrip, Uncertainty } from './uncertainty'

/** Less than that is not worth a word, in u. */
const WORTH_A_WORD = 0.02

/**
 * What a measurement gained, in words: where something is newly measured, the strip whose headroom or noise it made more certain by most.
 * @returns `null` where nothing was measured, or nothing became more certain
 */
export function gained(session: Session, before: Uncertainty, after: Uncertainty): string | null {
  const measured = ({ inputs }: Uncertainty) =>
    inputs.filter(({ origin }) => origin === 'measured').map(({ path, on, doubt }) => `${path} ${on} ${doubt.u}`)
  const known = new Set(measured(before))
  const readings = session.soundcheck?.readings?.length ?? 0
  const isNew = measured(after).some((each) => !known.has(each))
  const better = after.strips.flatMap((strip) => {
    const old = before.strips.find(({ id }) => id === strip.id)
    return old ? FIGURES.flatMap((figure) => gainOf(strip, old, figure)) : []
  })
  const [most] = better.sort((a, b) => b.off - a.off)
  if (!most || (!isNew && readings === 0)) return null
  const name = session.strips.find(({ id }) => id === most.strip)?.name ?? ''
  return `Now more certain: ${name}, ${most.words} ± ${formatDecimal(2 * most.was, most.digits)} → ± ${formatDecimal(2 * most.is, most.digits)} ${most.unit}.`
}

/** A figure of a strip that the verdict shows, and how it is called. */
interface Figure {
  words: string
  unit: string
  digits: number
  of: (strip: UncertainStrip) => Uncertain | null | undefined
}

const FIGURES: readonly Figure[] = [
  { words: 'headroom', unit: 'dB', digits: 1, of: tightestHeadroom },
  { words: 'signal-to-noise ratio', unit: 'dB', digits: 1, of: ({ points }) => points.at(-1)?.snr },
  {
    words: 'software monitoring delay',
    unit: 'ms',
    digits: 2,
    of: ({ latency }) => latency.find(({ route }) => route === 'software'),
  },
]

function gainOf(strip: UncertainStrip, old: UncertainStrip, figure: Figure) {
  const [is, was] = [figure.of(strip)?.u, figure.of(old)?.u]
  return is === undefined || was === undefined || was - is < WORTH_A_WORD
    ? []
    : [{ ...figure, strip: strip.id, is, was, off: was - is }]
}

/** Of the stage that is nearest to clipping. */
export function tightestHeadroom({ points }: UncertainStrip): Uncertain | null {
  return points.reduce<Uncertain | null>(
    (least, { headroom }) => (headroom && (least === null || headroom.value < least.value) ? headroom : least),
    null,
  )
}
