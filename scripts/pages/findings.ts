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

const page = `# Findings

Every finding with its cause, its rule and the source of the rule. The code is its name in an evaluation. \`npm run pages\` makes this page from
\`core/checks/finding-codes.ts\` and \`core/timing/finding-codes.ts\`, and \`npm test\` compares them.

A fix is applied and evaluated before it is offered. It has to remove the finding and may add no stop. If no change of the session can fix it, the
finding says in words what to do.

## Of a strip

${table(findingCodes)}
## Of the clock, the driver, the measurements and the disk

${table(timingFindingCodes)}`

export default page
