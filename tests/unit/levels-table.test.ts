import { describe, expect, it } from 'vitest'
import { clipsTable, levelsTable } from '#core/measure/levels/levels-table'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'

describe('levels of a recording for a spreadsheet', () => {
  const clipped = sine(48_000, 1, 997, -6).map((x) => Math.max(-0.3, Math.min(0.3, x)))
  const meter = new LevelsMeter()
  meter.push(writeWav([sine(48_000, 1, 997, -20), clipped], 48_000, 24))
  const result = meter.end()
  if (!result.ok) throw new Error(result.fault.message)
  it('a row for each channel, numbers that stay numbers; AES17: a sine at −20 dBFS reads −20 as peak and as RMS', () => {
    const [header, first, second] = levelsTable(result.report)
    expect(header?.slice(0, 4)).toEqual(['Channel', 'Peak, dBFS', 'True peak, dBTP', 'RMS, dBFS'])
    expect(first?.[0]).toBe(1)
    expect(first?.[1]).toBeCloseTo(-20, 1)
    expect(first?.[3]).toBeCloseTo(-20, 1)
    expect([first?.at(-1), Number(second?.at(-1)) > 100]).toEqual([0, true])
  })
  it('every clip with its channel and time, in the order of time', () => {
    const [header, ...rows] = clipsTable(result.report)
    expect(header).toEqual(['Channel', 'At, s', 'Samples'])
    expect(rows).toHaveLength(result.report.channels[1]?.clippedRuns.length ?? 0)
    expect(new Set(rows.map(([channel]) => channel))).toEqual(new Set([2]))
    const times = rows.map(([, at]) => Number(at))
    expect(times).toEqual([...times].sort((a, b) => a - b))
  })
  it('digital silence is a blank, not a dash and not a number', () => {
    const silent = new LevelsMeter()
    silent.push(writeWav([new Float64Array(48_000)], 48_000, 24, { dither: false }))
    const nothing = silent.end()
    expect(nothing.ok && levelsTable(nothing.report)[1]?.[1]).toBe('')
  })
})
