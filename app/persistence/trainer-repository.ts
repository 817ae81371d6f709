import { liveQuery } from 'dexie'
import type { Progress } from '#core/trainer/schedule'
import { practiceShape, progressShape } from '#core/files'
import type { Aside } from './aside'
import { ROW_VERSION, aside, isNewer } from './aside'
import type { RemetraDatabase } from './database'

/** What the trainer keeps: how well each kind goes, and how long was practised on which day. */
export interface TrainerRecord {
  progress: Progress[]
  /** Seconds by day, counted as progress counts days. */
  seconds: { day: number; seconds: number }[]
}

export class TrainerRepository {
  constructor(private readonly database: RemetraDatabase) {}

  /** What can be read, and what cannot. */
  async read(): Promise<TrainerRecord & { aside: Aside[] }> {
    const [trained, practice] = await Promise.all([this.database.trained.toArray(), this.database.practice.toArray()])
    const left: Aside[] = []
    const progress = trained.flatMap((row) => {
      const { version: _, ...rest } = row
      const reading = isNewer(row) ? null : progressShape.safeParse(rest)
      if (reading?.success) return [reading.data]
      left.push(aside(`Progress in “${String(row.kind).slice(0, 80)}”`, row))
      return []
    })
    const seconds = practice.flatMap((row) => {
      const reading = isNewer(row) ? null : practiceShape.safeParse(row)
      if (reading?.success) return [reading.data]
      left.push(aside(`Practice on day ${String(row.day).slice(0, 20)}`, row))
      return []
    })
    return { progress, seconds, aside: left }
  }

  /** Takes a result in beside what is stored, which another tab may have changed; a record of a newer version stays as it is. */
  async learn(kind: string, result: (known: Progress | undefined) => Progress): Promise<void> {
    const { trained } = this.database
    await this.database.transaction('rw', trained, async () => {
      const row = await trained.get(kind)
      if (isNewer(row)) return
      const { version: _, ...known } = row ?? {}
      await trained.put({ ...result(progressShape.safeParse(known).data), version: ROW_VERSION })
    })
  }

  async addTime(day: number, seconds: number): Promise<void> {
    await this.database.transaction('rw', this.database.practice, async () => {
      const known = await this.database.practice.get(day)
      if (isNewer(known)) return
      await this.database.practice.put({ day, seconds: (known?.seconds ?? 0) + seconds })
    })
  }

  /** Takes another record in: of each kind the one that was seen oftener, of each day the longer practice. */
  async addBack({ progress, seconds }: TrainerRecord): Promise<void> {
    const { trained, practice } = this.database
    await this.database.transaction('rw', trained, practice, async () => {
      for (const each of progress) {
        const known = await trained.get(each.kind)
        if (!isNewer(known) && each.seen > (known?.seen ?? 0)) await trained.put({ ...each, version: ROW_VERSION })
      }
      for (const each of seconds) {
        const known = await practice.get(each.day)
        if (!isNewer(known) && each.seconds > (known?.seconds ?? 0)) await practice.put(each)
      }
    })
  }

  /** Forgets what this version wrote. */
  async clear(): Promise<void> {
    const { trained, practice } = this.database
    await trained.filter((row) => !isNewer(row)).delete()
    await practice.filter((row) => !isNewer(row)).delete()
  }

  /** Calls back with everything kept, now and whenever this or another tab changes it. */
  watch(changed: (record: TrainerRecord & { aside: Aside[] }) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.read()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }
}
