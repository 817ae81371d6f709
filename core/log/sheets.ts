import { gainControls } from '../chain/gain-control'
import { isFed, phantomSwitch, phantomUses, usersText, usesOf } from '../chain/phantom'
import type { PhantomUse } from '../chain/phantom'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { portOf, settingWords, stageName } from '../chain/setting-words'
import type { GainRange } from '../gear'
import type { Log, MarkHead, Session } from '../session'
import type { Strip } from '../model'
import { traitsOf, isInterface, isMicrophone, isDigitalInput } from '../gear'
import { feedsOf, isBus } from '../model'
import { markdownText } from '../files'
import { recorderChannel } from '../soundcheck/plug-steps'
import { formatShort, lowerCase } from '../units'
import { evaluateSession } from '../evaluation/evaluate-session'

/** One gain on the recall sheet: where it stands on its scale, drawn as a tick on a short slide rule. */
export interface SheetGain {
  name: string
  words: string
  scale: { value: number; range: GainRange } | null
}
export interface SheetStage {
  stage: string
  /** Its switches, its distance and its cable: name and position. */
  others: { name: string; words: string }[]
  gains: SheetGain[]
}
export interface SheetStrip {
  strip: string
  channel: number | null
  stages: SheetStage[]
  /** Peak expected at the recorder as it is set, dBFS: what is read against it when the session is set up again. */
  expected: number | null
  /** Where it goes, and what its performer hears. */
  routing: { name: string; words: string }[]
}

/** Every control’s position of every strip, also those at zero, and its routing. */
export function recallSheet(session: Session): SheetStrip[] {
  const evaluation = evaluateSession(session)
  return session.strips.map((strip, i) => {
    const stages = stagesOf(session, strip)
    const at = stages.findLastIndex((each) => isInterface(each) || isDigitalInput(each))
    return {
      strip: strip.name,
      channel: recorderChannel({ stages }),
      stages: stages.map(sheetStage).filter(({ others, gains }) => others.length + gains.length > 0),
      expected: evaluation.strips[i]?.points[at]?.peak ?? null,
      routing: routingOf(session, strip),
    }
  })
}

const GAINS: ReadonlySet<string> = new Set(['gain', 'fader'])

function sheetStage(stage: ResolvedStage): SheetStage {
  const controls = gainControls(stage)
  const all = settingWords(stage)
  return {
    stage: stageName(stage),
    others: [
      ...microphoneNeeds(stage),
      ...patternOf(stage),
      ...all
        .filter(({ setting }) => !GAINS.has(setting))
        .map(({ setting, name, words }) => ({ name, words: setting === 'phantom' ? words + bankOf(stage) : words })),
    ],
    gains: all
      .filter(({ setting }) => GAINS.has(setting))
      .map(({ setting, name, words }) => {
        const control = controls.find((each) => each.setting === setting)
        return { name, words, scale: control ? { value: control.value, range: control.range } : null }
      }),
  }
}

/** A pattern is set at the microphone, as a switch is. */
function patternOf({ gear }: ResolvedStage): { name: string; words: string }[] {
  const own = traitsOf(gear)
    .choices(gear)
    .find(({ key }) => key === 'pattern')
  const set = own?.options.find(({ value }) => value !== '' && value === own.value)
  return own && set ? [{ name: own.label, words: set.text }] : []
}
/** Whoever switches 48 V has to know what else is on the switch. */
const bankOf = (stage: ResolvedStage): string =>
  isInterface(stage) && stage.input.phantomBank !== undefined ? `, bank ${stage.input.phantomBank}` : ''

/** What a microphone needs stands beside what its input gives. */
const microphoneNeeds = (stage: ResolvedStage): { name: string; words: string }[] =>
  isMicrophone(stage) ? [ATTITUDES[stage.gear.phantom]] : []
const ATTITUDES = {
  needed: { name: 'Needs', words: '48 V' },
  harmless: { name: 'Tolerates', words: '48 V' },
  harmful: { name: 'Must not get', words: '48 V' },
} as const

function routingOf(session: Session, strip: Strip): { name: string; words: string }[] {
  const sends = feedsOf(strip).map(({ to, gain, tap }) => ({
    name: `Send, ${session.strips.find(({ id }) => id === to)?.name ?? to}`,
    words: `${formatShort(gain, 1)} dB, ${tap} fader`,
  }))
  if (isBus(strip)) return sends
  const { route, volume, headphones } = strip.monitor
  const on = session.gear.find(({ id }) => id === headphones)?.name
  return [
    ...sends,
    {
      name: 'Listens by',
      words: `${route === 'direct' ? 'direct monitoring' : 'software monitoring'}${on ? `, ${on}` : ''}`,
    },
    ...(volume === undefined ? [] : [{ name: 'Headphone volume', words: `${formatShort(volume, 1)} dB` }]),
  ]
}

/** Rate, word length, buffer and driver in one line, and the mark’s own words where the sheet is of one. */
export function sheetHead({ system }: Session, mark: MarkHead | null): string[] {
  const depth = system.bitDepth === 32 ? 'floating point' : `${system.bitDepth} bits`
  const driver = system.driver ? `, ${DRIVERS[system.driver]}` : ''
  return [
    `${formatShort(system.sampleRate / 1000)} kHz, ${depth}, buffer ${system.bufferFrames} frames${driver}`,
    ...(mark
      ? [
          [`Mark “${mark.name}”`, mark.at, mark.by, mark.firmware && `firmware ${mark.firmware}`, mark.note]
            .filter(Boolean)
            .join(', '),
        ]
      : []),
  ]
}
const DRIVERS = { exclusive: 'maker’s driver', class: 'class driver', shared: 'shared mixer' } as const

