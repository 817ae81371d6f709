import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { LogEntry } from '#core/log/entries'
import { fullLog, lastMark, logOf, nextTakeNumber } from '#core/log/entries'
import type { Log, Mark, Take } from '#core/session'
import { describeStorageTrouble, logRepository } from '~/persistence'
import { useSessionStore } from './session'

/** The log of the open session: what is added to it is kept at once, beside the session’s steps and apart from undo. */
export const useLogStore = defineStore('log', () => {
  const store = useSessionStore()
  const kept = shallowRef<readonly LogEntry[]>([])
  /** What could not be kept yet; it is there as long as the page is. */
  const unkept = shallowRef<readonly LogEntry[]>([])
  const trouble = ref<string | null>(null)
  let stop: () => void = () => {}

  watch(
    () => store.key,
    (key) => {
      stop()
      kept.value = []
      unkept.value = []
      if (key === null) return
      stop = logRepository.watch(
        key,
        (entries) => {
          if (store.key === key) kept.value = entries
        },
        (error) => {
          trouble.value = describeStorageTrouble(error)
        },
      )
    },
    { immediate: true },
  )

  const log = computed(() => logOf([...kept.value, ...unkept.value]))

  /** @returns why it was not added, in words; what storage refuses is kept in memory, and said */
  async function add(entries: readonly LogEntry[]): Promise<string | null> {
    const { key } = store
    const full = fullLog(log.value)
    if (key === null) return 'No session is open.'
    const isNew = entries.some((entry) =>
      'mark' in entry
        ? !log.value.marks.some(({ id }) => id === entry.mark.id)
        : !log.value.takes.some(({ id }) => id === entry.take.id),
    )
    if (full && isNew) return full
    const waiting = [...unkept.value, ...entries]
    unkept.value = waiting
    try {
      // A plain copy: the database takes no watched objects.
      await logRepository.add(key, JSON.parse(JSON.stringify(waiting)) as LogEntry[])
      trouble.value = null
      if (store.key === key) {
        store.noteLogged()
        kept.value = [...kept.value, ...waiting]
        unkept.value = []
      }
      return null
    } catch (error) {
      trouble.value = `The log is not kept: ${describeStorageTrouble(error)} It is there as long as this page is; export the session.`
      return null
    }
  }

  /** All of a session’s log, also where no place has shown it yet. */
  async function whole(key: string): Promise<Log> {
    const own = store.key === key ? unkept.value : []
    try {
      return logOf([...(await logRepository.list(key)), ...own])
    } catch (error) {
      // What is on the screen can be taken along all the same.
      trouble.value = describeStorageTrouble(error)
      return logOf([...(store.key === key ? kept.value : []), ...own])
    }
  }

  return {
    log,
    whole,
    trouble,
    add,
    addMark: (mark: Mark) => add([{ mark }]),
    addTake: (take: Take) => add([{ take }]),
    nextNumber: computed(() => nextTakeNumber(log.value)),
    lastMark: computed(() => lastMark(log.value)),
  }
})
