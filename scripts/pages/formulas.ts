import type { Formula, FormulaGroup } from '#core/formula'
import { formulaGroups } from '#core/formula'

const row = ({ quantity, statement, source, check }: Formula) =>
  `| ${[quantity, statement, source, check.says].map((each) => each.replaceAll('|', '\\|')).join(' | ')} |`
const section = ({ title, formulas, notes }: FormulaGroup) =>
  [
    `## ${title}`,
    '',
    '| quantity | formula | source | check |',
    '| --- | --- | --- | --- |',
    ...formulas.map(row),
    ...(notes === '' ? [] : ['', notes]),
    '',
  ].join('\n')

const page = `# Formulas

Levels have a reference, gains have none. lg is the decimal logarithm. \`npm run pages\` makes this page from \`core/formula\`, and \`npm test\`
compares them. \`tests/reference/formulas.test.ts\` fails if a check is missing or not met. *Common practice* marks a rule of thumb without a
source, *from memory* a source that was not at hand.

${formulaGroups.map(section).join('\n')}
## Noise budget

Referred to the air: level at the recorder + (average at the source's point − average at the recorder). To find what would improve it, Remetra
changes one thing and evaluates the session again: 1 dB of a gain, half the distance, a room 3 dB quieter, a preamp with 3 dB less _excess_.

## Worked examples

1. 68 dB SPL at 1 m, crest 14, surge 6, at 0.30 m; 15 mV/Pa, 200 Ω, 14 dBA, 134 dB SPL; room 28 dBA; 0–60 dB, 0 dBFS at +15 dBu, EIN
   −127 dBu(A), DR 110 dB, 2.4 kΩ; gain 35 dB, 24 bits → 78.46 dB SPL, −50.48 dBu, −30.48 dBFS, peak −19.49, noise −80.75 dBFS(A) (room
   95.9 %), SNR 50.28 dB.
2. The same at 0.10 m; moving coil 1.8 mV/Pa, 300 Ω, 150 dB SPL; no room; gain 52 dB → −22.68 dBFS, peak −11.69, noise −89.37 (preamp
   64.6 %), SNR 66.69 dB.

Both are tested in the core, over HTTP and on the screen.
`

export default page
