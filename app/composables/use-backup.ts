import equal from 'fast-deep-equal'
import { computed, ref } from 'vue'
import type { BackupSession, Fault } from '#core/session'
import { nextName, readBackup, writeBackup } from '#core/session'
import { useLibraryStore } from '~/stores/library'
import { useShelfStore } from '~/stores/shelf'
import { chooseFile, saveFile } from './file-access'

/** Days after which one is reminded of a backup. */
const MONTH = 31

const last = ref<number | null>(null)
const told = ref<string | null>(null)
const refusal = ref<{ name: string; faults: Fault[] } | null>(null)
const later = ref(false)

/** Everything that this browser keeps, in one file, and back from it beside what is there. */
export function useBackup() {
  const library = useLibraryStore()
  const shelf = useShelfStore()

  /** Older than a month, or never, with something of one's own that has been here so long. */
  const isDue = computed(
    () =>
      !later.value && last.value !== null && library.kept.length > 1 && Date.now() - last.value > MONTH * 86_400_000,
  )
  const look = async () => {
    last.value = await library.lastBackup()
  }

  async function save() {
    const sessions = await library.everything()
    if (!sessions) return
    await shelf.open()
    const on = new Date()
    const text = writeBackup({ on: on.toISOString(), sessions, shelf: shelf.items })
    await saveFile(text, 'application/json', `remetra-${on.toISOString().slice(0, 10)}.backup.json`, 'remetra-backup')
    last.value = await library.backedUp()
    told.value = `${sessions.length} ${sessions.length === 1 ? 'session' : 'sessions'} and ${shelf.items.length} items of the shelf are in the file.`
  }

  async function restore() {
    const file = await chooseFile({ extensions: ['.json'], description: 'Backup file', id: 'remetra-backup' })
    if (!file) return
    const reading = readBackup(await file.text())
    refusal.value = reading.ok ? null : { name: file.name, faults: reading.faults }
    if (!reading.ok) return
    const there = await library.everything()
    if (!there) return
    const names = new Set(there.map(({ name }) => name))
    const missing = reading.backup.sessions.filter((each) => !there.some((kept) => sameSession(kept, each)))
    const named = missing.map((each) => {
      const name = nextName(each.name, names)
      names.add(name)
      return renamed(each, name)
    })
    if (!(await library.addAll(named))) return
    await shelf.open()
    const { added } = await shelf.take(reading.backup.shelf)
    const same = reading.backup.sessions.length - missing.length
    told.value = `${missing.length} ${missing.length === 1 ? 'session was' : 'sessions were'} added, ${same} ${same === 1 ? 'was' : 'were'} there already; ${added} items of gear were added. Nothing was overwritten.`
  }

  return { isDue, later, look, save, restore, told, refusal }
}

/** The same session in the same state, whatever its history. */
const sameSession = (one: BackupSession, other: BackupSession) => equal(shown(one), shown(other))
const shown = ({ cursor, steps }: BackupSession) => steps.find(({ number }) => number === cursor)?.session

/** Under another name where its own is taken: in the list, and in the state that is shown. */
const renamed = (backup: BackupSession, name: string): BackupSession =>
  name === backup.name
    ? backup
    : {
        ...backup,
        name,
        steps: backup.steps.map((step) =>
          step.number === backup.cursor ? { ...step, session: { ...step.session, name } } : step,
        ),
      }
