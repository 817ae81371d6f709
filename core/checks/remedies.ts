import type { AnalogueInput, Plug, Gear } from '../gear'
import type { Session } from '../session'
import { analogueInput, socketOf, isInterface } from '../gear'
import { readGear } from '../files'
import { programmerError } from '../chain/programmer-error'
import { inPlug, outPlug } from '../chain/joint'
import type { ResolvedStage } from '../gear/stage'

/** Boxes that fix a chain: their figures are the usual ones (common practice, no source), to be overwritten. */
const ORIGIN = 'To be found: usual figures, no particular device'

/** A gear id that the session does not use. */
export function freeGearId(session: Session, wanted: string): string {
  const taken = (id: string) => session.gear.some((item) => item.id === id)
  if (!taken(wanted)) return wanted
  for (let n = 2; ; n++) if (!taken(`${wanted}-${n}`)) return `${wanted}-${n}`
}

function made(session: Session, id: string, gear: object): Gear {
  const reading = readGear({ id: freeGearId(session, id), origin: ORIGIN, ...gear })
  if (!reading.ok) throw programmerError('a device that fixes is what a file could hold')
  return reading.gear
}

const xlr = { connector: 'xlr', balance: 'balanced' } as const

/**
 * A pad of some loss between two stages. It is driven and taken as they are: a balanced output behind an unbalanced input
 * loses the same with the pad as without it.
 */
export function padOf(session: Session, loss: number, from: ResolvedStage, to: ResolvedStage): Gear {
  const driven = outPlug(from)
  const socket = inPlug(to)
  const side = (connector: Plug['connector']) => ({
    ...(connector && { connector: connector === 'combo' ? 'xlr' : connector }),
    ...(driven?.balance && { balance: driven.balance }),
  })
  return made(session, `pad-${loss}`, {
    kind: 'pad',
    name: `Pad, ${loss} dB`,
    plugs: { in: side(driven?.connector), out: side(socket?.connector) },
    specs: { loss, inputImpedance: 10_000, outputImpedance: 150 },
  })
}

/** A fixed gain behind a passive microphone. */
export const inlinePreampOf = (session: Session, gain: number): Gear =>
  made(session, `booster-${gain}`, {
    kind: 'booster',
    name: `Inline preamp, ${gain} dB`,
    plugs: { in: xlr, out: xlr },
    specs: { gain, ein: -128, inputImpedance: 20_000, outputImpedance: 150, maxOutput: 5 },
  })

/** A passive DI box. */
export const diBoxOf = (session: Session): Gear =>
  made(session, 'di-box', {
    kind: 'di-box',
    name: 'DI box, 12 : 1',
    phantom: 'harmless',
    plugs: { in: { connector: 'jack', balance: 'one-leg' }, out: { connector: 'xlr', balance: 'floating' } },
    specs: { ratio: 12, inputImpedance: 140_000, outputImpedance: 150, maxInput: 20 },
  })

/** A preamp for a microphone that would meet a line input. */
export const preampOf = (session: Session): Gear =>
  made(session, 'preamp', {
    kind: 'preamp',
    name: 'Preamp',
    phantom: true,
    plugs: { in: xlr, out: xlr },
    specs: {
      gainMin: 10,
      gainMax: 60,
      maxInput: 10,
      maxOutput: 24,
      ein: -127,
      outputNoise: -95,
      inputImpedance: 2000,
      outputImpedance: 150,
    },
  })

/** Inputs of the unit, of a type, that no strip of the session takes. */
export function freePorts(session: Session, unitId: string, type: AnalogueInput['type'], except?: string): string[] {
  const unit = session.gear.find((item) => item.id === unitId)
  if (!isInterface(unit)) return []
  const taken = session.strips.flatMap((strip) =>
    strip.stages.filter((stage) => stage.gear === unitId && stage.id !== except),
  )
  const ports = new Set([...taken.map(({ port }) => port), ...ownPort(session, except)])
  const sockets = new Set(taken.map(({ port }) => socketOf(unit, port)))
  return unit.inputs
    .filter((input) => !ports.has(input.id) && !sockets.has(socketOf(unit, input.id)))
    .filter((input) => analogueInput(unit, input.id)?.type === type)
    .map((input) => input.id)
}

/** A stage may go over to another way into its own socket, not to the input at which it is. */
const ownPort = (session: Session, stage: string | undefined) =>
  session.strips.flatMap((strip) => strip.stages.filter(({ id }) => id === stage).map(({ port }) => port))
