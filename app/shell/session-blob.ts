import type { Session } from '#core/session'
import { writeSession } from '#core/files'
import { latePart } from '~/stores/late-part'

const TYPE = { type: 'application/json' }

/** A session’s file with its log, in parts; the session alone where the log’s writer cannot be loaded, which is told beside the notices. */
export async function sessionBlob(session: Session, key: string | null): Promise<Blob> {
  const parts = await latePart(async () => {
    const [{ useLogStore }, { sessionFileParts }] = await Promise.all([
      import('~/stores/log'),
      import('#core/files/session-file'),
    ])
    return [...sessionFileParts(session, key === null ? null : await useLogStore().whole(key))]
  })
  return new Blob(parts ?? [writeSession(session)], TYPE)
}
