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

  async clear(): Promise<void> {
    await Promise.all([this.database.trained.clear(), this.database.practice.clear()])
  }

  /** Calls back with everything kept, now and whenever this or another tab changes it. */
  watch(changed: (record: TrainerRecord) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.read()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }
}
