import type { LevelsReport } from './measure-levels'

type Cell = string | number

/** A figure as a cell: a number to hundredths, blank where there is none. */
const cell = (value: number | null): Cell => (value === null ? '' : Number(value.toFixed(2)))

/** What is told of every channel, in this order. */
export const levelRows = [
  { key: 'peak', title: 'Peak, dBFS' },
  { key: 'truePeak', title: 'True peak, dBTP' },
  { key: 'rms', title: 'RMS, dBFS' },
  { key: 'rmsA', title: 'A-weighted, dBFS' },
  { key: 'crest', title: 'Crest, dB' },
  { key: 'dc', title: 'DC, dBFS' },
  { key: 'floor', title: 'Quietest second, dBFS' },
  { key: 'integrated', title: 'Loudness, LUFS' },
  { key: 'momentaryMax', title: 'Momentary max, LUFS' },
  { key: 'shortTermMax', title: 'Short-term max, LUFS' },
  { key: 'range', title: 'Range, LU' },
] as const

/** Levels of a recording as a table for a spreadsheet, a row for each channel. */
export const levelsTable = ({ channels }: Pick<LevelsReport, 'channels'>): Cell[][] => [
  ['Channel', ...levelRows.map(({ title }) => title), 'Peak at, s', 'Clipped runs'],
  ...channels.map((each, i) => [
    i + 1,
    ...levelRows.map(({ key }) => cell(each[key])),
    cell(each.peakSeconds),
    each.clippedRunCount,
  ]),
]

/** Every clipped run of a recording, in the order of time. */
export const clipsTable = ({ channels }: Pick<LevelsReport, 'channels'>): Cell[][] => [
  ['Channel', 'At, s', 'Samples'],
  ...channels
    .flatMap(({ clippedRuns }, i) =>
      clippedRuns.map(({ seconds, frames }) => [i + 1, Number(seconds.toFixed(3)), frames] as const),
    )
    .sort((a, b) => a[1] - b[1])
    .map((row) => [...row]),
]
