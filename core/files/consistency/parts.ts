import type { Gear } from '../../gear'
import { gear } from '../../gear'
import type { Monitor } from '../../model/monitor'
import { monitor } from '../../model/monitor'
import type { Stage } from '../../model/strip'
import { stage } from '../../model/strip'

/** How the parts of a file are taken that are looked at together; `null` for what is faulty in itself. */
export interface Parts {
  gear: (raw: unknown) => Gear | null
  stage: (raw: unknown) => Stage | null
  monitor: (raw: unknown) => Monitor | null
}

/** Of a file with faults: each part by itself, so that what is well-formed is still looked at. */
export const eachByItself: Parts = {
  gear: (raw) => gear.safeParse(raw).data ?? null,
  stage: (raw) => stage.safeParse(raw).data ?? null,
  monitor: (raw) => monitor.safeParse(raw ?? {}).data ?? null,
}

/** Of a session that a schema has read as a whole. */
export const asRead: Parts = {
  gear: (raw) => raw as Gear,
  stage: (raw) => raw as Stage,
  monitor: (raw) => raw as Monitor,
}
