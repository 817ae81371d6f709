import type { Connector } from '../gear'
import type { Draft, Fix } from './finding'
import { socketOf, isDigitalInput, isInterface, isPreamp } from '../gear'
import { db, formatDecimal } from '../units'
import { inPlug, outPlug, unbalancedGain } from '../chain/joint'
import { inputClass, isMicrophoneAmplifier } from '../chain/level-class'
import { diBoxOf, freePorts, padOf, preampOf } from './remedies'
import type { ResolvedStage } from '../gear/stage'
import { settableGain } from '../chain/settable-gain'
import type { LevelClass } from '../gear/chain-traits'
import { toPort } from './to-port'
import { tried } from './trial'
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

/** A joint as a check sees it: its two ends, what the one gives, and where it is. */
interface JointView {
  view: StripView
  from: ResolvedStage
  to: ResolvedStage
  gives: LevelClass | null
  i: number
}
const atJoints = (check: (joint: JointView) => readonly Draft[]): Check =>
  perStage((view, to, i) => {
    const from = view.stages[i - 1]
    return from ? check({ view, from, to, gives: view.classes[i - 1] ?? null, i }) : NOTHING
  })

export const connectors: Check = atJoints(({ from, to }) => {
  const [out, into] = [outPlug(from)?.connector, inPlug(to)?.connector]
  if (out === undefined || into === undefined || FITS[out].includes(into)) return NOTHING
  return [
    {
      code: 'connector',
      severity: 'note',
      stage: to.id,
      joint: true,
      message: `“${from.gear.name}” gives ${connectorWords[out]}, “${to.gear.name}” takes ${connectorWords[into]}.`,
      action:
        'Use the right cable or adapter; an adapter changes neither level class nor impedance, and a jack passes no phantom power.',
    },
  ]
})

export const unbalanced: Check = atJoints(({ from, to }) => {
  const loss = unbalancedGain(from, to)
  if (loss === 0) return NOTHING
  return [
    {
      code: 'unbalanced',
      severity: 'note',
      stage: to.id,
      joint: true,
      message: `“${to.gear.name}” is unbalanced and takes half of the balanced output of “${from.gear.name}”: ${formatDecimal(-loss, 1)} dB less, and no hum rejection.`,
      action: 'Use a balanced input and cable where there is one; keep the cable short.',
    },
  ]
})

export const levelClasses: Check = atJoints((joint) => {
  const takes = inputClass(joint.to)
  if (takes === null || joint.gives === null || takes === joint.gives) return NOTHING
  if (joint.gives === 'line') return takes === 'instrument' ? [lineIntoInstrument(joint)] : [lineIntoMic(joint)]
  if (joint.gives === 'mic') return takes === 'line' ? [micIntoLine(joint)] : NOTHING
  return takes === 'mic' ? [instrumentIntoMic(joint)] : NOTHING
})

const atInput = ({ to }: JointView) => ({ stage: to.id, joint: true, severity: 'caution' }) as const

function lineIntoInstrument(joint: JointView): Draft {
  const { view, from, to } = joint
  return {
    ...atInput(joint),
    code: 'line-into-instrument',
    message: `“${from.gear.name}” gives line level; the instrument input of “${to.gear.name}” is made for a tenth of that or less.`,
    action: 'Use a line input, or put a DI box between and go into a microphone input.',
    fixes: () => [...toPort(view, to, 'line', 'Use its line input {port}.'), ...throughDiBox(joint), ...padFix(joint)],
  }
}

function lineIntoMic(joint: JointView): Draft {
  const { view, from, to } = joint
  // Two preamps in a row are said as such.
  const twice = isMicrophoneAmplifier(from)
  return {
    ...atInput(joint),
    code: twice ? 'double-preamp' : 'line-into-mic',
    message: twice
      ? `“${from.gear.name}” has amplified already, and the microphone input of “${to.gear.name}” is a second preamp: its noise comes on top, and it is soon overdriven.`
      : `“${from.gear.name}” gives line level into the microphone input of “${to.gear.name}”: some 40 dB more than that is made for.`,
    action: twice
      ? 'One preamp is enough: go into a line input, past the second.'
      : 'Use a line input, a DI box or a pad.',
    fixes: () => [
      ...toPort(
        view,
        to,
        'line',
        twice ? 'One preamp is enough: use the line input {port}.' : 'Use its line input {port}.',
      ),
      ...padFix(joint),
    ],
  }
}

