import { symptomIds, whenIds } from '#core/diagnosis/symptom'
import { described, z } from '#core/model/z'

const session = described('A session file: GET /api/schema/session.', z.looseObject({}))

/** Bodies that hold a session and what is asked of it. The core reads them itself, and names every fault. */
export const asked = {
  diagnose: z.strictObject({
    session,
    strip: described('The id of a strip, or "all", as where it is left out.', z.optional(z.nullable(z.string()))),
    symptoms: z.array(z.enum(symptomIds)).check(z.minLength(1)),
    when: z.optional(z.enum(whenIds)),
    answers: described(
      'Outcomes of checks by their ids: docs/faults.md.',
      z.optional(z.record(z.string(), z.string())),
    ),
  }),
  explain: z.strictObject({
    session,
    strip: z.string(),
    stage: described('Not needed for direct and software.', z.optional(z.string())),
    figure: described(
      'average, peak, surgePeak, headroom, surgeHeadroom, noise, snr, gain, ceiling, chance, noise:<name>, direct, software',
      z.string(),
    ),
  }),
} as const
