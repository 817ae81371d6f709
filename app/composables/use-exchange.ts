import { ref } from 'vue'
import { useRouter } from '#imports'
import type { Fault } from '#core/session'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import { sessionText } from './session-text'
import { chooseFile as choose, saveFile } from './file-access'

export interface Refusal {
  name: string
  faults: Fault[]
}

/** What the last import was refused for; shared by all ways in. */
const refusal = ref<Refusal | null>(null)

/** Session files in and out: by button, by drop and by paste. */
export function useExchange() {
  const library = useLibraryStore()
  const open = useSessionStore()
  const router = useRouter()

  async function importText(name: string, text: string): Promise<boolean> {
    const result = await library.importText(text)
    if ('faults' in result) {
      refusal.value = { name, faults: result.faults }
      return false
    }
    refusal.value = null
    await router.push(`/path/${result.key}`)
    return true
  }

  async function importFile(file: File): Promise<boolean> {
    try {
      return await importText(file.name, await file.text())
    } catch (error) {
      refusal.value = {
        name: file.name,
        faults: [
          {
            path: '',
            code: 'unreadable',
            message: `The file could not be read (${error instanceof Error ? error.message : 'unknown reason'}). Try a copy of it.`,
          },
        ],
      }
      return false
    }
  }

  async function chooseFile() {
    const file = await choose({ extensions: ['.json'], description: 'Session file', id: 'remetra' })
    if (file) await importFile(file)
  }

  async function exportOpen() {
    if (!open.committed) return
    await saveFile(
      await sessionText(open.committed, open.key),
      'application/json',
      `${fileName(open.committed.name)}.session.json`,
      'remetra',
    )
  }

  return { refusal, importText, importFile, chooseFile, exportOpen }
}

const fileName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60) || 'session'
