import { expect, it } from 'vitest'
import type { FindingFacts } from '#core/checks/finding-codes'
import { findingCodes } from '#core/checks/finding-codes'
import { timingFindingCodes } from '#core/timing/finding-codes'

const table = (codes: Readonly<Record<string, FindingFacts>>) =>
  Object.entries(codes)
    .map(
      ([code, { title, cause, rule, source }]) =>
        `### ${title.charAt(0).toUpperCase()}${title.slice(1)}\n\n\`${code}\`\n\n- Cause: ${cause}\n- Rule: ${rule}\n- Source: ${source}.\n`,
    )
    .join('\n')

const document = `# Findings

What Remetra finds, each with what brings it about, the rule by which it is found, and where the rule is from. The code is what a
session’s evaluation calls it. This page is made from the tables in \`core/checks/finding-codes.ts\` and
\`core/timing/finding-codes.ts\` by \`npm run findings\`; a test compares them.

A finding’s fix is applied and evaluated before it is offered: it has to do away with the finding, and nothing of severity stop may be
new. What no change of the session can fix is said without one.

## Of a strip

${table(findingCodes)}
## Of the clock, the driver, the measurements and the disk

${table(timingFindingCodes)}`

it('docs/findings.md is what the tables say', async () => {
  await expect(document).toMatchFileSnapshot('../../docs/findings.md')
})

it('every entry is whole: words, and a source or the mark that there is none', () => {
  for (const facts of Object.values({ ...findingCodes, ...timingFindingCodes }))
    for (const words of Object.values(facts)) expect(words.length).toBeGreaterThan(4)
})
