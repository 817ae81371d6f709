import { formatDecimal } from '../units'
import { lowCutWords } from '../chain/low-cut'
import { NOTHING, perStage } from './view'

/** A low cut that is in: what it takes. The levels here are broadband and do not change by it. */
export const lowCutIn = perStage((_, stage) => {
  if (!stage.settings.lowCut || !('specs' in stage) || !('lowCut' in stage.specs) || stage.specs.lowCut === undefined)
    return NOTHING
  const { lowCut, lowCutSlope } = stage.specs
  return [
    {
      code: 'low-cut',
      severity: 'note',
      stage: stage.id,
      message: `The low cut at ${formatDecimal(lowCut, 0)} Hz ${lowCutWords(lowCut, lowCutSlope)}.`,
      action: 'Switch it out for instruments that play that low.',
    },
  ]
})
