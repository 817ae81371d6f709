import 'fake-indexeddb/auto'
import { describe, expect, it } from 'vitest'
import { readBackup, writeBackup } from '#core/files/backup'
import { after } from '#core/trainer/schedule'
import { RemetraDatabase } from '~/persistence/database'
import { TrainerRepository } from '~/persistence/trainer-repository'

describe('what was practised', () => {
  const repository = new TrainerRepository(new RemetraDatabase('practice-test'))
  const once = after(undefined, '1 hiss', 8, true, 20_000)
  const twice = after(once, '1 hiss', 10, true, 20_001)

  it('goes into the backup and comes back from it', async () => {
    await repository.learn(twice.kind, () => twice)
    await repository.addTime(20_001, 90)
    const { progress, seconds } = await repository.read()
    const trainer = { progress, seconds }
    const reading = readBackup(writeBackup({ on: '2026-11-27T10:00:00Z', sessions: [], shelf: [], trainer }))
    expect(reading.ok && reading.backup.trainer).toEqual({ progress: [twice], seconds: [{ day: 20_001, seconds: 90 }] })
  })
  it('of each kind the one that was seen oftener counts, of each day the longer practice', async () => {
    const fresh = after(undefined, '2 hum', 0, false, 20_002)
    await repository.addBack({
      progress: [once, fresh],
      seconds: [
        { day: 20_001, seconds: 30 },
        { day: 20_002, seconds: 60 },
      ],
    })
    const { progress, seconds } = await repository.read()
    expect(progress).toHaveLength(2)
    expect(progress).toEqual(expect.arrayContaining([twice, fresh]))
    expect(seconds).toEqual([
      { day: 20_001, seconds: 90 },
      { day: 20_002, seconds: 60 },
    ])
  })
  it('a faulty one is named, and nothing is taken', () => {
    const text = writeBackup({
      on: '2026-11-27T10:00:00Z',
      sessions: [],
      shelf: [],
      trainer: { progress: [{ ...once, seen: -1 }], seconds: [] },
    })
    const reading = readBackup(text)
    expect(reading.ok ? [] : reading.faults.map(({ path }) => path)).toEqual(['trainer.progress[0].seen'])
  })
})
