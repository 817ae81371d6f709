import { useEventListener } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Session } from '#core/session'
import { readSessionText } from '#core/files'
import type { FileLink } from '~/stores/file-links'
import { useFileLinks } from '~/stores/file-links'
import { useSessionStore } from '~/stores/session'
import { sessionBlob } from './session-blob'

/** The file follows when the hand rests that long, ms. */
const REST = 1500

type State = 'none' | 'kept' | 'ask' | 'changed-outside' | 'failed'

/**
 * The open session kept in a file on disk too, where the browser can: written after each change, and looked at for changes from
 * outside when one comes back to the page.
 */
export function useFileLink() {
  const store = useSessionStore()
  const links = useFileLinks()
  const link = shallowRef<FileLink | null>(null)
  const state = ref<State>('none')
  const trouble = ref<string | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  async function attempt(action: () => Promise<void>) {
    try {
      await action()
      trouble.value = null
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return
      state.value = link.value ? 'failed' : 'none'
      trouble.value = error instanceof Error ? error.message : 'The file refused.'
    }
  }

  const isAllowed = async (handle: FileSystemFileHandle, ask: boolean) => {
    const asked = handle as FileSystemFileHandle & {
      queryPermission?: (mode: object) => Promise<string>
      requestPermission?: (mode: object) => Promise<string>
    }
    const mode = { mode: 'readwrite' }
    const now = (await asked.queryPermission?.(mode)) ?? 'granted'
    return now === 'granted' || (ask && (await asked.requestPermission?.(mode)) === 'granted')
  }

  /** Chooses the file and writes it for the first time. */
  const choose = () =>
    attempt(async () => {
      const session = store.committed
      const key = store.key
      if (!session || !key) return
      const picker = window as unknown as { showSaveFilePicker: (options: object) => Promise<FileSystemFileHandle> }
      const handle = await picker.showSaveFilePicker({
        suggestedName: `${session.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.session.json`,
        types: [{ description: 'Session file', accept: { 'application/json': ['.json'] } }],
      })
      await write({ key, handle, name: handle.name, lastModified: 0 }, session)
    })

  async function write(to: FileLink, session: Session) {
    const stream = await to.handle.createWritable()
    await stream.write(await sessionBlob(session, to.key))
    await stream.close()
    const { lastModified } = await to.handle.getFile()
    const written = { ...to, lastModified }
    await links.set(written)
    if (store.key !== to.key) return
    link.value = written
    state.value = 'kept'
  }

  /** Writes what is open, unless the file was changed from outside meanwhile. */
  const follow = () =>
    attempt(async () => {
      const [to, session] = [link.value, store.committed]
      if (!to || !session || to.key !== store.key) return
      if (!(await isAllowed(to.handle, false))) state.value = 'ask'
      else if (await isChanged(to)) state.value = 'changed-outside'
      else await write(to, session)
    })
  const isChanged = async ({ handle, lastModified }: FileLink) => (await handle.getFile()).lastModified !== lastModified

  /** Coming back to the page: the file may be another one by now. */
  const look = () =>
    attempt(async () => {
      const to = link.value
      if (!to || state.value !== 'kept') return
      if (await isChanged(to)) state.value = 'changed-outside'
    })

  const allow = () =>
    attempt(async () => {
      if (link.value && (await isAllowed(link.value.handle, true))) await follow()
    })
  /** The file's state becomes the session's, as one step that can be undone. */
  const takeFile = () =>
    attempt(async () => {
      const to = link.value
      if (!to) return
      const file = await to.handle.getFile()
      const reading = readSessionText(await file.text())
      if (!reading.ok) throw new Error(reading.faults[0]?.message ?? 'The file holds no session.')
      const written = { ...to, lastModified: file.lastModified }
      await links.set(written)
      link.value = written
      state.value = 'kept'
      store.edit('Taken from the file', () => reading.session)
    })
  const overwrite = () =>
    attempt(async () => {
      if (!link.value || !store.committed) return
      const there = await (await link.value.handle.getFile()).text()
      await links.setAside(`File “${link.value.name}”`, there)
      await write(link.value, store.committed)
    })
  const unlink = () =>
    attempt(async () => {
      if (link.value) await links.drop(link.value.key)
      link.value = null
      state.value = 'none'
    })

  watch(
    () => store.key,
    async (key) => {
      link.value = null
      state.value = 'none'
      if (!key) return
      await attempt(async () => {
        const found = await links.get(key)
        if (!found || store.key !== key) return
        link.value = found
        state.value = (await isAllowed(found.handle, false)) ? 'kept' : 'ask'
        await look()
      })
    },
    { immediate: true },
  )
  function followLater() {
    if (!link.value) return
    clearTimeout(timer)
    timer = setTimeout(follow, REST)
  }
  watch(
    () => store.committed,
    (now, before) => {
      if (before && now !== before) followLater()
    },
  )
  watch(() => store.logged, followLater)
  useEventListener(document, 'visibilitychange', () => {
    if (document.visibilityState === 'visible') void look()
  })
  useEventListener(window, 'focus', look)

  const name = computed(() => link.value?.name ?? null)
  return { name, state, trouble, choose, allow, takeFile, overwrite, unlink, try: follow }
}
