import { useRouter } from '#imports'
import { newKey } from '~/persistence'
import { useLibraryStore } from '~/stores/library'
import { useLogStore } from '~/stores/log'
import { useSessionStore, copyName } from '~/stores/session'

/** Keeps a session of another device, with its log, as a session of this browser, and opens that. */
export function useKeepCopy() {
  const store = useSessionStore()
  const library = useLibraryStore()
  const router = useRouter()
  return async () => {
    const { committed, key } = store
    if (!committed || key === null) return
    const log = await useLogStore().whole(key)
    const copy = await library.take({
      session: { ...committed, id: newKey(), name: copyName(committed.name) },
      log: log.marks.length + log.takes.length > 0 ? log : null,
    })
    await router.push(`/path/${copy}`)
  }
}
