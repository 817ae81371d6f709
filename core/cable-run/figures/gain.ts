import { formatShort } from '../../units'
import type { CableFindings, FoundMark } from '../findings'
import type { Draft, SheetContext } from './draft'

/** A gain that is so far from its scale was not turned there, dB. */
const NOT_THERE = 6

const WRONG_MARK = 'Far from what the scale says: the gain was probably not turned to this mark.'

export const markText = (mark: { position?: number | undefined; said?: number | undefined }): string =>
  mark.said === undefined
    ? mark.position === 17
      ? 'fully up'
      : mark.position === 7
        ? 'fully down'
        : `at ${formatShort(mark.position ?? 7)} h`
    : `at ${formatShort(mark.said)} dB on its scale`

/** The last mark is the highest gain that there is. */
const isTop = ({ mark }: FoundMark, gainMax: number) => ('said' in mark ? mark.said >= gainMax : mark.position >= 17)

export function gains({ marks }: CableFindings, { bench }: SheetContext): Draft[] {
  const { gainMin, gainMax } = bench.input.specs
  const top = marks.at(-1)
  return marks.length === 0
    ? []
    : [
        ...(marks.map(({ mark, gain }, i) => ({
          id: `gain-${i + 2}`,
          group: 'Gain' as const,
          name: `Gain over the lowest, ${markText(mark)}`,
          unit: 'dB',
          digits: 2,
          ...gain,
          printed: 'said' in mark ? mark.said - gainMin : null,
          says: 'said' in mark ? undefined : 'A knob has no figure to compare with.',
          doubt: 'said' in mark && Math.abs(gain.value - (mark.said - gainMin)) > NOT_THERE ? WRONG_MARK : null,
          method: '970 Hz through the cable, when the gain stood still',
        })) as Draft[]),
        ...(top && isTop(top, gainMax)
          ? [
              {
                id: 'highest-gain',
                group: 'Gain' as const,
                name: 'Maximum gain',
                unit: 'dB',
                digits: 2,
                value: gainMin + top.gain.value,
                u: top.gain.u,
                printed: gainMax,
                within: 0.3,
                doubt: Math.abs(gainMin + top.gain.value - gainMax) > NOT_THERE ? WRONG_MARK : null,
                method: 'The lowest gain as the data sheet has it, and what was heard over it',
              },
            ]
          : []),
      ]
}
