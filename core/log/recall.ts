import type { Evaluation } from '../evaluation/evaluate-session'
import { stagesOf } from '../resolved/resolve-session'
import { stageName } from '../chain/setting-words'
import type { Session } from '../session'
import { instructions } from '../soundcheck/run-sheet'
import type { Group, Instruction } from '../soundcheck/step'

/** One thing to do to get back to a mark. */
export interface RecallStep {
  id: string
  group: Group
  strip: string | null
  stage: string | null
  /** What to do. */
  title: string
  /** How it stands now; `null` where it is not there. */
  now: string | null
  detail: string | null
  caution: string | null
}

/** What a step asks for, whatever leads to it. */
const asked = ({ title, detail }: Instruction): string => `${title} ${detail ?? ''}`

/**
 * The run sheet back to a mark: only what differs from now, in working order. What is here now and was not then comes first: it is
 * unplugged.
 */
export function recallSteps(
  now: { session: Session; evaluation: Evaluation },
  mark: { session: Session; evaluation: Evaluation },
): RecallStep[] {
  const standing = new Map(instructions(now.session, now.evaluation).map((each) => [each.id, each]))
  const back = instructions(mark.session, mark.evaluation).filter((each) => {
    const own = standing.get(each.id)
    return !own || asked(own) !== asked(each)
  })
  return [
    ...outOfTheWay(now.session, mark.session),
    ...back.map((each): RecallStep => {
      const own = standing.get(each.id)
      const { id, group, strip, stage, title, detail, caution } = each
      return { id, group, strip, stage, title, now: own ? differently(own, each) : null, detail, caution }
    }),
  ]
}

/** How it stands now, as far as it differs. */
const differently = (own: Instruction, each: Instruction): string =>
  own.title === each.title ? (own.detail ?? '') : own.title

/** Strips and boxes that the mark did not have. */
function outOfTheWay(now: Session, mark: Session): RecallStep[] {
  return now.strips.flatMap((strip): RecallStep[] => {
    const then = mark.strips.find(({ id }) => id === strip.id)
    const gone = (id: string, title: string, stage: string | null): RecallStep => ({
      id,
      group: 'plugs',
      strip: strip.id,
      stage,
      title,
      now: 'plugged',
      detail: null,
      caution: 'Outputs muted and 48 V off before anything is unplugged.',
    })
    if (!then) return [gone(`${strip.id}.out`, `${strip.name}: not in this mark, unplug it`, null)]
    return stagesOf(now, strip)
      .filter(({ id }) => !then.stages.some((each) => each.id === id))
      .map((stage) => gone(`${strip.id}.${stage.id}.out`, `${stageName(stage)} out of ${strip.name}`, stage.id))
  })
}
