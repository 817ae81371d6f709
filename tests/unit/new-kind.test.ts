import { build } from 'esbuild'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import type { ask as Ask } from '../fixtures/gear/asked'

const path = (name: string) => fileURLToPath(new URL(`../../${name}`, import.meta.url))
const folder = path('tests/fixtures/gear/line-transformer')

/** The rows that CONTRIBUTING.md asks for: what each table gets, and behind which line. */
const ROWS: Record<string, [after: string, row: string][]> = {
  'kinds.ts': [
    [
      "import { z } from '../model/z'",
      `import { lineTransformer, lineTransformerTraits } from '${folder}/line-transformer'`,
    ],
    ['  microphone,', '  lineTransformer,'],
    ["  'microphone': microphoneTraits,", "  'line-transformer': lineTransformerTraits,"],
  ],
  'chains.ts': [
    ["import { padChain } from './pad/chain'", `import { lineTransformerChain } from '${folder}/chain'`],
    ["  'pad': padChain,", "  'line-transformer': lineTransformerChain,"],
  ],
  'explained.ts': [
    [
      "import { padExplained } from './pad/explained'",
      `import { lineTransformerExplained } from '${folder}/explained'`,
    ],
    ["  'pad': padExplained,", "  'line-transformer': lineTransformerExplained,"],
  ],
}

function withRows(name: string): string {
  const text = readFileSync(path(`core/gear/${name}`), 'utf8')
  return (ROWS[name] ?? []).reduce((before, [after, row]) => {
    expect(before).toContain(`${after}\n`)
    return before.replace(`${after}\n`, `${after}\n${row}\n`)
  }, text)
}

/** The core as it would be with one more folder in `core/gear`, and a row in each of the three tables. */
async function houseWithOneMoreKind(): Promise<typeof Ask> {
  const { outputFiles } = await build({
    entryPoints: [path('tests/fixtures/gear/asked.ts')],
    alias: { '#core': path('core') },
    bundle: true,
    write: false,
    format: 'esm',
    platform: 'node',
    plugins: [
      {
        name: 'one-more-kind',
        setup: ({ onLoad }) =>
          onLoad({ filter: /core\/gear\/(kinds|chains|explained)\.ts$/ }, ({ path: file }) => ({
            contents: withRows(file.split('/').at(-1) ?? ''),
            loader: 'ts',
            resolveDir: path('core/gear'),
          })),
      },
    ],
  })
  const code = Buffer.from(outputFiles[0]?.contents ?? []).toString('base64')
  return ((await import(/* @vite-ignore */ `data:text/javascript;base64,${code}`)) as { ask: typeof Ask }).ask
}

const file = {
  format: 'remetra.session',
  version: 3,
  id: 'one-more',
  name: 'One more kind',
  gear: [
    {
      id: 'player',
      kind: 'electric-source',
      name: 'Player',
      output: 'line',
      specs: { level: 0, crest: 12, impedance: 100 },
    },
    {
      id: 'iron',
      kind: 'line-transformer',
      name: 'Iron',
      specs: { loss: 1.5, inputImpedance: 10_000, outputImpedance: 60 },
    },
    {
      id: 'unit',
      kind: 'interface',
      name: 'Unit',
      inputs: [
        {
          id: 'line1',
          type: 'line',
          specs: { gainMin: 0, gainMax: 20, fullScale: 18, dynamicRange: 110, impedance: 20_000 },
        },
      ],
    },
  ],
  strips: [
    {
      id: 's',
      name: 'Strip',
      stages: [
        { id: 's0', gear: 'player' },
        { id: 's1', gear: 'iron' },
        { id: 's2', gear: 'unit', port: 'line1' },
      ],
    },
  ],
}

describe('a kind of gear is one folder and a row in each of three tables', async () => {
  const asked = (await houseWithOneMoreKind())(file, 'line-transformer')

  it('it is listed, has its words and a blank device', () => {
    expect(asked.listed).toBe(true)
    expect(asked.words.name).toBe('a line transformer')
    expect(asked.blank).toMatchObject({ kind: 'line-transformer', specs: { loss: 0.5 } })
  })
  it('its level is computed: the loading of 10 kΩ by 100 Ω, then its loss', () => {
    // −20 lg(1 + 100/10,000) = −0.0864 dB at the source; 1.5 dB in the windings.
    expect(asked.points[0]?.average).toBeCloseTo(-0.0864, 4)
    expect(asked.points[1]?.average).toBeCloseTo(-1.5864, 4)
  })
  it('its gain is explained, and its loss is an input that may be off', () => {
    expect(asked.explained?.value).toBeCloseTo(-1.5, 6)
    expect(asked.explained?.parts[0]).toMatchObject({ name: 'Loss', path: 'gear.iron.loss', origin: 'printed' })
    expect(asked.inputs).toContain('gear.iron.loss')
  })
  it('the run sheet plugs it in, and a table of gear holds it', () => {
    expect(asked.steps).toContain('Player into Iron')
    expect(asked.steps).toContain('Iron into line1 of Unit')
    expect(asked.table).toMatchObject({ ok: true, items: [{ kind: 'line-transformer', specs: { loss: 0.5 } }] })
  })
})
