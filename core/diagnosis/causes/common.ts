import { isElectricSource, isMicrophone } from '../../gear'
import type { Contribution } from '../../chain/cascade'
import { power } from '../../numeric/power'
import type { FindingCode } from '../../checks/finding-titles'
import type { SettingChange } from '../../edits'
import type { SettingName, SettingValue } from '../../model'
import { formatDecimal } from '../../units'
import type { Evidence, FixDraft } from '../cause'
import type { DiagnosisView } from '../view'

export const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`
export const percent = (share: number) => `${formatDecimal(100 * share, share < 0.1 ? 1 : 0)} %`

/** The part of the noise at the strip’s end that some of its noises make, 0…1. */
export const shareOf = ({ chain }: DiagnosisView, which: (noise: Contribution) => boolean): number =>
  chain.noise.reduce((sum, noise) => sum + (which(noise) ? noise.share : 0), 0)

/** All noise but the room’s, dB under the average at the end. */
export function electronicsSnr(view: DiagnosisView): number | null {
  const end = view.points.at(-1)
  const total = view.chain.noise.reduce((sum, { name, level }) => sum + (name === 'room' ? 0 : power(level)), 0)
  return end && total > 0 ? end.average - 10 * Math.log10(total) : null
}

/** The finding of one of these codes. */
export const found = ({ findings }: DiagnosisView, codes: readonly FindingCode[]) =>
  findings.find(({ code }) => codes.includes(code))
export const has = (view: DiagnosisView, ...codes: FindingCode[]): boolean => found(view, codes) !== undefined

/** What a finding says, as evidence. */
export const evidenceOf = (view: DiagnosisView, codes: readonly FindingCode[], weight: number): Evidence[] =>
  view.findings.filter(({ code }) => codes.includes(code)).map(({ message }) => ({ says: message, weight }))

/** The fixes that findings of these codes have, each tried already. */
export const fixesOf = (view: DiagnosisView, codes: readonly FindingCode[]): FixDraft[] =>
  view.findings.flatMap(({ code, action, changes }) =>
    codes.includes(code) && changes ? [{ says: action, changes }] : [],
  )

/** One setting of the strip turned. The value is in the setting’s own unit; the reader of the file checks it as any other. */
export const turn = (
  { strip }: DiagnosisView,
  stage: string,
  setting: SettingName,
  to: number | boolean,
): SettingChange => ({ strip: strip.id, stage, setting, to: to as SettingValue })

/** Microphones, and sources on a wire. */
export const microphoneOf = ({ stages }: DiagnosisView) => stages.find((stage) => isMicrophone(stage))
export const pickupOf = ({ stages }: DiagnosisView) => stages.find((stage) => isElectricSource(stage))
