import { expect, it } from 'vitest'
import { causeIds, causeOf } from '#core/diagnosis/causes'
import { checkIds, checkOf } from '#core/diagnosis/checks'
import { symptomIds, whenIds } from '#core/diagnosis/symptom'
import { FINDINGS_WITHOUT_CAUSE } from '#core/diagnosis/findings-without-cause'
import { findingCodes } from '#core/checks/finding-codes'
import { timingFindingCodes } from '#core/timing/finding-codes'

it('every outcome that a cause names is one of its check’s, and likelihoods are parts of 1', () => {
  for (const id of causeIds)
    for (const [check, shown] of Object.entries(causeOf(id).shows)) {
      const { outcomes } = checkOf(check as (typeof checkIds)[number])
      expect(Object.keys(outcomes), `${id} ${check}`).toEqual(expect.arrayContaining(Object.keys(shown)))
      expect(
        Object.values(shown).reduce((sum, part) => sum + part, 0),
        `${id} ${check}`,
      ).toBeLessThanOrEqual(1 + 1e-9)
      expect(Math.min(...Object.values(shown)), `${id} ${check}`).toBeGreaterThan(0)
    }
  for (const id of checkIds) {
    const { outcomes, usual, minutes } = checkOf(id)
    expect(Object.keys(usual).sort(), id).toEqual(Object.keys(outcomes).sort())
    expect(
      Object.values(usual).reduce((sum, part) => sum + part, 0),
      id,
    ).toBeCloseTo(1, 9)
    expect(minutes, id).toBeGreaterThan(0)
  }
})

it('every symptom has causes, every check tells something of one, every cause can be checked', () => {
  for (const symptom of symptomIds)
    expect(causeIds.filter((id) => causeOf(id).symptoms[symptom]).length, symptom).toBeGreaterThanOrEqual(2)
  for (const check of checkIds)
    expect(
      causeIds.some((id) => causeOf(id).shows[check] !== undefined),
      check,
    ).toBe(true)
  for (const id of causeIds) {
    expect(Object.keys(causeOf(id).shows).length, id).toBeGreaterThan(0)
    for (const when of Object.keys(causeOf(id).when ?? {})) expect(whenIds).toContain(when)
  }
})

it('every finding leads to one cause, or is known to be none', () => {
  const all = [...Object.keys(findingCodes), ...Object.keys(timingFindingCodes)]
  for (const code of new Set(all)) {
    const own = causeIds.filter((id) => (causeOf(id).codes as readonly string[] | undefined)?.includes(code))
    const none = (FINDINGS_WITHOUT_CAUSE as readonly string[]).includes(code)
    expect(own.length + Number(none), `${code}: ${own.join(', ')}`).toBe(1)
  }
})

it('what can hurt carries its caution', () => {
  const must: Record<string, RegExp> = {
    '48 V is missing': /mute/i,
    'fully down': /slowly/,
    'own volume is down': /amplifiers.*last/i,
    'howl': /down first/,
    'firmware does': /never cut/i,
    'as a drive': /eject/i,
    'is muted': /monitors down/i,
  }
  for (const [words, caution] of Object.entries(must)) {
    const own = causeIds.filter(
      (id) => causeOf(id).title.includes(words) || (words === 'howl' && (causeOf(id).symptoms.howl ?? 0) > 0.5),
    )
    expect(own.length, words).toBeGreaterThan(0)
    for (const id of own) expect(causeOf(id).caution, id).toMatch(caution)
  }
  for (const id of causeIds.filter((each) => (causeOf(each).symptoms.hum ?? 0) > 0.5 && each !== 'unbalanced-lead'))
    expect(causeOf(id).caution, id).toMatch(/qualified person; local rules/)
  for (const id of causeIds)
    if (/turn .* up|up slowly|open it/i.test(causeOf(id).byHand)) expect(causeOf(id).caution, id).toBeTruthy()
})
