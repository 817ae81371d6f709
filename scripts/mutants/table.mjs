// The table of scores in docs/testing.md: a room that was tried gets its new line, the others keep theirs.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { root } from '../steps.mjs'

const PAGE = `${root}docs/testing.md`
const HEAD = '| room | mutants tried | noticed | score |\n|---|---|---|---|\n'
const ROW = /^\| core\/(\w+) \|.*$/gm

export function writeTable(scores) {
  if (!existsSync(PAGE)) return
  const page = readFileSync(PAGE, 'utf8')
  const rows = new Map([...page.matchAll(ROW)].map(([row, room]) => [room, row]))
  for (const { room, tried, survivors } of scores) {
    const noticed = tried - survivors.length
    rows.set(room, `| core/${room} | ${tried} | ${noticed} | ${((100 * noticed) / tried).toFixed(0)} % |`)
  }
  const table =
    HEAD +
    [...rows]
      .sort()
      .map(([, row]) => `${row}\n`)
      .join('')
  writeFileSync(PAGE, page.replace(/(<!-- scores -->\n\n)[\s\S]*?(\n<!-- end -->)/, `$1${table}$2`))
}