/** What stands in a table: words, or a number that stays one in data. */
export type Cell = string | number
/** A table for paper and spreadsheet: its first row is its header. */
export type Table = Cell[][]

/** A cell as it is read. */
export const cellText = (cell: Cell): string => (typeof cell === 'number' ? formatShort(cell, 1) : cell)

/** What stands before every setting (common practice, no source). */
const FIRST =
  'Mute the outputs, loudspeakers off or down. They go on last; local rules and the maker’s manual come first.'

export const recallTable = (session: Session): Table => [
  ['Strip', 'Recorder’s channel', 'Stage', 'Control', 'Position', 'Read'],
  ['System', '', '', 'First', FIRST, ''],
  ...recallSheet(session).flatMap(({ strip, channel, stages, expected, routing }) => {
    const row = (stage: string, name: string, at: Cell): Cell[] => [strip, channel ?? '', stage, name, at, '']
    return [
      ...stages.flatMap(({ stage, others, gains }) =>
        [...others, ...gains].map(({ name, words }) => row(stage, name, words)),
      ),
      ...(expected === null ? [] : [row('', 'Expected peak, dBFS', Number(expected.toFixed(1)))]),
      ...routing.map(({ name, words }) => row('', name, words)),
    ]
  }),
  ['System', '', '', 'Rate, bits, buffer, driver', sheetHead(session, null)[0] ?? '', ''],
]

/** Which source is plugged where, as the recorder counts. */
export function stageBoxTable(session: Session): Table {
  const uses = phantomUses(session)
  const rows = session.strips
    .filter((strip) => !isBus(strip))
    .flatMap((strip) => {
      const stages = stagesOf(session, strip)
      const channel = recorderChannel({ stages })
      const input = stages.findLast((each) => isInterface(each) || isDigitalInput(each))
      if (channel === null || !input) return []
      const cable = stages.reduce((sum, { settings }) => sum + (settings.cable ?? 0), 0)
      return [
        {
          channel,
          row: [
            channel,
            input.gear.name,
            portOf(input) ?? '',
            strip.name,
            stages.find((each) => isMicrophone(each))?.gear.name ?? stages[0]?.gear.name ?? '',
            microphoneNeedsText(stages),
            cable > 0 ? `${formatShort(cable, 1)} m` : '',
            phantomText(uses, strip.id, stages),
            stages.some(({ settings }) => settings.pad) ? 'in' : 'out',
          ],
        },
      ]
    })
  return [
    ['Recorder’s channel', 'Unit', 'Socket', 'Strip', 'From', 'Needs', 'Cable', '48 V', 'Pad'],
    ...rows.sort((a, b) => a.channel - b.channel).map(({ row }) => row),
  ]
}

const microphoneNeedsText = (stages: readonly ResolvedStage[]): string =>
  stages
    .flatMap(microphoneNeeds)
    .map(({ name, words }) => `${lowerCase(name)} ${words}`)
    .join(', ')

/** How the 48 V of a strip stands, and what is wrong with it by what hangs on its switch. */
function phantomText(uses: readonly PhantomUse[], strip: string, stages: readonly ResolvedStage[]): string {
  const as = (on: boolean) => (on ? 'on' : 'off')
  const own = usesOf(uses, strip).find(isFed)
  const fed = own && phantomSwitch(uses, own.supply.switchId)
  if (!fed) return as(stages.some(({ settings }) => settings.phantom === true))
  if (fed.should === 'conflict') return `keep off: conflict on this switch, ${usersText(fed.harmed)} must not get it`
  const bank = fed.bank === undefined ? '' : `, bank ${fed.bank}`
  return `${fed.on === (fed.should === 'on') ? as(fed.on) : `${as(fed.on)}, should be ${fed.should}`}${bank}`
}

/** The takes that are meant, in their order. */
export function takeTable({ takes, marks }: Log, session: Session): Table {
  const names = new Map(session.strips.map(({ id, name }) => [id, name]))
  return [
    ['Take', 'Name', 'Strips', 'Began', 'Length, min:s', 'Verdict', 'Peak, dBFS', 'Clipped runs', 'Mark', 'Note'],
    ...takes
      .filter(({ struck }) => !struck)
      .map((take) => [
        take.number,
        take.name,
        take.strips.map((id) => names.get(id) ?? id).join(', '),
        take.at,
        take.seconds === undefined ? '' : lengthInWords(take.seconds),
        take.verdict ?? '',
        take.peak === undefined ? '' : Number(take.peak.toFixed(1)),
        take.clippedRuns ?? '',
        marks.find(({ id }) => id === take.mark)?.name ?? '',
        take.note ?? '',
      ]),
  ]
}

/** 3:07, or 1:02:30 from an hour on. */
export function lengthInWords(seconds: number): string {
  const whole = Math.round(seconds)
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60]
  const two = (each: number) => String(each).padStart(2, '0')
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`
}

/** A table as Markdown, under a heading. */
export function asMarkdown(title: string, [header = [], ...rows]: Table): string {
  const line = (cells: readonly Cell[]) => `| ${cells.map((cell) => markdownText(cellText(cell))).join(' | ')} |`
  return [`# ${markdownText(title)}`, '', line(header), line(header.map(() => '---')), ...rows.map(line), ''].join('\n')
}

/** A table as JSON: one object for each row, by the names of its columns. */
export const asJson = ([header = [], ...rows]: Table): string =>
  `${JSON.stringify(
    rows.map((row) => Object.fromEntries(header.map((name, i) => [name, row[i] ?? '']))),
    null,
    2,
  )}\n`
