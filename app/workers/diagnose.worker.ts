import type { Diagnosis } from '#core/diagnosis/diagnose'
import { diagnoseIn } from '#core/diagnosis/diagnose'
import type { Prone } from '#core/diagnosis/prone'
import { proneTo } from '#core/diagnosis/prone'
import type { Complaint } from '#core/diagnosis/rank'
import { SessionView } from '#core/diagnosis/view'
import type { Session } from '#core/session'

export interface DiagnoseTask {
  id: number
  /** Left out where it is the one of the last task. */
  session?: Session
  /** `null` for all strips. */
  strip: string | null
  complaint: Complaint
}
export type DiagnoseMessage =
  { id: number; diagnosis: Diagnosis } | { id: number; prone: Prone[] } | { id: number; failed: string }

const post = (message: DiagnoseMessage) => postMessage(message)
let view: SessionView | null = null

self.onmessage = ({ data: { id, session, strip, complaint } }: MessageEvent<DiagnoseTask>) => {
  try {
    if (session) view = new SessionView(session)
    if (!view) return
    // Without a complaint there is nothing to rank: what the chain invites is said.
    if (complaint.symptoms.length === 0) post({ id, prone: proneTo(view, strip) })
    else post({ id, diagnosis: diagnoseIn(view, strip, complaint) })
  } catch (error) {
    post({ id, failed: error instanceof Error ? error.message : 'unknown reason' })
  }
}
