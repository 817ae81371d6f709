import { explain, explanationFile } from '#core/explain/explain'
import { formula } from '#core/formula'
import { mathmlOf } from '#core/formula/mathml'
import { describeReceived } from '#core/files'
import { readBody, refuse } from './read-body'
import type { SessionAnswer } from './session-answer'

/** The answer to `{ session, strip, stage, figure }`: what that figure is made of. */
export function answerExplain(text: string): SessionAnswer {
  const body = readBody(text, '{ "session", "strip", "stage", "figure" }')
  if (!body.ok) return body
  const { asked, session } = body
  const words = (['strip', 'stage', 'figure'] as const).flatMap((key) =>
    typeof asked[key] === 'string' || (key === 'stage' && asked[key] === undefined)
      ? []
      : [{ path: key, code: 'missing', message: `Got ${describeReceived(asked[key])}. Give text in quotes.` }],
  )
  if (words.length > 0) return refuse(...words)
  const [id, stage, figure] = [asked.strip as string, (asked.stage as string | undefined) ?? '', asked.figure as string]
  const strip = session.strips.find((each) => each.id === id)
  if (!strip)
    return refuse({
      path: 'strip',
      code: 'no-such-strip',
      message: `There is no strip "${id.slice(0, 64)}". Name one of ${session.strips
        .slice(0, 20)
        .map((each) => `"${each.id}"`)
        .join(', ')}.`,
    })
  const explained = explain(session, { strip: id, stage, figure })
  if (explained)
    return { ok: true, json: JSON.stringify(explanationFile(explained, mathmlOf(formula(explained.formula)))) }
  return refuse(
    strip.stages.some((each) => each.id === stage)
      ? {
          path: 'figure',
          code: 'no-such-figure',
          message: `This stage has no figure "${figure.slice(0, 64)}". Ask for average, peak, surgePeak, headroom, surgeHeadroom, noise, snr, gain, ceiling, chance, or for direct or software of the strip.`,
        }
      : {
          path: 'stage',
          code: 'no-such-stage',
          message: `The strip has no stage "${stage.slice(0, 64)}". Name one of ${strip.stages.map((each) => `"${each.id}"`).join(', ')}.`,
        },
  )
}
