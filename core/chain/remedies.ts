import type { Gear, Session } from '../session'
import { analogueInput } from '../session'

/** Boxes that mend a chain: their figures are the usual ones (common practice, no source), to be overwritten. */
const ORIGIN = 'To be found: usual figures, no particular box'

/** A gear id that the session does not use. */
export function freeGearId(session: Session, wanted: string): string {
  const taken = (id: string) => session.gear.some((item) => item.id === id)
  if (!taken(wanted)) return wanted
  for (let n = 2; ; n++) if (!taken(`${wanted}-${n}`)) return `${wanted}-${n}`
}

/** The figures are plain numbers here and in range by construction; a test reads every one of them as a file would. */
const made = (session: Session, id: string, gear: object): Gear =>
  ({ id: freeGearId(session, id), origin: ORIGIN, ...gear }) as unknown as Gear

const xlr = { in: { connector: 'xlr', balance: 'balanced' }, out: { connector: 'xlr', balance: 'balanced' } }

/** A pad of at least some loss. */
export const padOf = (session: Session, loss: number): Gear =>
  made(session, `pad-${loss}`, {
    kind: 'pad',
    name: `Pad, ${loss} dB`,
    specs: { loss, inputImpedance: 10_000, outputImpedance: 150 },
  })

/** A fixed gain before a microphone input. */
export const boosterOf = (session: Session, gain: number): Gear =>
  made(session, `booster-${gain}`, {
    kind: 'booster',
    name: `Booster, ${gain} dB`,
    plugs: xlr,
    specs: {
      gain: Math.min(60, gain),
      ein: -128,
      einWeighting: 'A',
      inputImpedance: 20_000,
      outputImpedance: 150,
      maxOutput: 5,
    },
  })

/** A passive DI box. */
export const diBoxOf = (session: Session): Gear =>
  made(session, 'di-box', {
    kind: 'di-box',
    name: 'DI box, 12 : 1',
    phantom: 'harmless',
    plugs: { in: { connector: 'jack', balance: 'one-leg' }, out: xlr.out },
    specs: { ratio: 12, inputImpedance: 140_000, outputImpedance: 150, maxInput: 20 },
  })

/** A preamp for a microphone that would meet a line input. */
export const preampOf = (session: Session): Gear =>
  made(session, 'preamp', {
    kind: 'preamp',
    name: 'Preamp',
    phantom: true,
    plugs: xlr,
    specs: {
      gainMin: 10,
      gainMax: 60,
      gainStep: 0,
      maxInput: 10,
      maxOutput: 24,
      ein: -127,
      einWeighting: 'A',
      outputNoise: -95,
      inputImpedance: 2000,
      outputImpedance: 150,
      pad: 0,
      lowCutSlope: 12,
    },
  })

/** An input of the unit, of a type, that no strip of the session takes. */
export function freePort(session: Session, unitId: string, type: 'mic' | 'line' | 'instrument'): string | null {
  const unit = session.gear.find((item) => item.id === unitId)
  if (unit?.kind !== 'interface') return null
  const taken = new Set(
    session.strips.flatMap((strip) => strip.stages.filter((stage) => stage.gear === unitId).map((stage) => stage.port)),
  )
  return unit.inputs.find((input) => !taken.has(input.id) && analogueInput(unit, input.id)?.type === type)?.id ?? null
}
