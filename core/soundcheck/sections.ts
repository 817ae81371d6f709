import { isInterface, isDigitalInput } from '../gear'
import type { Session } from '../session'
import { stagesOf } from '../resolved/resolve-session'
import { portOf } from '../chain/setting-words'
import { recorderChannel } from './plug-steps'
import type { Step } from './step'
import { groupTitles } from './step'

/** Steps that stand together on the sheet: a part of the soundcheck, or one strip of it. */
export interface Section {
  key: string
  title: string
  /** Its socket and the recorder’s channel, of a strip. */
  note: string | null
  steps: Step[]
}

/** The run sheet in sections, in working order; the strips and the busses one by one. */
export function sectionsOf(session: Session, steps: readonly Step[]): Section[] {
  const found: Section[] = []
  for (const step of steps) {
    const own = step.group === 'strips' || step.group === 'busses' ? step.strip : null
    const key = own ? `${step.group} ${own}` : step.group
    const last = found.at(-1)
    if (last?.key === key) {
      last.steps.push(step)
      continue
    }
    const strip = session.strips.find(({ id }) => id === own)
    const stages = strip ? stagesOf(session, strip) : []
    const channel = step.group === 'strips' ? recorderChannel({ stages }) : null
    const input = stages.findLast((each) => isInterface(each) || isDigitalInput(each))
    found.push({
      key,
      title: strip?.name ?? groupTitles[step.group],
      note: channel === null || !input ? null : `${portOf(input) ?? ''}, recorder’s ${channel}`,
      steps: [step],
    })
  }
  return found
}
