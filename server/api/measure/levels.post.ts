import { defineEventHandler } from 'h3'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { measureBody } from '../../utils/wav-handler'

/** Levels of a WAV file, measured as it streams in. */
export default defineEventHandler((event) => measureBody(event, new LevelsMeter(), ({ report }) => report))
