import { describe, expect, it } from 'vitest'
import { pieceOf } from '#core/bench/piece'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { loudestPassage } from '#core/measure/loudest-passage'
import type { Piece, Playback } from '#core/gear'
import { cueList, piecePeak, trimPieces } from '#core/gear'
import { sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { chain } from '../support/chains'

const piece = (id: string, level: number, crest: number): Piece =>
  ({ id, name: id, level, crest, trim: 0, loudestAt: 73.5 }) as Piece

describe('pieces of a playback', () => {
  it('all to one mark; none above −1 dBFS: the one with most crest holds it down', () => {
    const { pieces, mark, heldBy } = trimPieces([piece('calm', -30, 12), piece('sharp', -24, 25)], -20)
    // By hand: a crest of 25 dB is a peak 21.99 over the average: −1 − 21.99 = −22.99.
    expect(mark).toBeCloseTo(-22.99, 2)
    expect(heldBy).toBe('sharp')
    for (const each of pieces) {
      expect(each.level + each.trim).toBeCloseTo(mark, 2)
      expect(piecePeak(each)).toBeLessThanOrEqual(-0.99)
    }
    expect(trimPieces([piece('calm', -30, 12)], -20)).toMatchObject({ mark: -20, heldBy: null })
  })
  it('a strip that plays them has the loudest of their averages and of their peaks', () => {
    const session = chain([
      {
        gear: {
          kind: 'playback',
          specs: { level: -50, crest: 3 },
          pieces: [
            { id: 'a', name: 'A', level: -30, crest: 12, trim: 10 },
            { id: 'b', name: 'B', level: -26, crest: 20, trim: 2 },
          ],
        },
      },
    ])
    const point = evaluateSession(session).strips[0]?.points[0]
    expect(point?.average).toBeCloseTo(-20, 9)
    // −26 + 2 + 20 − 3.01
    expect(point?.peak).toBeCloseTo(-7.01, 2)
    expect(evaluateSession(session).strips[0]?.findings).toEqual([])
  })
  it('a cue list has a line for each, with the passage in minutes and seconds', () => {
    const list = cueList({ pieces: [{ ...piece('The wheel', -19.2, 13.4), trim: -0.8 }] } as unknown as Playback)
    expect(list).toHaveLength(2)
    expect(list[1]).toEqual(['1', 'The wheel', '1:14', '-19.2', '-0.8', '-20.0', '-9.6'])
  })
})

describe('the loudest passage of a recording', () => {
  const RATE = 48_000
  /** 10 s of a tone at −40 dBFS, 4 s at −12, 6 s at −40; and one full-scale click in the quiet. */
  function report() {
    const parts = [sine(RATE, 10, 500, -40), sine(RATE, 4, 500, -12), sine(RATE, 6, 500, -40)]
    const samples = new Float64Array(RATE * 20)
    let at = 0
    for (const part of parts) {
      samples.set(part, at)
      at += part.length
    }
    samples[RATE * 17] = 0.5
    const meter = new LevelsMeter()
    meter.push(writeWav([samples], RATE, 24))
    const result = meter.end()
    if (!result.ok) throw new Error(result.fault.message)
    return result.report
  }
  it('is found where it is, with its level, and the peak of the whole over it', () => {
    const found = loudestPassage(report())
    expect(found?.level).toBeCloseTo(-12, 1)
    expect(found?.at).toBeGreaterThanOrEqual(10)
    expect(found?.at).toBeLessThanOrEqual(11.2)
    // A sample of ½ is −6.02 dBFS: 5.98 over the average, and 3.01 that a sine has.
    expect(found?.crest).toBeCloseTo(5.98 + 3.01, 1)
  })
  it('becomes a piece with the file’s name, untrimmed; silence becomes none', () => {
    const made = pieceOf(report(), 'Wheel.wav', [piece('piece-1', -20, 12)])
    expect(made).toMatchObject({ id: 'piece-2', name: 'Wheel', trim: 0 })
    const silent = { channels: [{ peak: null, overview: { seconds: 0.1, low: [0], high: [0], power: [0] } }] }
    expect(pieceOf(silent as never, 'Nothing.wav', [])).toBeNull()
  })
})
