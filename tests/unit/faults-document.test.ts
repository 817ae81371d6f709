import { expect, it } from 'vitest'
import { causeIds, causeOf } from '#core/diagnosis/causes'
import { checkIds, checkOf } from '#core/diagnosis/checks'
import { symptomIds, symptoms, whenIds } from '#core/diagnosis/symptom'
import { FINDINGS_WITHOUT_CAUSE } from '#core/diagnosis/findings-without-cause'
import { findingCodes } from '#core/checks/finding-codes'
import { timingFindingCodes } from '#core/timing/finding-codes'

const percent = (part: number) => `${Math.round(100 * part)} %`
const outcomesIn = (check: (typeof checkIds)[number], shown: Readonly<Record<string, number>>) =>
  Object.entries(shown)
    .map(([outcome, part]) => `${checkOf(check).outcomes[outcome]?.toLowerCase()} ${percent(part)}`)
    .join(', ')

const bySymptom = symptomIds
  .map((symptom) => {
    const own = causeIds
      .filter((id) => causeOf(id).symptoms[symptom] !== undefined)
      .sort((a, b) => weight(b) - weight(a))
    function weight(id: (typeof causeIds)[number]) {
      return causeOf(id).prior * (causeOf(id).symptoms[symptom] ?? 0)
    }
    return `### ${symptoms[symptom].title}\n\n\`${symptom}\`; also: ${symptoms[symptom].also.join(', ')}.\n\n| cause | prior | shows so |\n|---|---|---|\n${own
      .map(
        (id) =>
          `| ${causeOf(id).title} (\`${id}\`) | ${causeOf(id).prior} | ${percent(causeOf(id).symptoms[symptom] ?? 0)} |`,
      )
      .join('\n')}\n`
  })
  .join('\n')

const byCause = causeIds
  .map((id) => {
    const { title, byHand, after, caution, shows, codes, present, fixes } = causeOf(id)
    const tells = Object.entries(shows).map(
      ([check, shown]) => `\`${check}\` (${outcomesIn(check as (typeof checkIds)[number], shown)})`,
    )
    return [
      `### ${title}\n\n\`${id}\`\n`,
      `- Checks: ${tells.join('; ')}.`,
      ...(codes?.length ? [`- Findings: ${codes.map((code) => `\`${code}\``).join(', ')}.`] : []),
      `- Seen in the session: ${present ? 'yes' : 'no; only checks and recordings tell'}.`,
      `- Fix: ${byHand}${fixes ? ' Where the session shows it, the fix is offered as a change that was tried.' : ''}`,
      `- Afterwards: ${after}`,
      ...(caution ? [`- Caution: ${caution}`] : []),
      '',
    ].join('\n')
  })
  .join('\n')

const byCheck = checkIds
  .map((id) => {
    const { ask, minutes, usual, caution } = checkOf(id)
    return `| \`${id}\` | ${ask}${caution ? ` *${caution}*` : ''} | ${minutes} | ${outcomesIn(id, usual)} |`
  })
  .join('\n')

const document = `# Faults

What can be wrong, what it looks like, how to tell it apart, and how to fix it. This page is made from the data of \`core/diagnosis\` by
\`npm run findings\`; a test compares them.

**How it is ranked.** Naive Bayes: one cause is taken to be at work, and what is seen of it to hang together by nothing else. A cause’s
weight is its prior, times how often it shows each symptom, times how likely it makes each outcome of a check, times the weight of each
piece of evidence from the session; all weights, and one for something else, are brought to a sum of 1. Priors, likelihoods and weights are
common practice, no source; the figures in the evidence are computed from the chain.

**What to check next** is the check with the most expected information – the entropy of its outcome less what of it remains once the cause
is known (Shannon, 1948; Lindley, 1956; from memory) – by the minutes that it takes and one for turning to it.

**A fix** is applied to the session and evaluated before it is offered: the cause has to be gone, nothing of severity stop may be new on
any strip, and nothing is turned up while something clips. What no change of the session can fix is said as a hand’s work.

## Symptoms

${bySymptom}
## Causes

${byCause}
## Checks

| id | what is asked | min | usual outcomes |
|---|---|---|---|
${byCheck}
`

it('docs/faults.md is what the data say', async () => {
  await expect(document).toMatchFileSnapshot('../../docs/faults.md')
})

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
