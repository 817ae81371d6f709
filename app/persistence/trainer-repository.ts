import { liveQuery } from 'dexie'
import type { Progress } from '#core/trainer/schedule'
import type { RemetraDatabase } from './database'

/** What the trainer keeps: how well each kind goes, and how long was practised on which day. */
export interface TrainerRecord {
  progress: Progress[]
  /** Seconds by day, counted as progress counts days. */
  seconds: { day: number; seconds: number }[]
}

export class TrainerRepository {
  constructor(private readonly database: RemetraDatabase) {}

  async read(): Promise<TrainerRecord> {
    const [progress, seconds] = await Promise.all([this.database.trained.toArray(), this.database.practice.toArray()])
    return { progress, seconds }
  }

  async put(progress: Progress): Promise<void> {
    await this.database.trained.put(progress)
  }

  async addTime(day: number, seconds: number): Promise<void> {
    await this.database.transaction('rw', this.database.practice, async () => {
      const known = await this.database.practice.get(day)
      await this.database.practice.put({ day, seconds: (known?.seconds ?? 0) + seconds })
    })
  }

  /** Takes another record in: of each kind the one that was seen oftener, of each day the longer practice. */
  async addBack({ progress, seconds }: TrainerRecord): Promise<void> {
    const { trained, practice } = this.database
    await this.database.transaction('rw', trained, practice, async () => {
      for (const each of progress) if (each.seen > ((await trained.get(each.kind))?.seen ?? 0)) await trained.put(each)
      for (const each of seconds)
        if (each.seconds > ((await practice.get(each.day))?.seconds ?? 0)) await practice.put(each)
    })
  }

  async clear(): Promise<void> {
    await Promise.all([this.database.trained.clear(), this.database.practice.clear()])
  }

  /** Calls back with everything kept, now and whenever this or another tab changes it. */
  watch(changed: (record: TrainerRecord) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.read()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }
}
