// Breaks each rule of scripts/rules.json once and looks whether a test fails. What nobody notices is told, and is a fault.
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { root, together } from './steps.mjs'

const rules = JSON.parse(readFileSync(`${root}scripts/rules.json`, 'utf8'))
const unguarded = []

/** Whether tests pass: those of all rules as they stand, or those of one rule without it. */
const pass = (index) =>
  new Promise((resolve) => {
    const child = spawn(
      'npx',
      [
        'vitest',
        'run',
        '--config',
        index === null ? 'vitest.config.ts' : 'vitest.rules.config.ts',
        '--bail',
        '1',
        ...(index === null ? new Set(rules.flatMap(({ tests }) => tests)) : rules[index].tests),
      ],
      { cwd: root, env: { ...process.env, RULE: String(index) }, stdio: 'ignore' },
    )
    child.on('exit', (code) => resolve(code === 0))
  })

// A test that fails anyhow would notice everything.
if (!(await pass(null))) {
  console.log('The tests of the rules do not pass as they stand: see to that first.')
  process.exit(1)
}
await together(
  2,
  rules.map(({ rule, file, from }, index) => async () => {
    const found = readFileSync(`${root}${file}`, 'utf8').split(from).length - 1
    const trouble =
      found === 1 ? ((await pass(index)) ? 'no test notices' : null) : `its text is ${found} times in ${file}`
    if (trouble) unguarded.push(rule)
    console.log(`${trouble ? 'OPEN   ' : 'guarded'}  ${rule}${trouble ? `: ${trouble}` : ''}`)
  }),
)
console.log(`${rules.length - unguarded.length} of ${rules.length} rules are guarded`)
process.exit(unguarded.length === 0 ? 0 : 1)
