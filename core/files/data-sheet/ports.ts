import type { FoundContext } from './contexts'
import { contextsIn } from './contexts'
import type { Figure } from './figures'
import { figuresIn } from './figures'
import type { Named } from './named'
import type { SheetTarget } from './targets'
import type { Term } from './terms'

/** The ports that a figure is of: by what stands before it, by the column, by the heading, by what such a figure usually is of. */
export function portsOf(
  { text, term, from, end, context, isColumn }: Named,
  figure: Figure,
  targets: readonly SheetTarget[],
): { ports: SheetTarget[]; isNamed: boolean } {
  if (targets.every((target) => target.context === null)) return { ports: [...targets], isNamed: true }
  const before = figuresIn(text)
    .filter((each) => each.end <= figure.start && each.end > end && !each.isTolerance)
    .at(-1)
  const told = contextsIn(text).filter((each) => each.start >= from && each.end <= figure.start)
  const near =
    inBracketsBehind(text, figure) ??
    told.findLast((each) => each.start >= (before?.end ?? from) && each.context.type) ??
    told.findLast(({ context: { type } }) => type)
  const side = term.side ?? near?.context.side ?? told.at(-1)?.context.side ?? context.side
  const named = isColumn
    ? (context.type ?? near?.context.type)
    : (near?.context.type ??
      (side === undefined || context.side === undefined || context.side === side ? context.type : undefined))
  const fits = (target: SheetTarget, type: string | undefined) =>
    (side === undefined || target.context?.side === side) && (type === undefined || target.context?.type === type)
  const ports = named === undefined ? [] : targets.filter((target) => fits(target, named))
  if (ports.length > 0) return { ports, isNamed: true }
  if (named !== undefined && side !== undefined) return { ports: [], isNamed: true }
  return { ports: usualPorts(term, side, targets), isNamed: term.name === 'dynamicRange' && side !== undefined }
}

/** Ports that brackets right behind a figure name, as in “+19 dBu (line)”. */
function inBracketsBehind(text: string, { end }: Figure): FoundContext | undefined {
  const [, words = ''] = /^[^()\d]{0,12}\(([^()]*)\)/.exec(text.slice(end)) ?? []
  return figuresIn(words).length > 0 ? undefined : contextsIn(words).find(({ context }) => context.type)
}

/** Where nothing says which ports a figure is of: gain and its noise belong to microphone inputs, a dynamic range to all. */
function usualPorts({ name }: Term, side: 'in' | 'out' | undefined, targets: readonly SheetTarget[]): SheetTarget[] {
  const on = (wanted: 'in' | 'out') => targets.filter(({ context }) => context?.side === wanted)
  if (name === 'dynamicRange') return on(side ?? 'in')
  if ((side ?? 'in') === 'in') return on('in').slice(0, 1)
  return on('out').filter(({ context }) => context?.type !== 'headphone')
}
