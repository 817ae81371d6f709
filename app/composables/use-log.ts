import { formatISO } from 'date-fns'
import { ref } from 'vue'
import type { Log, Mark, MarkHead, Session, Take } from '#core/session'
import { headOf } from '#core/files/stored-mark'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'

/** What is typed for a new mark. */
export interface MarkWords {
  name: string
  by: string
  firmware: string
  note: string
}

/** Who made the last mark and with which firmware: proposed for the next one. */
const last = ref({ by: '', firmware: '' })

/** Marks and takes of the open session. */
export function useLog() {
  const store = useSessionStore()
  const logStore = useLogStore()
  const told = ref<string | null>(null)
  const { newId } = logStore
  const plain = (session: Session): Session => JSON.parse(JSON.stringify(session)) as Session

  function markOf({ name, by, firmware, note }: MarkWords): Mark | null {
    if (!store.committed) return null
    last.value = { by, firmware }
    return {
      id: newId('mark'),
      name,
      at: formatISO(new Date()),
      session: plain(store.committed),
      ...(by && { by }),
      ...(firmware && { firmware }),
      ...(note && { note }),
    }
  }

  async function makeMark(words: MarkWords): Promise<Mark | null> {
    const mark = markOf(words)
    if (!mark) return null
    told.value = await logStore.addMark(mark)
    return told.value === null ? mark : null
  }

  /** The mark of now: the last one where nothing was set otherwise since, or a new one made with the take. */
  async function markOfNow(take: string): Promise<string | undefined> {
    const { lastMark } = logStore
    if (lastMark && store.committed && logStore.standsAsIn(store.committed, lastMark.id)) return lastMark.id
    return (await makeMark({ name: take, ...last.value, note: '' }))?.id
  }

  async function addTake(part: Omit<Take, 'id' | 'number' | 'mark' | 'struck'>): Promise<void> {
    const number = logStore.nextNumber
    const mark = await markOfNow(`With take ${number}`)
    if (told.value !== null) return
    told.value = await logStore.addTake({ ...part, id: newId('take'), number, ...(mark && { mark }) })
  }
  const changeTake = async (take: Take, part: Partial<Take>) => {
    told.value = await logStore.addTake({ ...take, ...part })
  }
  const changeMark = async (mark: MarkHead, part: Partial<MarkHead>) => {
    told.value = await logStore.addMark({ ...headOf(mark), ...part })
  }

  return { told, last, makeMark, addTake, changeTake, changeMark }
}

/** Marks that are meant, the newest first. */
export const marksOf = ({ marks }: Log): MarkHead[] => marks.filter(({ struck }) => !struck).reverse()
