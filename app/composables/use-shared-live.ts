import type { Ref } from 'vue'
import { onScopeDispose, watch } from 'vue'
import type { Live } from '#core/shared-session/live'
import { passagesAsked, showLive, shownLive } from '~/stores/second-screen'

interface SharedLive {
  /** What is listened to here: `remote` for what the opener of a shared session hears. */
  source: Ref<string>
  /** Shows what the opener’s inputs show. */
  show: (shown: Live) => void
  /** The opener’s inputs show nothing more. */
  stop: () => void
  restartPassage: () => void
  /** Tells the other devices that these inputs show nothing. */
  nothing: Live
}

/** Inputs of this device that others see, and those of the opener that are seen here while this device has none open. */
export function useSharedLive({ source, show, stop, restartPassage, nothing }: SharedLive) {
  const isOwn = () => source.value !== 'none' && source.value !== 'remote'
  watch(
    shownLive,
    (shown) => {
      if (source.value !== 'none' && source.value !== 'remote') return
      if (shown) show(shown)
      else if (source.value === 'remote') stop()
    },
    { immediate: true },
  )
  // A guest restarts the peaks where they are measured.
  watch(passagesAsked, () => isOwn() && restartPassage())
  watch(source, (now, before) => {
    if (now === 'none' && before !== 'remote') showLive.value?.(nothing)
  })
  onScopeDispose(() => isOwn() && showLive.value?.(nothing))
  return {
    /** Hands on what the inputs show, where there is somebody who sees it. */
    tell: (shown: () => Live) => {
      if (showLive.value && isOwn()) showLive.value(shown())
    },
  }
}
