import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { sentencesOf, shownTexts } from '../support/shown-text'

/** Phrases that a native engineer would not say, with what is said in their place. */
const SAID_OTHERWISE: readonly (readonly [RegExp, string])[] = [
  [/\bto see to\b/i, 'needs attention'],
  [/\bsurer\b(?!-)/i, 'measure next'],
  [/before it clips(?! whatever)/, 'headroom'],
  [/that the take clips/, 'risk of clipping'],
  [/before it howls|\bcan howl\b|\ba howl\b/, 'gain before feedback'],
  [/sets the floor/, 'noise floor set by'],
  [/ms to the performer’s ears/, 'monitoring delay'],
  [/Under the ceiling|In its own unit/, 'relative to clipping, absolute levels'],
  [/\bmend (it|this|these|the)\b/i, 'fix, correct'],
  [/misses the target/, 'level off target'],
  [/no limit given/, 'no maximum given'],
  [/does not mind 48 V/, '48 V tolerated'],
  [/Where it goes|Who brings what/, 'sends, contributions'],
  [/Never over|Equally loud/, 'highest possible peak, match loudness'],
  [/Knob, (lowest|highest|step)|Lowest mark/, 'minimum gain, maximum gain, gain step'],
  [/made-up performer/, 'simulated performer'],
  [/[Oo]wn sound|heard twice now/, 'own signal, no doubled signal'],
  [
    /Hear before and now|Begin anew|Another one(?! moves)|Once more/,
    'compare before and after, start over, next, repeat',
  ],
  [/Cross out|Back to a mark|Make a mark|Begin the take|Watch an input/, 'delete, recall, add a mark, start take'],
  [/Not told apart|foremost at|speaks? (for|against)\b/, 'not conclusive yet, supports, contradicts'],
  [/Let a recording answer|It stands right|By the shortest way|Comes again|Forget all of it/, 'analyse a recording, …'],
  [/As small as it runs|As large as is not felt|Against crackles,/, 'smallest stable buffer, …'],
  [/Take what is in the file|Write over it/, 'load the file, overwrite'],
  [/[Gg]ive or take/, '±'],
  [/Numbers end at|rough measure of it/, 'clips at 0 dBFS, approximate here'],
  [/"\$\{[^}"]*\.name\}/, 'curly quotes around a name'],
  [/no such figure any more/, 'this figure no longer exists'],
  [/\b(gain|volume|host|gauge|passage|soundcheck) anew\b/, 'again, restart'],
  [/\b[Pp]lainly (heard|earlier)|changes plainly/, 'clearly'],
  [/polarity turned over|turns? the (signal|pulse) over/, 'inverted'],
  [/\bhangs? on (the|another)\b/, 'is connected to'],
  [/\bfor good\b/, 'permanently'],
  [/[Tt]ake the last answer back|Take a tick back/, 'undo'],
  [
    /Look at once more|walk the table|the truth is later/,
    'check again, move through the table, the true delay is longer',
  ],
  [/needs something|Both at once/, 'needs attention, both'],
]

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(ts|vue)$/.test(file))
    .map((file) => join(folder, file))

/** What a file can show: without its comments, its imports, and names in code. */
const shown = (source: string): string =>
  source
    .replace(/\/\*[^]*?\*\/|<!--[^]*?-->/g, '')
    .replace(/(^|\s)\/\/.*$/gm, '')
    .replace(/^import .*$/gm, '')
    .replace(/\s+/g, ' ')

it('no screen, finding, reason or message says it in words that nobody of the trade says', () => {
  const found = ['app', 'core', 'server'].flatMap(filesIn).flatMap((file) => {
    const text = shown(readFileSync(file, 'utf8'))
    return SAID_OTHERWISE.flatMap(([phrase, say]) => {
      const at = text.search(phrase)
      return at < 0 ? [] : [`${file}: “${text.slice(Math.max(0, at - 30), at + 40)}” – say: ${say}`]
    })
  })
  expect(found).toEqual([])
})

/** One name for each thing, in whatever is more than one word. */
const NAMED_OTHERWISE: readonly (readonly [RegExp, string])[] = [
  [/(?<!\bDI |\b[Ss]tage )\bbox(es)?\b/, 'device'],
  [/\bjoints?\b/, 'connection'],
  [/\b(an?|[Tt]he|long|short|balanced|unbalanced|every|no) leads?\b/, 'cable'],
  [/\b(as|the) printed\b|\bprinted value/i, 'data sheet'],
]

it('one name for each thing: device, connection, cable, data sheet', () => {
  const found = ['app', 'core', 'server', 'demo'].flatMap(filesIn).flatMap((file) =>
    shownTexts(file)
      .filter((text) => /\s/.test(text.trim()) && !isLook(text))
      .flatMap((text) =>
        NAMED_OTHERWISE.flatMap(([name, say]) => (name.test(text) ? [`${file}: ${text.trim()} – say: ${say}`] : [])),
      ),
  )
  expect(found).toEqual([])
})

/** A sentence that is longer is two. */
const MOST_WORDS = 25
/** Lists of classes of a component’s look. */
const isLook = (text: string) => /(^| )(flex|grid|border|text-|min-|gap-|card:|rail:|column:)/.test(text)

it(`no sentence that is shown has more than ${MOST_WORDS} words`, () => {
  const texts = ['app', 'core', 'server', 'demo']
    .flatMap(filesIn)
    .flatMap((file) => shownTexts(file).map((text) => ({ file, text })))
  expect(texts.length).toBeGreaterThan(3000)
  const long = texts
    .filter(({ text }) => !isLook(text))
    .flatMap(({ file, text }) => sentencesOf(text).map((sentence) => `${file}: ${sentence}`))
    .filter((line) => line.split(' ').length - 1 > MOST_WORDS)
  expect(long).toEqual([])
})

/** What is read as sentences in a page of the documentation: not its code, its tables, nor what a link leads to. */
const proseOf = (page: string): string[] =>
  page
    .replace(/```[^]*?```/g, '')
    .replace(/^\|.*$/gm, '')
    .replace(/!\[[^\]]*\]\([^)]*\)/g, '')
    .replace(/\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/`[^`]*`/g, 'code')
    .split(/\n\s*\n|\n(?=- )/)
    .map((paragraph) => paragraph.replace(/\s+/g, ' ').trim())
    .filter(Boolean)

const PAGES = ['README.md', 'CONTRIBUTING.md', 'docs/tour.md', 'docs/measuring.md', 'docs/architecture.md']

it.each(PAGES)('%s says it as the screens do, in short sentences', (file) => {
  const prose = proseOf(readFileSync(file, 'utf8'))
  expect(prose.length).toBeGreaterThan(5)
  const said = prose.flatMap((text) =>
    SAID_OTHERWISE.flatMap(([phrase, say]) => (phrase.test(text) ? [`${text} – say: ${say}`] : [])),
  )
  // Lists after a colon and parts between semicolons are read one by one.
  const sentences = prose.flatMap((text) => text.split(/(?<=[.?!:;])\s+/))
  expect([...said, ...sentences.filter((sentence) => sentence.split(' ').length > MOST_WORDS)]).toEqual([])
})
