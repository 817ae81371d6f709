import { useDebounceFn } from '@vueuse/core'
import { effectScope, watch } from 'vue'
import type { Room } from '#core/relay/room-link'
import { readRoomFragment } from '#core/relay/room-link'
import type { Session } from '#core/session'
import { GuestRoom } from '#core/shared-session/guest'
import { joinMine } from '#core/shared-session/met'
import { OwnSteps } from '#core/shared-session/own-steps'
import type { SessionRow } from '~/persistence'
import { guestLog } from '~/stores/guest-log'
import type { KeptIn } from '~/stores/open-session'
import { OpenSession } from '~/stores/open-session'
import { GUEST_KEY, askForPassage, isUnsent, secondScreen, shownLive } from '~/stores/second-screen'
import type { Shown } from '~/stores/session'
import { useSessionStore } from '~/stores/session'
import { RelayConnection } from './connection'
import { sendDrafts } from './drafts'
import { dropJoined, joinedRoom, keepJoined } from './kept-room'
import { deviceName, forgetNews, metNews, refusedNews, setState } from './news'
import { useOwnPresence } from './own-presence'

/** What is kept of a guest’s copy while the hand moves is written when it rests, ms. */
const REST = 500

interface Joined {
  open: OpenSession | null
  leave: () => void
}
let joined: Joined | null = null

/** Opens the session of another device: by the room in the address, or the one of this tab. */
export async function joinSession(fragment: string): Promise<Shown> {
  const asked = readRoomFragment(fragment)
  const kept = joinedRoom()
  const room = asked ?? kept?.room
  if (!room)
    return {
      state: 'trouble',
      why: 'This link is incomplete. Scan the code on the other device again, or copy the whole link.',
    }
  const isSame = kept !== null && sameRoom(room, kept.room)
  if (joined?.open && (!asked || isSame)) {
    useSessionStore().showGuest(joined.open)
    return { state: 'open' }
  }
  joined?.leave()
  const copy = isSame ? kept.copy : null
  keepJoined({ room, copy })
  await new Promise<void>((resolve) => {
    joined = begin(room, copy, resolve)
  })
  return { state: 'open' }
}

const sameRoom = (a: Room, b: Room) => a.id.join() === b.id.join() && a.key.join() === b.key.join()

/** Leaves the room; the copy stays on the screen. */
export function leaveRoom(): void {
  joined?.leave()
}

function begin(room: Room, copy: { known: Session; mine: Session } | null, isOpen: () => void): Joined {
  const store = useSessionStore()
  const scope = effectScope(true)
  forgetNews()
  secondScreen.value = { isOpener: false, role: 'hands', state: 'connecting', why: null, you: 0, members: [] }
  const it: Joined = { open: null, leave: () => {} }

  const keepCopy = useDebounceFn(() => {
    const known = guest.known
    if (known && it.open) keepJoined({ room, copy: { known, mine: it.open.committed.value } })
  }, REST)

  function show(session: Session) {
    if (it.open) return it.open.takeIn('From the other device', session)
    const open = OpenSession.fresh(notKept(), GUEST_KEY, session, 'Opened from another device')
    open.own.value = new OwnSteps()
    open.refuses = refuses
    open.onNotUndone = (why) => {
      refusedNews.value = why
    }
    it.open = open
    store.showGuest(open)
    scope.run(() => {
      watch(open.committed, () => {
        guest.propose(open.undoLabel.value ?? 'Change')
        void keepCopy()
      })
      presence.onMove(() => guest.moved())
      sendDrafts(
        () => store.key === GUEST_KEY,
        (draft) => guest.drags(draft),
      )
    })
    isOpen()
  }

  const presence = scope.run(() => useOwnPresence()) as ReturnType<typeof useOwnPresence>
  let isFirst = true
  const guest: GuestRoom = new GuestRoom(
    room.key,
    (to, bytes) => connection.send(to, bytes),
    {
      session: () => it.open?.committed.value ?? null,
      open: show,
      takeIn: (label, session) => it.open?.takeIn(label, session),
      preview: (draft) => {
        if (it.open) it.open.othersDraft.value = draft
      },
      log: (entries) => {
        const bad = guestLog.receive(entries)
        if (bad > 0) refusedNews.value = `${bad} log entries from the other device could not be read and are not shown.`
      },
      at: () => (it.open ? presence.at() : null),
    },
    {
      joined: (isJoined) => {
        setState({ state: isJoined ? 'joined' : 'alone', why: null })
        shownLive.value = null
        if (isJoined)
          void guestLog.flush().then((why) => {
            if (why !== null) refusedNews.value = why
          })
      },
      role: (role) => setState({ role }),
      members: (members) => {
        setState({ members })
        const leader = members.find(({ role }) => role === 'leader')?.at
        // The same step, once: from then on this device goes its own way. The strip stands in the link.
        if (isFirst && leader) presence.goTo({ ...leader, strip: null })
        isFirst = false
        presence.members(members)
      },
      met: (met, mine) => {
        metNews.value = {
          by: null,
          met,
          setMine: () =>
            it.open?.edit('Set after all', (session) => joinMine(mine.base, mine.session, session) ?? session),
        }
      },
      refused: (why) => {
        refusedNews.value = why
      },
      live: (shown) => {
        shownLive.value = shown
      },
      away: (isAway) => setState({ why: isAway ? 'The other device has another session on its screen.' : null }),
      ended: () => {
        stop()
        setState({ state: 'ended', why: null })
      },
      settled: (isSettled) => {
        isUnsent.value = !isSettled || guestLog.isUnsent
      },
    },
    deviceName(),
  )
  guestLog.send = (entries) => guest.addToLog(entries)
  askForPassage.value = () => {
    if (refuses() === null) guest.restartPassage()
  }

  const connection = new RelayConnection(room, {
    joined: (you) => {
      setState({ state: 'alone', why: null, you })
      guest.greet()
    },
    came: () => guest.came(),
    left: (member) => guest.left(member),
    passed: (from, bytes) => guest.received(from, bytes),
    lost: (why) => {
      guest.lose()
      setState({ state: 'lost', why })
    },
  })

  /** Nothing is sent or heard any more. */
  function stop() {
    connection.close()
    guest.lose()
    scope.stop()
    dropJoined()
    shownLive.value = null
    askForPassage.value = null
    isUnsent.value = false
  }
  it.leave = () => {
    stop()
    setState({ state: 'ended' })
    if (joined === it) joined = null
  }
  if (copy) {
    guest.resume(copy.known)
    show(copy.mine)
  }
  return it
}

/** Eyes look only, and are told so when they try. */
function refuses(): string | null {
  if (secondScreen.value?.role !== 'eyes' || secondScreen.value.state === 'ended') return null
  const why = 'This device may look, not change. The owner of the session can allow changes.'
  refusedNews.value = why
  return why
}

/** Where a guest’s copy is kept: nowhere but in this tab. The opener’s database keeps the session. */
function notKept(): KeptIn {
  const row = (key: string, { name }: { name: string }, writes: number): SessionRow => ({
    key,
    name,
    updatedAt: Date.now(),
    cursor: 0,
    steps: [],
    writes,
    deletedAt: 0,
    deletedOn: 0,
    version: 0,
  })
  return {
    create: async (key, session) => row(key, session, 1),
    sync: async (known, history) => row(known.key, history, known.writes + 1),
    read: async () => ({ state: 'absent' }),
    revision: async () => null,
    watch: () => () => {},
  }
}
