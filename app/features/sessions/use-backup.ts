import { computed, ref } from 'vue'
import type { Fault } from '#core/files'
import { useLibraryStore } from '~/stores/library'
import { chooseFile, saveFile } from '~/composables/file-access'
import type { FileWork } from '~/workers/files.worker'
import { restoreBackup, saveBackup } from '~/composables/file-reader'

type SavedBackup = Awaited<ReturnType<FileWork['saveBackup']>>

/** Days after which one is reminded of a backup. */
const MONTH = 31

const last = ref<number | null>(null)
const told = ref<string | null>(null)
const refusal = ref<{ name: string; faults: Fault[] } | null>(null)
const later = ref(false)
const busy = ref(false)

/** Everything that this browser keeps, in one file, and back from it beside what is there. */
export function useBackup() {
  const library = useLibraryStore()

  /** Older than a month, or never, with something of one's own that has been here so long. */
  const isDue = computed(
    () =>
      !later.value && last.value !== null && library.kept.length > 1 && Date.now() - last.value > MONTH * 86_400_000,
  )
  const look = async () => {
    last.value = await library.lastBackup()
  }

  async function atWork<T>(work: () => Promise<T>): Promise<T | null> {
    busy.value = true
    const done = await library.attempt(work)
    busy.value = false
    return done
  }

  async function save() {
    told.value = 'Collecting everything…'
    const on = new Date().toISOString()
    // What is open may not be stored yet: a first visit has its picture before the storage.
    await library.keepNow()
    const saved = await atWork(() => saveBackup(on))
    told.value = null
    if (!saved) return
    await saveFile(saved.file, 'application/json', `remetra-${on.slice(0, 10)}.backup.json`, 'remetra-backup')
    last.value = await library.backedUp()
    told.value = describeSaved(saved)
  }

  /** Some sessions with their logs, in a file that is restored like a whole backup. */
  async function saveChosen(keys: readonly string[]) {
    const on = new Date().toISOString()
    await library.keepNow()
    const saved = await atWork(() => saveBackup(on, keys))
    if (!saved) return
    const name = `remetra-${counted(saved.sessions, 'session').replace(' ', '-')}-${on.slice(0, 10)}.backup.json`
    await saveFile(saved.file, 'application/json', name, 'remetra-backup')
    told.value = describeSaved(saved)
  }

  async function restore() {
    const file = await chooseFile({ extensions: ['.json'], description: 'Backup file', id: 'remetra-backup' })
    if (!file) return
    told.value = `Reading “${file.name}”…`
    refusal.value = null
    const restored = await atWork(() => restoreBackup(file))
    told.value = null
    if (!restored) return
    if (!restored.ok) {
      refusal.value = { name: file.name, faults: restored.faults }
      return
    }
    const { added, same, logged, items } = restored
    const log = logged > 0 ? ` with ${counted(logged, 'new log entry', 'new log entries')}` : ''
    told.value = `${counted(added, 'session was', 'sessions were')} added. ${counted(same, 'was', 'were')} there already${log}. ${counted(items, 'item of gear was', 'items of gear were')} added. Nothing was overwritten.`
  }

  return { isDue, later, look, save, saveChosen, restore, told, refusal, busy }
}

const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`

function describeSaved({ sessions, items, hasPractice, left }: SavedBackup): string {
  const practice = hasPractice ? ', and the trainer’s progress' : ''
  const gear = items > 0 ? `, ${counted(items, 'item')} of gear` : ''
  const saved = `In the file: ${counted(sessions, 'session')}${gear}${practice}.`
  if (left.length === 0) return saved
  const names = left
    .slice(0, 5)
    .map(({ name, why }) => `${name} (${why === 'newer' ? 'written by a newer version' : 'damaged'})`)
    .join(', ')
  return `${saved} Not in the file: ${names}${left.length > 5 ? ` and ${left.length - 5} more` : ''}.`
}
