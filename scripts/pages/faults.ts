import { causeIds, causeOf } from '#core/diagnosis/causes'
import { checkIds, checkOf } from '#core/diagnosis/checks'
import { symptomIds, symptoms } from '#core/diagnosis/symptom'

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

const page = `# Faults

What can be wrong, how it shows, how to tell it from the rest, and how to fix it. \`npm run pages\` makes this page from \`core/diagnosis\`, and
\`npm test\` compares them.

**Ranking.** Naive Bayes: one cause is assumed to be at work, and symptoms and checks depend on nothing else. A cause starts with its prior. It is
multiplied by how often it shows each symptom, by how likely it makes each outcome of a check, and by the weight of each piece of evidence. All
weights, and one for something else, are scaled to a sum of 1. Priors, likelihoods and weights are common practice, no source. The figures in the
evidence are computed from the chain.

**The next check** has the most expected information per minute. Expected information is the entropy of its outcome less the entropy that remains
once the cause is known (Shannon, 1948; Lindley, 1956; from memory). One minute is added for turning to it.

**A fix** is applied to the session and evaluated before it is offered. The cause has to be gone, no strip may have a new stop, and nothing is
turned up while something clips. If no change of the session can fix it, the page says what to do by hand.

## Symptoms

${bySymptom}
## Causes

${byCause}
## Checks

| id | what is asked | min | usual outcomes |
|---|---|---|---|
${byCheck}
`

export default page
