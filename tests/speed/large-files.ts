import { demoSession } from '#demo/index'
import type { Change } from '#core/edits'
import type { Mark, Take } from '#core/session'
import { applyChanges } from '#core/edits'
import { writeSession } from '#core/files'
import { writeSessionFile } from '#core/files/session-file'
import { storedMark } from '#core/files/stored-mark'
import { intoBusses } from './subjects'

/** 64 strips of 8 stages into 8 busses, as a file. */
export const largeSession = (): string => writeSession({ ...intoBusses, name: 'Large desk' })

/** Its small twin: one strip and one bus of it, with as many stages on the page. */
export function smallSession(): string {
  const strips = intoBusses.strips.filter(({ id }, i) => i === 0 || id === 'bus-0')
  const used = new Set(strips.flatMap(({ stages }) => stages.map(({ gear }) => gear)))
  return writeSession({
    ...intoBusses,
    name: 'Large desk',
    strips,
    gear: intoBusses.gear.filter(({ id }) => used.has(id)),
  })
}

/** The demo with 200 marks and 1,000 takes, as a file. */
export const longLog = (): string => logged(200, 1000)

/** Its small twin. */
export const shortLog = (): string => logged(2, 1)

function logged(markCount: number, takeCount: number): string {
  const demo = demoSession()
  const gain = (to: number) => ({ strip: 'narrator', stage: 'n3', setting: 'gain', to }) as unknown as Change
  const at = '2026-11-20T19:00:00+01:00'
  const first: Mark = { id: 'm0', name: 'Mark 0', at, session: demo }
  const marks = Array.from({ length: markCount }, (_, i) =>
    i === 0
      ? first
      : storedMark({ id: `m${i}`, name: `Mark ${i}`, at, session: applyChanges(demo, [gain(20 + (i % 30))]) }, first),
  )
  const takes = Array.from({ length: takeCount }, (_, i): Take => ({
    id: `t${i}`,
    number: i + 1,
    name: `Piece ${i}`,
    strips: ['narrator'],
    at,
    seconds: 100 + i,
    mark: `m${i % markCount}`,
  }))
  return writeSessionFile({ ...demo, name: 'Long log' }, { marks, takes })
}
