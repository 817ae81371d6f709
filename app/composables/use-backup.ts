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
    const trainer = await library.practised()
    if (!trainer) return
    const text = writeBackup({
      on: on.toISOString(),
      sessions: [...sessions.values()],
      shelf: shelf.items,
      ...(trainer.progress.length > 0 && { trainer }),
    })
    await saveFile(text, 'application/json', `remetra-${on.toISOString().slice(0, 10)}.backup.json`, 'remetra-backup')
    last.value = await library.backedUp()
    const practice = trainer.progress.length > 0 ? ', and what was practised in the trainer' : ''
    told.value = `In the file: ${counted(sessions.size, 'session')}, ${counted(shelf.items.length, 'item')} of the shelf${practice}.`
  }

  async function restore() {
    const file = await chooseFile({ extensions: ['.json'], description: 'Backup file', id: 'remetra-backup' })
    if (!file) return
    const reading = readBackup(await file.text())
    refusal.value = reading.ok ? null : { name: file.name, faults: reading.faults }
    if (!reading.ok) return
    const there = await library.everything()
    if (!there) return
    const names = new Set([...there.values()].map(({ name }) => name))
    const missing: BackupSession[] = []
    let logged = 0
    for (const each of reading.backup.sessions) {
      const same = [...there].find(([, kept]) => sameSession(kept, each))
      if (!same) missing.push(each)
      else if (each.log) {
        const entries = await library.addToLog(same[0], each.log)
        if (entries === null) return
        logged += entries
      }
    }
    const named = missing.map((each) => {
      const name = nextName(each.name, names)
      names.add(name)
      return renamed(each, name)
    })
    if (!(await library.addAll(named))) return
    const { trainer } = reading.backup
    if (trainer && !(await library.practisedBack(trainer))) return
    await shelf.open()
    const { added } = await shelf.take(reading.backup.shelf)
    const same = reading.backup.sessions.length - missing.length
    const log = logged > 0 ? ` with ${counted(logged, 'new entry', 'new entries')} in the log` : ''
    told.value = `${counted(missing.length, 'session was', 'sessions were')} added, ${counted(same, 'was', 'were')} there already${log}; ${counted(added, 'item of gear was', 'items of gear were')} added. Nothing was overwritten.`
  }

  return { isDue, later, look, save, restore, told, refusal }
}

const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`

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