function micIntoLine(joint: JointView): Draft {
  const { view, from, to } = joint
  return {
    ...atInput(joint),
    code: 'mic-into-line',
    message: `“${from.gear.name}” gives microphone level into a line input, some 40 dB less than that is made for.`,
    action: 'Use a microphone input, or put a preamp between.',
    fixes: () => [...toPort(view, to, 'mic', 'Use its microphone input {port}.'), ...preampFix(joint)],
  }
}

function instrumentIntoMic(joint: JointView): Draft {
  const { view, from, to, i } = joint
  return {
    ...atInput(joint),
    severity: 'stop',
    code: 'instrument-into-mic',
    message: `“${from.gear.name}” is a passive pickup and goes straight into a microphone input, whose impedance is far too low for it.`,
    action: 'Use an instrument input of about 1 MΩ, or put a DI box between.',
    fixes: () => [
      ...toPort(view, to, 'instrument', 'Use its instrument input {port}.'),
      {
        action: 'Put a DI box between.',
        changes: [{ do: 'insert', strip: view.strip.id, index: i, gear: diBoxOf(view.session) }],
      },
    ],
  }
}

/** A pad that brings line level down to what the input is made for. */
const padFix = ({ view, from, to, i }: JointView): Fix[] => [
  {
    action: `Put a pad of ${LINE_PAD} dB before it.`,
    changes: [{ do: 'insert', strip: view.strip.id, index: i, gear: padOf(view.session, LINE_PAD, from, to) }],
  },
]
const LINE_PAD = 20

/** A DI box, and a free microphone input of the same unit. */
const throughDiBox = ({ view, to, i }: JointView): Fix[] =>
  freePorts(view.session, to.gear.id, 'mic')
    .slice(0, 1)
    .map((port) => ({
      action: `Put a DI box between and go into the microphone input ${port}.`,
      changes: [
        { do: 'port', strip: view.strip.id, stage: to.id, port },
        { do: 'insert', strip: view.strip.id, index: i, gear: diBoxOf(view.session) },
      ],
    }))

/** A preamp between, its gain set to what the target wants, with 48 V for what needs it. */
function preampFix({ view, from, i }: JointView): Fix[] {
  const gear = preampOf(view.session)
  if (!isPreamp(gear)) return []
  const needed = 'phantom' in from.gear && from.gear.phantom === 'needed'
  const insert = (gain: number) =>
    ({ do: 'insert', strip: view.strip.id, index: i, gear, settings: { gain: db(gain), phantom: needed } }) as const
  const error = tried(view, [insert(gear.specs.gainMin)])?.error ?? 0
  const { gain } = settableGain(gear.specs, db(gear.specs.gainMin - error))
  return [{ action: `Put a preamp between, at ${formatDecimal(gain, 1)} dB.`, changes: [insert(gain)] }]
}

/** One input of a unit, two strips. */
export const sharedInput = perStage((view, stage) => {
  if (!isInterface(stage) && !isDigitalInput(stage)) return NOTHING
  const [unit, port] = [stage.gear.id, stage.input.id]
  const socket = socketOf(stage.gear, port)
  const other = view.session.strips.find(
    (strip) =>
      strip !== view.strip &&
      strip.stages.some((each) => each.gear === unit && socketOf(stage.gear, each.port) === socket),
  )
  if (!other) return NOTHING
  return [
    {
      code: 'input-shared',
      severity: 'stop',
      stage: stage.id,
      joint: true,
      message: `The strip “${other.name}” takes this input too: one input takes one source.`,
      action: 'Choose another input for one of the two.',
      fixes: () =>
        isInterface(stage) ? toPort(view, stage, stage.input.type, 'Use input {port}, which is free.') : [],
    },
  ]
})
