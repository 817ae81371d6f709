import { symptomIds, whenIds } from '#core/diagnosis/symptom'
import { z } from '#core/session/z'

const session = z.looseObject({}).describe('A session file: GET /api/schema/session.')

/** Bodies that hold a session and what is asked of it. The core reads them itself, and names every fault. */
export const asked = {
  diagnose: z.strictObject({
    session,
    strip: z.string().nullable().optional().describe('The id of a strip, or "all", as where it is left out.'),
    symptoms: z.array(z.enum(symptomIds)).min(1),
    when: z.enum(whenIds).optional(),
    answers: z.record(z.string(), z.string()).optional().describe('Outcomes of checks by their ids: docs/faults.md.'),
  }),
  explain: z.strictObject({
    session,
    strip: z.string(),
    stage: z.string().optional().describe('Not needed for direct and software.'),
    figure: z
      .string()
      .describe(
        'average, peak, surgePeak, headroom, surgeHeadroom, noise, snr, gain, ceiling, chance, noise:<name>, direct, software',
      ),
  }),
} as const
