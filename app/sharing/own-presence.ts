import { computed, watch } from 'vue'
import type { Member, Presence } from '#core/shared-session/presence'
import { follows, secondScreen, shownPlace } from '~/stores/second-screen'
import { useSoundcheckStore } from '~/stores/soundcheck'
import { useViewStore } from '~/stores/view'

/** What this device shows, as the others are told of it; and what it takes over from them while they follow each other. */
export function useOwnPresence() {
  const view = useViewStore()
  const soundcheck = useSoundcheckStore()
  const isAtSoundcheck = computed(() => shownPlace.value === 'soundcheck')
  const at = computed((): Presence => ({
    place: shownPlace.value,
    strip: view.strip?.id ?? null,
    stage: view.stage,
    page: soundcheck.page,
    // The run sheet is worked out where it is shown.
    step: isAtSoundcheck.value ? (soundcheck.step?.id ?? null) : null,
    follows: follows.value,
  }))

  function goTo({ strip, page, step }: Presence) {
    if (strip) view.select(strip)
    soundcheck.page = page
    if (step && isAtSoundcheck.value) soundcheck.choose(step)
  }

  let before: readonly Member[] = []
  /** Of the other members, the one that moved since; where it or this device follows, this one goes along. */
  function followed(members: readonly Member[], you: number) {
    const moved = members.find(({ number, at: now }) => {
      const then = before.find((each) => each.number === number)?.at
      return number !== you && now !== null && JSON.stringify(then) !== JSON.stringify(now)
    })
    before = members
    if (!moved?.at) return
    // To follow is for both: switched at one device, it is switched at all.
    if (moved.at.follows !== follows.value && isSettled) follows.value = moved.at.follows
    if (follows.value) goTo(moved.at)
    isSettled = true
  }
  let isSettled = false

  /** Calls back with each move of this device. */
  const onMove = (moved: () => void) => watch(at, moved)

  return {
    at: () => at.value,
    onMove,
    goTo,
    followed: (members: Member[]) => {
      const { value } = secondScreen
      if (value) followed(members, value.you)
    },
  }
}
