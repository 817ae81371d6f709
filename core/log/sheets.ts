import { gainControls } from '../chain/gain-control'
import type { ResolvedStage } from '../chain/resolve'
import { gearById, resolveStrip } from '../chain/resolve'
import { portOf, settingWords, stageName } from '../chain/setting-words'
import type { GainRange, Log, Session } from '../session'
import { isBus } from '../session'
import { recorderChannel } from '../soundcheck/plug-steps'
import { formatDecimal, formatShort } from '../units'

/** One control on the recall sheet: where it stands on its scale, drawn as a tick on a short slide rule. */
export interface SheetControl {
  stage: string
  name: string
  setting: string
  words: string
  /** Its value and its range where it is a gain. */
  scale: { value: number; range: GainRange } | null
}
export interface SheetStripRow {
  strip: string
  channel: number | null
  controls: SheetControl[]
}

/** Every control’s position of every strip, also those at zero. */
export function recallSheet(session: Session): SheetStripRow[] {
  const gear = gearById(session)
  return session.strips.map((strip) => {
    const stages = resolveStrip(strip, gear)
    return { strip: strip.name, channel: recorderChannel({ stages }), controls: stages.flatMap(controlsOf) }
  })
}

function controlsOf(stage: ResolvedStage): SheetControl[] {
  const gains = gainControls(stage)
  return settingWords(stage).map(({ setting, name, words }) => {
    const control = gains.find((each) => each.setting === setting)
    return {
      stage: stageName(stage),
      name,
      setting,
      words,
      scale: control ? { value: control.value, range: control.range } : null,
    }
  })
}

/** A table for paper and spreadsheet: its first row is its header. */
export type Table = string[][]

export const recallTable = (session: Session): Table => [
  ['Strip', 'Recorder’s channel', 'Stage', 'Control', 'Position'],
  ...recallSheet(session).flatMap(({ strip, channel, controls }) =>
    controls.map(({ stage, name, words }) => [strip, channel === null ? '' : String(channel), stage, name, words]),
  ),
]

/** Which source is plugged where, as the recorder counts. */
export function stageBoxTable(session: Session): Table {
  const gear = gearById(session)
  const rows = session.strips
    .filter((strip) => !isBus(strip))
    .flatMap((strip) => {
      const stages = resolveStrip(strip, gear)
      const channel = recorderChannel({ stages })
      const input = stages.findLast(({ kind }) => kind === 'interface' || kind === 'digital-input')
      if (channel === null || !input) return []
      const first = stages.find(({ settings }) => settings.phantom !== undefined)
      const cable = stages.reduce((sum, { settings }) => sum + (settings.cable ?? 0), 0)
      return [
        {
          channel,
          row: [
            String(channel),
            input.gear.name,
            portOf(input) ?? '',
            strip.name,
            stages.find(({ kind }) => kind === 'microphone')?.gear.name ?? stages[0]?.gear.name ?? '',
            cable > 0 ? `${formatShort(cable, 1)} m` : '',
            first?.settings.phantom ? 'on' : 'off',
            stages.some(({ settings }) => settings.pad) ? 'in' : 'out',
          ],
        },
      ]
    })
  return [
    ['Recorder’s channel', 'Unit', 'Socket', 'Strip', 'From', 'Cable', '48 V', 'Pad'],
    ...rows.sort((a, b) => a.channel - b.channel).map(({ row }) => row),
  ]
}

/** The takes that are meant, in their order. */
export function takeTable({ takes, marks }: Log, session: Session): Table {
  const names = new Map(session.strips.map(({ id, name }) => [id, name]))
  return [
    ['Take', 'Name', 'Strips', 'Began', 'Length, min:s', 'Verdict', 'Peak, dBFS', 'Clipped runs', 'Mark', 'Note'],
    ...takes
      .filter(({ struck }) => !struck)
      .map((take) => [
        String(take.number),
        take.name,
        take.strips.map((id) => names.get(id) ?? id).join(', '),
        take.at,
        take.seconds === undefined ? '' : lengthInWords(take.seconds),
        take.verdict ?? '',
        take.peak === undefined ? '' : formatDecimal(take.peak, 1),
        take.clippedRuns === undefined ? '' : String(take.clippedRuns),
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
  const line = (cells: readonly string[]) =>
    `| ${cells.map((each) => each.replace(/\|/g, '\\|').replace(/\s*\n\s*/g, ' ')).join(' | ')} |`
  return [`# ${title}`, '', line(header), line(header.map(() => '---')), ...rows.map(line), ''].join('\n')
}

/** A table as JSON: one object for each row, by the names of its columns. */
export const asJson = ([header = [], ...rows]: Table): string =>
  `${JSON.stringify(
    rows.map((row) => Object.fromEntries(header.map((name, i) => [name, row[i] ?? '']))),
    null,
    2,
  )}\n`
