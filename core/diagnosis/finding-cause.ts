import type { CauseId } from './causes'
import { causeIds, causeOf } from './causes'
import type { SymptomId } from './symptom'
import type { DiagnosisView } from './view'

/** How a cause shows most often. */
export function mainSymptom(id: CauseId): SymptomId {
  const [symptom] = (Object.entries(causeOf(id).symptoms) as [SymptomId, number][]).reduce((most, each) =>
    each[1] > most[1] ? each : most,
  )
  return symptom
}

/** The cause that a finding is, and how it would be noticed; `null` for a finding that is no fault one would hear. */
export function causeOfFinding(code: string): { id: CauseId; title: string; symptom: SymptomId } | null {
  const id = causeIds.find((each) => causeOf(each).codes?.some((own) => own === code))
  return id ? { id, title: causeOf(id).title, symptom: mainSymptom(id) } : null
}

/** The finding on a strip that is this cause, the gravest first; `null` where the session shows none. */
export function findingOfCause(id: CauseId, { findings }: DiagnosisView): string | null {
  return findings.find(({ code }) => causeOf(id).codes?.includes(code))?.code ?? null
}
