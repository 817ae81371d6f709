import {
  isDeskChannel,
  isElectricSource,
  isFader,
  isInterface,
  isLoudspeaker,
  isProcessor,
  isSoundSource,
} from '../gear'
import type { Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import { gainControls } from '../chain/gain-control'
import { positionInWords, gainToPosition } from '../chain/knob'
import type { ResolvedStage } from '../gear/stage'
import { settingWords, stageName } from '../chain/setting-words'
import { behindPfl, readingPlace, zeroMark } from '../chain/target-window'
import type { TargetWindow } from '../model'
import { isBus } from '../model'
import { windowOf } from '../uncertainty/window'
import { formatDecimal, formatShort } from '../units'
import { recorderChannel } from './plug-steps'
import type { Sheet, SheetStrip } from './sheet'
import type { Instruction, ToRead } from './step'
import { instruction } from './step'

/** How far a reading at another meter than the target’s may be from what is expected, dB (common practice, no source). */
const AROUND = 3

/** Per strip and stage, from the source to the recorder. */
export function stripSteps(sheet: Sheet): Instruction[] {
  return sheet.channels.flatMap((each) => {
    const { strip, stages } = each
    const source = stages[0]
    const channel = recorderChannel(each)
    const window = windowOf(sheet.session, strip, stages)
    const controls = stages.flatMap((stage, i) => stageSteps(sheet, each, window, stage, i))
    const own = (what: string, title: string, more: Partial<Instruction> = {}) =>
      instruction({ id: `${strip.id}.${what}`, group: 'strips', strip: strip.id, title, ...more })
    return [
      ...(isSoundSource(source) ? [placing(sheet, each)] : []),
      ...(isElectricSource(source) && source.gear.output === 'passive-pickup'
        ? [own(`${source.id}.volume`, `${source.gear.name}: volume as in the take`, { stage: source.id })]
        : []),
      ...(controls.length === 0
        ? []
        : [
            own('passage', `Loudest passage of ${strip.name}, repeated`, {
              detail: 'The loudest passage of the take, played as in the take, while the gains are set.',
              stage: source?.id ?? null,
              holds: sheet.setUpTo(each, 0),
            }),
          ]),
      ...controls,
      ...(channel === null
        ? []
        : [
            own('arm', `Recorder’s channel armed: ${channel}`, {
              detail: `The host’s track takes input ${channel}; its own gain is at 0.`,
              stage: stages.at(-1)?.id ?? null,
              holds: `${channel} ${sheet.setUpTo(each, stages.length - 1)}`,
            }),
          ]),
    ]
  })
}

function placing(sheet: Sheet, each: SheetStrip): Instruction {
  const source = each.stages[0] as Extract<ResolvedStage, { kind: 'sound-source' }>
  const angle = each.stages[1]?.settings.angle
  return instruction({
    id: `${each.strip.id}.${source.id}.distance`,
    group: 'strips',
    strip: each.strip.id,
    stage: source.id,
    title: `${formatShort(source.distance, 2)} m from ${source.gear.name}`,
    detail: `Measured with a tape measure to the capsule${angle ? `, ${formatShort(angle)}° off its axis` : ', on its axis'}.`,
    holds: sheet.setUpTo(each, 1),
  })
}

/** The gains of a stage, the last of them with what has to be read there. */
function stageSteps(
  sheet: Sheet,
  each: SheetStrip,
  window: TargetWindow,
  stage: ResolvedStage,
  index: number,
): Instruction[] {
  const { strip } = each
  const controls = gainControls(stage)
  const read = toRead(each, window, stage, index)
  const holds = sheet.setUpTo(each, index)
  const group = isBus(strip) ? 'busses' : 'strips'
  const steps = controls.map((control, i) => {
    const planned = sheet.plannedFor(strip.id, stage.id, control.setting)
    return instruction({
      id: `${strip.id}.${stage.id}.${control.setting}`,
      group,
      strip: strip.id,
      stage: stage.id,
      title: `${control.setting === 'fader' || isFader(stage) ? 'Fader' : 'Gain'}: ${formatShort(control.value, 1)} dB on ${stageName(stage)}`,
      detail: detailOf(control, planned),
      set: { setting: control.setting, value: control.value, range: control.range, planned },
      read: i === controls.length - 1 ? read : null,
      holds,
    })
  })
  const sections = sectionSteps(strip.id, group, stage, holds)
  if (steps.length > 0 || !read) return [...sections, ...steps]
  return [
    ...sections,
    instruction({
      id: `${strip.id}.${stage.id}.read`,
      group,
      strip: strip.id,
      stage: stage.id,
      title: `Read ${read.meter}`,
      detail: null,
      read,
      holds,
    }),
  ]
}

/** What a processor’s sections are set to, section by section. */
function sectionSteps(strip: string, group: Instruction['group'], stage: ResolvedStage, holds: string): Instruction[] {
  if (!isProcessor(stage)) return []
  const settings = settingWords(stage)
  return stage.gear.blocks.map((block, i) => {
    const own = settings.filter(({ setting }) => setting === `section-${i}` || setting.startsWith(`section-${i}-`))
    const name = own[0]?.name ?? block.type
    const values = own.slice(1).map(({ name: control, words }) => `${control.slice(name.length + 1)} ${words}`)
    return instruction({
      id: `${strip}.${stage.id}.section-${i}`,
      group,
      strip,
      stage: stage.id,
      title: block.on ? `${stageName(stage)}, ${name}: ${values.join(', ')}` : `${stageName(stage)}, ${name}: out`,
      detail:
        block.on && block.type === 'compressor' && block.takesOff !== undefined
          ? `It is to take ${formatShort(block.takesOff, 1)} dB off at the loudest passage.`
          : null,
      holds,
    })
  })
}

function detailOf({ value, range, knob, isFader }: GainControl, planned: number | null): string | null {
  const position = knob ? gainToPosition(knob, value) : null
  const told = [
    ...(position === null ? [] : [`Knob about ${positionInWords(position)}.`]),
    ...(position === null && !isFader && range.gainStep === 0 && range.gainMax > range.gainMin
      ? [
          `${formatDecimal((100 * (value - range.gainMin)) / (range.gainMax - range.gainMin), 0)} % of its range; its marks are not measured: trust the meter.`,
        ]
      : []),
    ...(planned === null ? [] : [`Planned: ${formatShort(planned, 1)} dB.`]),
  ]
  return told.length > 0 ? told.join(' ') : null
}

/** What must be read at a stage on the loudest passage; `null` where no meter stands. */
export function toRead(
  { stages, evaluated }: SheetStrip,
  window: TargetWindow,
  stage: ResolvedStage,
  index: number,
): ToRead | null {
  const point = evaluated.points.find((each) => each.stage === stage.id)
  if (!point) return null
  const place = readingPlace(stages, window)
  if (place?.index === index) {
    const shown = { 'peak': 'peak', 'surge-peak': 'peak', 'average': 'average' } as const
    // A window for the peak with the surge is read without one: it has not come yet.
    const surge = window.reads === 'surge-peak' ? point.surgePeak - point.peak : 0
    return {
      stage: stage.id,
      reads: place.meter === 'pfl' ? 'pfl' : shown[window.reads],
      low: window.low - surge,
      high: window.high - surge,
      unit: place.meter === 'pfl' || place.meter === 'desk' ? 'dB' : 'dBFS',
      meter: METERS[place.meter],
    }
  }
  return elsewhere(stages, stage, point)
}

const METERS = {
  converter: 'the recorder’s meter',
  desk: 'the desk’s meter',
  pfl: 'the desk’s meter at PFL',
  file: 'the recorder’s meter',
} as const

function elsewhere(stages: readonly ResolvedStage[], stage: ResolvedStage, point: Point): ToRead | null {
  const around = (level: number, reads: ToRead['reads'], unit: ToRead['unit'], meter: string): ToRead => ({
    stage: stage.id,
    reads,
    low: Math.round(level) - AROUND,
    high: Math.round(level) + AROUND,
    unit,
    meter,
  })
  if (isDeskChannel(stage)) return around(point.peak - zeroMark(stages) - behindPfl(stage), 'pfl', 'dB', METERS.pfl)
  if (isInterface(stage)) return around(point.peak, 'peak', 'dBFS', METERS.converter)
  if (isLoudspeaker(stage)) return around(point.average, 'spl', 'dB SPL', 'a sound level meter at the listener')
  return null
}

/** Both sides of a stereo pair set alike. */
export function pairSteps(sheet: Sheet): Instruction[] {
  return (sheet.session.pairs ?? []).map(({ left, right }) => {
    const [one, other] = [left, right].map((id) => sheet.strips.find(({ strip }) => strip.id === id))
    const gains = (each: SheetStrip | undefined) =>
      (each?.stages ?? []).flatMap((stage) =>
        gainControls(stage).map(({ value }) => `${formatShort(value, 1)} dB on ${stageName(stage)}`),
      )
    return instruction({
      id: `${left}.${right}.pair`,
      group: 'pairs',
      strip: left,
      title: `${one?.strip.name ?? left} and ${other?.strip.name ?? right} alike`,
      detail: `${gains(one).join(', ')}; ${gains(other).join(', ')}. One sound in the middle must read the same on both.`,
      holds: [one, other].map((each) => (each ? sheet.setUpTo(each, each.stages.length - 1) : '')).join(' '),
    })
  })
}

/** Sends into each bus, then its own faders. Loudspeakers are for the end. */
export function busSteps(sheet: Sheet): Instruction[] {
  return sheet.busses.flatMap((each) => {
    const { strip, stages } = each
    const window = windowOf(sheet.session, strip, stages)
    const sends = sheet.strips.flatMap(({ strip: feeder }) =>
      (feeder.feeds ?? [])
        .filter(({ to }) => to === strip.id)
        .map(
          ({ gain, tap }) => `${feeder.name} ${formatShort(gain, 1)} dB${tap === 'pre' ? ' (before its fader)' : ''}`,
        ),
    )
    const first = stages[0]
    return [
      ...(sends.length === 0 || !first
        ? []
        : [
            instruction({
              id: `${strip.id}.${first.id}.sends`,
              group: 'busses',
              strip: strip.id,
              stage: first.id,
              title: `Sends into ${strip.name}`,
              detail: `${sends.join(', ')}.`,
              holds: sheet.setUpTo(each, -1),
            }),
          ]),
      ...stages.flatMap((stage, i) => (isLoudspeaker(stage) ? [] : stageSteps(sheet, each, window, stage, i))),
    ]
  })
}

/** What a loudspeaker is set to and must give, when everything else stands. */
export function loudspeakerSteps(sheet: Sheet): Instruction[] {
  return sheet.busses.flatMap((each) => {
    const window = windowOf(sheet.session, each.strip, each.stages)
    return each.stages.flatMap((stage, i) =>
      !isLoudspeaker(stage)
        ? []
        : [
            instruction({
              id: `${each.strip.id}.${stage.id}.loudspeaker`,
              group: 'loudspeakers',
              strip: each.strip.id,
              stage: stage.id,
              title: `${stage.gear.name} on, ${each.strip.name} up`,
              detail: `Control at ${formatShort(stage.gain, 1)} dB; bring the bus up slowly to its mark and read at the listener.`,
              caution:
                'Switched on last and off first, with the level down. Microphones in the same room may feed back: bring it up slowly, hand on the fader. Levels for an audience are for local rules.',
              read: toRead(each, window, stage, i),
              holds: sheet.setUpTo(each, i),
            }),
          ],
    )
  })
}
