import type { Piece, Playback } from './playback'
import { db, peakOf, raise } from '../../units'

/** No peak of a piece is brought above this, dBFS: EBU R 128 asks for −1 dB true peak, and a file's sample peaks lie a little under. */
export const PIECE_CEILING = -1

/** Where loud passages of pieces are brought to if nothing else is wished, dBFS: about a rough mix (common practice, no source). */
export const PIECE_MARK = -20

export interface TrimmedPieces {
  pieces: Piece[]
  /** Where every loudest passage is then, dBFS. */
  mark: number
  /** The piece whose peaks keep the mark from being as high as wished. */
  heldBy: string | null
}

/**
 * Pieces trimmed so that every loudest passage reaches the same mark and no peak comes above −1 dBFS: the mark is as high as the
 * piece with the most crest allows.
 */
export function trimPieces(pieces: readonly Piece[], wished = PIECE_MARK): TrimmedPieces {
  let mark = wished
  let heldBy: string | null = null
  for (const { name, level, crest } of pieces) {
    const highest = PIECE_CEILING - (peakOf(level, crest) - level)
    if (highest < mark) {
      mark = highest
      heldBy = name
    }
  }
  return {
    mark,
    heldBy,
    pieces: pieces.map((piece) => ({ ...piece, trim: db(Math.round((mark - piece.level) * 100) / 100) })),
  }
}

/** Whether it is a list of pieces, each with levels and a trim of its own. */
export const hasPieces = ({ pieces }: Playback): boolean => (pieces?.length ?? 0) > 0

/** A piece's peak as it is played, dBFS. */
export const piecePeak = ({ level, crest, trim }: Piece): number => raise(peakOf(level, crest), trim)

const clock = (seconds: number | undefined) => {
  if (seconds === undefined) return ''
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** What is played in which order, and how loud: a table with its header, for paper and spreadsheet. */
export const cueList = (playback: Playback): string[][] => [
  ['Cue', 'Piece', 'Loudest passage at, min:s', 'Average there, dBFS', 'Trim, dB', 'Played at, dBFS', 'Peak, dBFS'],
  ...(playback.pieces ?? []).map((piece, i) => [
    String(i + 1),
    piece.name,
    clock(piece.loudestAt),
    piece.level.toFixed(1),
    piece.trim.toFixed(1),
    (piece.level + piece.trim).toFixed(1),
    piecePeak(piece).toFixed(1),
  ]),
]
