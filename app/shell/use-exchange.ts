import { ref } from 'vue'
import { useRouter } from '#imports'
import type { Fault } from '#core/files'
import { useLibraryStore } from '~/stores/library'
import { latePart } from '~/stores/late-part'
import { useSessionStore } from '~/stores/session'
import { sessionBlob } from './session-blob'
import { asFileName } from '~/composables/file-name'
import { chooseFile as choose, saveFile } from '~/composables/file-access'
import { useWayAhead } from '~/composables/use-way-ahead'

export interface Refusal {
  name: string
  faults: Fault[]
}

const NOT_READ: Fault = {
  path: '',
  code: 'not-read',
  message: 'The file could not be read. Nothing was changed. Reload the page and open the file again.',
}

/** What the last import was refused for; shared by all ways in. */
const refusal = ref<Refusal | null>(null)

/** Session files in and out: by button, by drop and by paste. */
export function useExchange() {
  const library = useLibraryStore()
  const open = useSessionStore()
  const router = useRouter()
  const ahead = useWayAhead()

  async function importFile(file: Blob & { name?: string }, name = file.name ?? 'File'): Promise<boolean> {
    const part = await latePart(() => import('~/composables/file-reader'))
    const reading = part && (await part.readSessionFile(file))
    if (!reading) {
      refusal.value = { name, faults: [NOT_READ] }
      return false
    }
    if (!reading.ok) {
      refusal.value = { name, faults: reading.faults }
      return false
    }
    refusal.value = null
    const key = await library.take(reading)
    // A key may have asked for one of its places already.
    const there = ahead() ?? router.currentRoute.value
    if (there.params.key !== key) await router.push(`/path/${key}`)
    return true
  }
  const importText = (name: string, text: string) => importFile(new Blob([text]), name)

  async function chooseFile() {
    const file = await choose({ extensions: ['.json'], description: 'Session file', id: 'remetra' })
    if (file) await importFile(file)
  }

  async function exportOpen() {
    if (!open.committed) return
    await saveFile(
      await sessionBlob(open.committed, open.key),
      'application/json',
      `${asFileName(open.committed.name)}.session.json`,
      'remetra',
    )
  }

  return { refusal, importText, importFile, chooseFile, exportOpen }
}
