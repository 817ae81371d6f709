import type { Log } from '#core/session'
import { latePart } from '~/stores/late-part'

/** The log that goes into a session’s file; `null` where there is none, or where it cannot be read, which is told beside the notices. */
export async function logForFile(key: string | null): Promise<Log | null> {
  if (key === null) return null
  return latePart(async () => (await import('~/stores/log')).useLogStore().whole(key))
}
