import type { Levels } from '../../contract/answer-types'
import { apiHandler } from '../../utils/api-handler'
import { measureBody } from '../../utils/wav-handler'

/** Levels of a WAV file, measured as it streams in; figures only, without the drawing of the level over time. */
export default apiHandler(async (event): Promise<Levels> => {
  const { report } = await measureBody(event, { kind: 'levels' })
  return { ...report, channels: report.channels.map(({ overview: _, ...figures }) => figures) }
})
