import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { gearKinds } from '#core/gear'

const root = fileURLToPath(new URL('../..', import.meta.url))
const KIND = `'(?:${[...gearKinds, 'digital-input', 'interface-output'].join('|')})'`

/** Ways to ask for a kind by its name, in place of the guard or the trait that its folder gives. */
const COMPARED = [
  new RegExp(`\\bkinds?\\b[^;\\n=!]{0,30}[=!]==? ${KIND}`, 'g'),
  new RegExp(`${KIND} [=!]==? [^;\\n]{0,30}\\.kind\\b`, 'g'),
  /switch \((?:stage|gear|item|box|source|each|from|to|next)\.kind\)/g,
  new RegExp(`\\[${KIND}(?:, ${KIND})+\\]`, 'g'),
  new RegExp(`\\[${KIND}(?:, ${KIND})*\\]\\.includes\\(`, 'g'),
]

const files = ['core', 'app', 'server'].flatMap((room) =>
  readdirSync(`${root}/${room}`, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|vue)$/.test(name))
    .map((name) => `${room}/${name}`),
)
const comparisons = (text: string) => COMPARED.flatMap((pattern) => [...text.matchAll(pattern)].map(([found]) => found))

describe('what belongs to a kind of gear stands in its folder', () => {
  it('no file compares kinds by their names: it asks the guard or a trait of the kind', () => {
    expect(files.length).toBeGreaterThan(500)
    const found = files.flatMap((file) =>
      comparisons(readFileSync(`${root}/${file}`, 'utf8')).map((each) => `${file}: ${each}`),
    )
    expect(found).toEqual([])
  })
  it('knows a comparison when it sees one', () => {
    for (const text of [
      "if (stage.kind === 'microphone') return",
      "const is = gear?.kind !== 'desk-channel'",
      "kinds.get(id) === 'loudspeaker'",
      "stages.some(({ kind }) => kind === 'pad')",
      'switch (stage.kind) {',
      "new Set(['pad', 'di-box'])",
    ])
      expect(comparisons(text), text).toHaveLength(1)
  })
})
