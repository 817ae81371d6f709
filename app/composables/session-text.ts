import type { Session } from '#core/session'
import { writeSession } from '#core/session'
import { latePart } from '~/stores/late-part'

/** The text of a session’s file with its log; the session alone where the log cannot be had, which is told beside the notices. */
export async function sessionText(session: Session, key: string | null): Promise<string> {
  const text = await latePart(async () => {
    const [{ useLogStore }, { writeSessionFile }] = await Promise.all([
      import('~/stores/log'),
      import('#core/session/session-file'),
    ])
    return writeSessionFile(session, key === null ? null : await useLogStore().whole(key))
  })
  return text ?? writeSession(session)
}
