import { effectScope, ref, watch } from 'vue'
import { readLogEntry } from '#core/log/read-entry'
import type { Room } from '#core/relay/room-link'
import { newRoom, roomFragment } from '#core/relay/room-link'
import { LeaderRoom } from '#core/shared-session/leader'
import { OwnSteps } from '#core/shared-session/own-steps'
import type { Role } from '#core/shared-session/presence'
import { readSession } from '#core/files'
import type { NewLogEntry } from '~/persistence'
import { describeStorageTrouble, logRepository } from '~/persistence'
import { passagesAsked, secondScreen, showLive } from '~/stores/second-screen'
import { useSessionStore } from '~/stores/session'
import { RelayConnection } from './connection'
import { sendDrafts } from './drafts'
import { dropOpened, keepOpened, openedRoom } from './kept-room'
import { deviceName, forgetNews, metNews, refusedNews, setState, unopened } from './news'
import { useOwnPresence } from './own-presence'

/** What stands behind the # of the link to the room that this tab has opened; `null` where it has none. */
export const openedFragment = ref<string | null>(null)
/** What devices that come may do. */
export const newRole = ref<Role>('hands')

interface Opened {
  room: LeaderRoom
  end: () => void
}
let opened: Opened | null = null

/** Opens a room for the session on the screen. */
export function shareSession(relay: string): void {
  const { key } = useSessionStore()
  if (opened || key === null) return
  const room = newRoom(relay)
  keepOpened(room, key)
  opened = begin(room)
}

/** After a reload: goes back into the room of this tab, once its session is open again. */
export function resumeSharing(): void {
  const kept = openedRoom()
  if (!opened && kept && kept.key === useSessionStore().key) opened = begin(kept.room)
}

/** Ends it for all devices. */
export function endSharing(): void {
  opened?.room.end()
  opened?.end()
}

export const setRole = (member: number, role: Role) => opened?.room.setRole(member, role)

function begin(room: Room): Opened {
  const store = useSessionStore()
  const scope = effectScope(true)
  store.shared = store.opened()
  forgetNews()
  secondScreen.value = { isOpener: true, role: 'hands', state: 'connecting', why: null, you: 255, members: [] }
  openedFragment.value = roomFragment(room)

  const leader = scope.run(() => leaderOf(room, (to, bytes) => connection.send(to, bytes))) as LeaderRoom
  const connection = new RelayConnection(room, {
    joined: () => {
      setState({ state: 'joined', why: null })
      leader.restarted()
    },
    came: () => {},
    left: (member) => leader.left(member),
    passed: (from, bytes) => leader.received(from, bytes),
    lost: (why) => {
      setState({ state: 'lost', why })
      leader.restarted()
    },
  })
  showLive.value = (shown) => {
    if (!connection.isBusy) leader.shows(shown)
  }

  const end = () => {
    scope.stop()
    connection.close()
    dropOpened()
    if (store.shared) store.shared.own.value = null
    store.shared = null
    showLive.value = null
    openedFragment.value = null
    secondScreen.value = null
    opened = null
  }
  return { room: leader, end }
}

/** The leader over the shared session, its log and what this device shows. */
function leaderOf(room: Room, send: (to: number, bytes: Uint8Array) => void): LeaderRoom {
  const store = useSessionStore()
  const presence = useOwnPresence()
  const shared = () => {
    if (!store.shared) throw new Error('No session is shared.')
    return store.shared
  }
  const leader: LeaderRoom = new LeaderRoom(
    room.key,
    send,
    {
      session: () => shared().committed.value,
      commit: (label, session) => {
        shared().takeIn(label, session)
        return null
      },
      preview: (draft) => {
        shared().othersDraft.value = draft
      },
      log: () => logRepository.list(shared().key),
      addToLog: (entries) => addToLog(shared().key, entries),
      at: presence.at,
      restartPassage: () => {
        passagesAsked.value++
      },
    },
    {
      members: (members) => {
        setState({ members })
        presence.members(members)
      },
      met: (by, met) => {
        metNews.value = { by, met, setMine: null }
      },
      refused: (count) => {
        unopened.value = count
      },
    },
    deviceName(),
  )

  // Another tab’s conflict may put another session in its place; undo is then that one’s own too.
  watch(
    () => store.shared,
    (now) => {
      if (!now) return
      keepOpened(room, now.key)
      now.own.value ??= new OwnSteps()
      now.onNotUndone = (why) => {
        refusedNews.value = why
      }
    },
    { immediate: true },
  )
  watch(
    () => store.shared?.committed.value,
    () => store.shared && leader.changed(store.shared.undoLabel.value ?? 'Change'),
  )
  watch(
    () => store.key !== store.shared?.key,
    (isAway) => leader.setAway(isAway),
  )
  watch(
    () => store.shared?.key,
    (key, _, onCleanup) => {
      if (key === undefined) return
      let isFirst = true
      onCleanup(
        logRepository.watch(
          key,
          ({ entries }) => {
            // What was there already goes to each device when it comes.
            if (!isFirst && entries.length > 0) leader.logged(entries)
            isFirst = false
          },
          (error) => {
            refusedNews.value = describeStorageTrouble(error)
          },
        ),
      )
    },
    { immediate: true },
  )
  watch(newRole, (role) => {
    leader.newRole = role
  })
  leader.newRole = newRole.value
  presence.onMove(() => leader.moved())
  sendDrafts(
    () => store.key === store.shared?.key,
    (draft) => leader.previewed(draft),
  )
  return leader
}

/** A guest’s entries, validated like those of a file. @returns why they were not added, in words */
async function addToLog(key: string, raw: readonly unknown[]): Promise<string | null> {
  const entries = raw.map(newEntry)
  if (entries.some((entry) => entry === null)) return 'This is no entry of a log.'
  try {
    await logRepository.add(key, entries as NewLogEntry[])
    return null
  } catch (error) {
    if (error instanceof Error && error.name === 'LogFullError') return error.message
    return describeStorageTrouble(error)
  }
}

function newEntry(raw: unknown): NewLogEntry | null {
  const entry = readLogEntry(raw)
  if (!entry || 'take' in entry) return entry
  if (!('session' in entry.mark)) return 'changes' in entry.mark ? null : { mark: entry.mark }
  const reading = readSession(entry.mark.session)
  return reading.ok ? { mark: { ...entry.mark, session: reading.session } } : null
}
