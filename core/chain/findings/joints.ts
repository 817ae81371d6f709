import type { Connector, Finding } from '../../session'
import { formatDecimal } from '../../units'
import { inPlug, outPlug, unbalancedGain } from '../joint'
import type { LevelClass } from '../level-class'
import { inputClass, isPreamp } from '../level-class'
import { diBoxOf, freePort, padOf, preampOf } from '../remedies'
import type { ResolvedStage } from '../resolve'
import type { Check, StripView } from './view'
import { NOTHING, perStage } from './view'

/** Sockets that a plug goes into. */
const FITS: Record<Connector, readonly Connector[]> = {
  xlr: ['xlr', 'combo'],
  jack: ['jack', 'combo'],
  combo: ['xlr', 'jack', 'combo'],
  phono: ['phono'],
  usb: ['usb'],
  optical: ['optical'],
}
export const connectorWords: Record<Connector, string> = {
  xlr: 'XLR',
  jack: 'jack',
  combo: 'XLR/jack',
  phono: 'phono',
  usb: 'USB',
  optical: 'optical',
}

/** Whether a plug of the one goes into a socket of the other; `null` where the file does not say. */
export function fits(from: ResolvedStage, to: ResolvedStage): boolean | null {
  const [out, into] = [outPlug(from)?.connector, inPlug(to)?.connector]
  return out === undefined || into === undefined ? null : FITS[out].includes(into)
}

type JointCheck = (
  view: StripView,
  from: ResolvedStage,
  to: ResolvedStage,
  gives: LevelClass | null,
  i: number,
) => readonly Finding[]
const atJoints = (check: JointCheck): Check =>
  perStage((view, to, i) =>
    i === 0 ? NOTHING : check(view, view.stages[i - 1] as ResolvedStage, to, view.classes[i - 1] ?? null, i),
  )

export const connectors: Check = atJoints((_, from, to) => {
  if (fits(from, to) !== false) return NOTHING
  const [out, into] = [outPlug(from)?.connector as Connector, inPlug(to)?.connector as Connector]
  return [
    {
      code: 'connector',
      severity: 'note',
      stage: to.id,
      joint: true,
      message: `"${from.gear.name}" gives ${connectorWords[out]}, "${to.gear.name}" takes ${connectorWords[into]}.`,
      action:
        'Have the right lead or adapter at hand; an adapter changes neither level class nor impedance, and a jack passes no phantom power.',
    },
  ]
})

export const unbalanced: Check = atJoints((_, from, to) => {
  const loss = unbalancedGain(from, to)
  if (loss === 0) return NOTHING
  return [
    {
      code: 'unbalanced',
      severity: 'note',
      stage: to.id,
      joint: true,
      message: `"${to.gear.name}" takes one leg of the balanced output of "${from.gear.name}": ${formatDecimal(-loss, 1)} dB less, and no hum rejection.`,
      action: 'Use a balanced input and lead where there is one; keep the lead short.',
    },
  ]
})

/** A free input of another type at the same unit, as a change of the port. */
function toPort(view: StripView, stage: ResolvedStage, type: 'mic' | 'line'): Pick<Finding, 'changes'> | null {
  if (stage.kind !== 'interface') return null
  const port = freePort(view.session, stage.gear.id, type)
  return port === null ? null : { changes: [{ do: 'port', strip: view.strip.id, stage: stage.id, port }] }
}

export const levelClasses: Check = atJoints((view, from, to, gives, i) => {
  const takes = inputClass(to)
  if (takes === null || gives === null || takes === gives) return NOTHING
  const found = { stage: to.id, joint: true as const }
  const strip = view.strip.id
  if (gives === 'line' && takes === 'instrument') {
    const line = toPort(view, to, 'line')
    const mic = to.kind === 'interface' ? freePort(view.session, to.gear.id, 'mic') : null
    return [
      {
        ...found,
        code: 'line-into-instrument',
        severity: 'caution',
        message: `"${from.gear.name}" gives line level; the instrument input of "${to.gear.name}" is made for a tenth of that and less.`,
        action: line
          ? 'Use a line input.'
          : mic
            ? 'Put a DI box between and go into a microphone input, or put a pad before this one.'
            : 'Put a pad before it, or use a line input.',
        changes:
          line?.changes ??
          (mic === null
            ? [{ do: 'insert', strip, index: i, gear: padOf(view.session, 20) }]
            : [
                { do: 'port', strip, stage: to.id, port: mic },
                { do: 'insert', strip, index: i, gear: diBoxOf(view.session) },
              ]),
      },
    ]
  }
  if (gives === 'line' && takes === 'mic') {
    // Two preamps in a row are said as such.
    const twice = isPreamp(from)
    return [
      {
        ...found,
        code: twice ? 'double-preamp' : 'line-into-mic',
        severity: 'caution',
        message: twice
          ? `"${from.gear.name}" has amplified already, and the microphone input of "${to.gear.name}" is a second preamp: its noise comes on top, and it is soon overdriven.`
          : `"${from.gear.name}" gives line level into the microphone input of "${to.gear.name}": some 40 dB more than that is made for.`,
        action: twice
          ? 'One preamp is enough: go into a line input, past the second.'
          : 'Use a line input, a DI box or a pad.',
        ...(toPort(view, to, 'line') ?? {
          changes: [{ do: 'insert', strip, index: i, gear: padOf(view.session, 20) }],
        }),
      },
    ]
  }
  if (gives === 'mic' && takes === 'line') {
    const mic = toPort(view, to, 'mic')
    return [
      {
        ...found,
        code: 'mic-into-line',
        severity: 'caution',
        message: `"${from.gear.name}" gives microphone level into a line input, some 40 dB less than that is made for.`,
        action: mic ? 'Use a microphone input.' : 'Put a preamp between.',
        changes: mic?.changes ?? [
          { do: 'insert', strip, index: i, gear: preampOf(view.session), settings: { gain: 40 as never } },
        ],
      },
    ]
  }
  if (gives === 'instrument' && takes === 'mic') {
    return [
      {
        ...found,
        code: 'instrument-into-mic',
        severity: 'caution',
        message: `"${from.gear.name}" is a passive pickup and goes straight into a microphone input, whose impedance is far too low for it.`,
        action: 'Put a DI box between, or use an instrument input.',
        changes: [{ do: 'insert', strip, index: i, gear: diBoxOf(view.session) }],
      },
    ]
  }
  return []
})

/** One input of a unit, two strips. */
export const sharedInput = perStage((view, stage) => {
  if (stage.kind !== 'interface' && stage.kind !== 'digital-input') return NOTHING
  const [unit, port] = [stage.gear.id, stage.input.id]
  const other = view.session.strips.find(
    (strip) => strip !== view.strip && strip.stages.some((each) => each.gear === unit && each.port === port),
  )
  if (!other) return NOTHING
  return [
    {
      code: 'input-shared',
      severity: 'stop',
      stage: stage.id,
      joint: true,
      message: `The strip "${other.name}" takes this input too: one input takes one source.`,
      action: 'Choose another input for one of the two.',
    },
  ]
})
