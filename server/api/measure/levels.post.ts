import { defineEventHandler } from 'h3'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { measureBody } from '../../utils/wav-handler'

/** Levels of a WAV file, measured as it streams in; figures only, without the drawing of the level over time. */
export default defineEventHandler((event) =>
  measureBody(event, new LevelsMeter(), ({ report }) => ({
    ...report,
    channels: report.channels.map(({ overview: _, ...figures }) => figures),
  })),
)
