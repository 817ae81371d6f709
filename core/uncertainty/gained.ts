import type { Session } from '../session'
import { formatDecimal } from '../units'
import type { Uncertain, UncertainStrip, Uncertainty } from './uncertainty'

/** Less than that is not worth a word, in u. */
const WORTH_A_WORD = 0.02

/**
 * What a measurement gained, in words: where something is newly measured, the strip whose headroom or noise it made surer by most.
 * @returns `null` where nothing was measured, or nothing got surer
 */
export function gained(session: Session, before: Uncertainty, after: Uncertainty): string | null {
  const measured = ({ inputs }: Uncertainty) =>
    inputs.filter(({ origin }) => origin === 'measured').map(({ path, on, doubt }) => `${path} ${on} ${doubt.u}`)
  const known = new Set(measured(before))
  const readings = session.soundcheck?.readings?.length ?? 0
  const isNew = measured(after).some((each) => !known.has(each))
  const better = after.strips.flatMap((strip) => {
    const old = before.strips.find(({ id }) => id === strip.id)
    return old ? FIGURES.flatMap(({ words, of, digits }) => gainOf(strip, old, words, of, digits)) : []
  })
  const [most] = better.sort((a, b) => b.off - a.off)
  if (!most || (!isNew && readings === 0)) return null
  const name = session.strips.find(({ id }) => id === most.strip)?.name ?? ''
  return `Surer: ${name}, ${most.words}: ± ${formatDecimal(2 * most.was, most.digits)} → ± ${formatDecimal(2 * most.is, most.digits)}.`
}

const FIGURES: { words: string; digits: number; of: (strip: UncertainStrip) => Uncertain | null | undefined }[] = [
  { words: 'dB before it clips', digits: 1, of: tightestHeadroom },
  { words: 'dB of signal-to-noise ratio', digits: 1, of: ({ points }) => points.at(-1)?.snr },
  { words: 'ms through the host', digits: 2, of: ({ latency }) => latency.find(({ route }) => route === 'software') },
]

function gainOf(
  strip: UncertainStrip,
  old: UncertainStrip,
  words: string,
  of: (strip: UncertainStrip) => Uncertain | null | undefined,
  digits: number,
) {
  const [is, was] = [of(strip)?.u, of(old)?.u]
  return is === undefined || was === undefined || was - is < WORTH_A_WORD
    ? []
    : [{ strip: strip.id, words, is, was, off: was - is, digits }]
}

/** Of the stage that is nearest to clipping. */
export function tightestHeadroom({ points }: UncertainStrip): Uncertain | null {
  return points.reduce<Uncertain | null>(
    (least, { headroom }) => (headroom && (least === null || headroom.value < least.value) ? headroom : least),
    null,
  )
}
