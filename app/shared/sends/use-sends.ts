import { computed } from 'vue'
import type { Feed, Strip } from '#core/model'
import { applyChanges, withoutFeed } from '#core/edits'
import { feedFrom } from '#core/session'
import { feedsOf, isBus } from '#core/model'
import { db } from '#core/units'
import { useSessionStore } from '~/stores/session'

/** A send of a strip as it is shown: its level, where it leaves, and the bus that it goes to. */
export interface Send {
  strip: Strip
  bus: Strip
  feed: Feed
}

/** What goes where: sends begun, changed and ended. Every one of them can be undone. */
export function useSends() {
  const store = useSessionStore()
  const strips = computed(() => store.session?.strips ?? [])
  const busses = computed(() => strips.value.filter(isBus))

  const sendsOf = (strip: Strip): Send[] =>
    feedsOf(strip).flatMap((feed) => {
      const bus = strips.value.find(({ id }) => id === feed.to)
      return bus ? [{ strip, bus, feed }] : []
    })
  const sendsInto = (bus: Strip): Send[] =>
    strips.value.flatMap((strip) => sendsOf(strip).filter((send) => send.bus.id === bus.id))

  /** Busses that a strip could feed and does not yet. */
  const open = (strip: Strip): Strip[] =>
    store.session
      ? busses.value.filter(
          (bus) => !feedsOf(strip).some(({ to }) => to === bus.id) && feedFrom(store.session!, strip, bus) !== null,
        )
      : []

  const set = (strip: string, to: string, part: Partial<Omit<Feed, 'to'>>) =>
    store.edit('Send', (session) => applyChanges(session, [{ do: 'feed', strip, to, set: part }]))

  return {
    busses,
    sendsOf,
    sendsInto,
    open,
    setGain: (strip: string, to: string) => (value: number | undefined) =>
      value === undefined
        ? 'A send needs a level. To remove the send, delete it.'
        : set(strip, to, { gain: db(value) }),
    setTap: (strip: string, to: string) => (tap: Feed['tap']) => set(strip, to, { tap }),
    /** Begins a send at its mark, from where the strip has what the bus takes. */
    begin: (strip: Strip, bus: Strip) => {
      const from = store.session ? feedFrom(store.session, strip, bus) : null
      return from === null
        ? `“${strip.name}” gives nothing that “${bus.name}” takes, or feeds from it.`
        : set(strip.id, bus.id, from === undefined ? {} : { from })
    },
    end: (strip: string, to: string) => store.edit('Take a send out', (session) => withoutFeed(session, strip, to)),
  }
}
