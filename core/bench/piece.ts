import type { LevelsReport } from '../measure/levels/measure-levels'
import { loudestPassage } from '../measure/loudest-passage'
import type { Piece } from '../gear'
import { nextId } from '../model'
import { pieceFields } from '../gear'
import type { Seconds } from '../units'
import { db, dbfs } from '../units'

const rounded = (value: number) => Math.round(value * 100) / 100
const within = (value: number, { min, max }: { min: number; max: number }) => Math.min(max, Math.max(min, value))

/** A measured recording as a piece of a playback, untrimmed; `null` where it is silent. */
export function pieceOf(report: LevelsReport, fileName: string, others: readonly Piece[]): Piece | null {
  const passage = loudestPassage(report)
  if (!passage) return null
  const name = fileName.replace(/\.wave?$/i, '').slice(0, 200) || 'Piece'
  return {
    id: nextId('piece-1', new Set(others.map(({ id }) => id))),
    name,
    level: dbfs(within(rounded(passage.level), pieceFields.level)),
    crest: db(within(rounded(passage.crest), pieceFields.crest)),
    loudestAt: rounded(passage.at) as Seconds,
    trim: db(0),
  }
}
