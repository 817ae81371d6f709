import { computed, ref, watch } from 'vue'
import type { Member, Presence } from '#core/shared-session/presence'
import { leading } from '#core/shared-session/presence'
import { follows, secondScreen, shownPlace } from '~/stores/second-screen'
import { useSoundcheckStore } from '~/stores/soundcheck'
import { useViewStore } from '~/stores/view'

/** What this device shows, as the others are told of it; and what it takes over from them while they follow each other. */
export function useOwnPresence() {
  const view = useViewStore()
  const soundcheck = useSoundcheckStore()
  const isAtSoundcheck = computed(() => shownPlace.value === 'soundcheck')
  const moved = ref(0)
  const at = computed((): Presence => ({
    place: shownPlace.value,
    strip: view.strip?.id ?? null,
    stage: view.stage,
    page: soundcheck.page,
    // The run sheet is worked out where it is shown.
    step: isAtSoundcheck.value ? (soundcheck.step?.id ?? null) : null,
    follows: follows.value,
    moved: moved.value,
  }))

  /** Where this device went because another one did: no move of its own. */
  let followed = ''
  let highest = 0
  /** Moves count once the others are known: what a page does while it opens is none. */
  let isAmongOthers = false
  const spot = () => JSON.stringify([at.value.strip, at.value.page, at.value.step, at.value.follows])
  watch(spot, (now) => {
    if (isAmongOthers && now !== followed) moved.value = highest += 1
  })

  function goTo({ strip, page, step }: Pick<Presence, 'strip' | 'page' | 'step'>) {
    if (strip) view.select(strip)
    soundcheck.page = page
    if (step && isAtSoundcheck.value) soundcheck.choose(step)
    followed = spot()
  }

  function follow(members: readonly Member[], you: number) {
    highest = Math.max(moved.value, ...members.map((each) => each.at?.moved ?? 0))
    const first = leading(members, { number: you, moved: isAmongOthers ? moved.value : -1 })
    if (first) {
      // To follow is for all: switched at one device, it is switched at the others.
      follows.value = first.follows
      moved.value = first.moved
      if (first.follows) goTo(first)
      else followed = spot()
    }
    isAmongOthers = true
  }

  /** Calls back with each move of this device. */
  const onMove = (moved: () => void) => watch(at, moved)

  return {
    at: () => at.value,
    onMove,
    goTo,
    members: (members: readonly Member[]) => {
      const { value } = secondScreen
      if (value) follow(members, value.you)
    },
  }
}
