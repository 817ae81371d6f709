// The pages of docs that are made from data of the core. With --check nothing is written, and a page that differs is told.
import { build } from 'esbuild'
import { readFileSync, writeFileSync } from 'node:fs'
import { root } from './steps.mjs'

const checks = process.argv.includes('--check')
let behind = 0
for (const name of ['findings', 'formulas', 'faults']) {
  const { outputFiles } = await build({
    entryPoints: [`${root}scripts/pages/${name}.ts`],
    alias: { '#core': `${root}core` },
    bundle: true,
    write: false,
    format: 'esm',
    platform: 'node',
    logLevel: 'error',
  })
  const { default: page } = await import(
    `data:text/javascript;base64,${Buffer.from(outputFiles[0].contents).toString('base64')}`
  )
  const file = `docs/${name}.md`
  if (readFileSync(`${root}${file}`, 'utf8') === page) continue
  if (!checks) {
    writeFileSync(`${root}${file}`, page)
    console.log(`${file} is new`)
  } else {
    behind++
    console.log(`${file} is not what the core says: run "npm run pages"`)
  }
}
process.exit(behind === 0 ? 0 : 1)
