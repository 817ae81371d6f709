import { isDeskChannel, isDiBox, isElectricSource, isMicrophone, isSoundSource } from '../../gear'
import { seeded } from '../../numeric/random'
import type { Session } from '../../session'
import { isBus } from '../../model'
import { readSession } from '../../files'
import type { CauseId } from '../../diagnosis/causes'
import { causeOf } from '../../diagnosis/causes'
import type { CheckId } from '../../diagnosis/checks'
import { checkOf } from '../../diagnosis/checks'
import { observed } from '../../diagnosis/observe'
import type { SymptomId } from '../../diagnosis/symptom'
import { SessionView } from '../../diagnosis/view'
import type { DiagnosisView } from '../../diagnosis/view'
import { plants } from './plants'
import type { TemplateId } from './templates'
import { templateOf } from './templates'

/** A chain with one fault in it, which the session shows, or which only checks show. */
export interface Planted {
  seed: number
  template: TemplateId
  cause: CauseId
  session: Session
  strip: string
  /** Whether no setting of the session tells of it. */
  hidden: boolean
  symptom: SymptomId
}

/** Faults that make sense only where there is a certain thing. */
const HIDDEN_WHERE: Partial<Record<CauseId, (view: DiagnosisView) => boolean>> = {
  'desk-return': (view) => view.stages.some((each) => isDeskChannel(each)),
  'microphone-in-room': (view) => view.busses.length > 0,
  'pattern-turned': (view) => view.busses.length > 0,
  'di-earth': (view) => view.stages.some((each) => isDiBox(each)),
  'performer-moves': (view) => isSoundSource(view.stages[0]),
  'stream-monitor': (view) => view.stages.some((each) => isMicrophone(each)),
  'two-microphones': (view) => twins(view),
  'polarity-flipped': (view) => twins(view),
  'consumer-level': (view) => isElectricSource(view.stages[0]) && view.stages[0].gear.output === 'line',
  'hum-field': (view) => isElectricSource(view.stages[0]),
  'clocks-unlocked': (view) => view.all.unit !== null,
}
const twins = (view: DiagnosisView) =>
  view.all.strips.some(
    ({ strip, stages }) => strip.id !== view.strip.id && stages[0]?.gear.id === view.stages[0]?.gear.id,
  )

/** A fault of this kind in a chain of this template; `null` where it makes no sense there. The same seed makes the same. */
export function plant(cause: CauseId, template: TemplateId, seed: number): Planted | null {
  const random = seeded(seed)
  const clean = templateOf(template).make(random)
  const channels = new SessionView(clean).strips.filter(({ strip }) => !isBus(strip))
  const view = channels[Math.floor(random() * channels.length)] as DiagnosisView
  const { symptoms } = causeOf(cause)
  const symptom = drawn(symptoms, random)
  const planting = plants[cause]
  if (!planting) {
    if (!(HIDDEN_WHERE[cause]?.(view) ?? true)) return null
    return { seed, template, cause, session: clean, strip: view.strip.id, hidden: true, symptom }
  }
  const session = planting(view, random)
  // What is read back is what a file would hold.
  const reading = session && readSession(JSON.parse(JSON.stringify(session)))
  if (!reading) return null
  if (!reading.ok) throw new Error(`${cause} in ${template}: ${reading.faults[0]?.path} ${reading.faults[0]?.message}`)
  const strip = view.strip.id
  const after = new SessionView(reading.session).strips.find((each) => each.strip.id === strip)
  if (!after || causeOf(cause).present?.(after) !== true) return null
  return { seed, template, cause, session: reading.session, strip, hidden: false, symptom }
}

/** A symptom as often as the cause shows it. */
function drawn(symptoms: Partial<Record<SymptomId, number>>, random: () => number): SymptomId {
  const all = Object.entries(symptoms) as [SymptomId, number][]
  let left = random() * all.reduce((sum, [, weight]) => sum + weight, 0)
  return (all.find(([, weight]) => (left -= weight) <= 0) ?? (all[0] as [SymptomId, number]))[0]
}

/** What a check truly shows on a planted chain: worked out where the session tells, else what the hidden fault shows. */
export function outcomeOn(
  { cause, hidden }: Pick<Planted, 'cause' | 'hidden'>,
  view: DiagnosisView,
  check: CheckId,
): string {
  const own = causeOf(cause).shows[check]
  if (hidden && own) return likeliest(own)
  // What is to be cured is not what the session shows, where the fault is hidden: a look at settings tells the truth, a try does not help.
  const seen = hidden && isTry(check) ? null : observed(view, check)
  return seen ?? (own && !hidden ? likeliest(own) : likeliest(checkOf(check).usual))
}

const isTry = (check: CheckId): boolean => check === 'follow-hiss' || 'goes' in checkOf(check).outcomes

const likeliest = (outcomes: Readonly<Record<string, number>>): string =>
  Object.entries(outcomes).reduce((most, each) => (each[1] > most[1] ? each : most))[0]
