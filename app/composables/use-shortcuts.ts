import { useEventListener } from '@vueuse/core'

export interface Shortcut {
  /** As shown and as matched: a key, with "Ctrl+" before it where it takes that. */
  keys: readonly string[]
  does: string
  /** The place at which it is meant, where it is not meant at all of them. */
  at?: string
  /** Left out where the key belongs to a control, and is only listed. */
  run?: () => void
  /** Whether it is meant just now; otherwise the key goes where it would. */
  when?: () => boolean
}

/** Listens to a list of shortcuts. Plain keys are left alone while something is typed or a dialog is open. */
export function useShortcuts(shortcuts: readonly Shortcut[]) {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.altKey || event.defaultPrevented) return
    const command = event.ctrlKey || event.metaKey
    if (isTyping(event.target) && !(command && isAtRest(event.target))) return
    if (!command && document.querySelector('[role="dialog"]')) return
    const pressed = `${command ? 'Ctrl+' : ''}${command && event.shiftKey ? 'Shift+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`
    const shortcut = shortcuts.find(
      (each) =>
        each.run && (each.when?.() ?? true) && each.keys.some((key) => key.toLowerCase() === pressed.toLowerCase()),
    )
    if (!shortcut?.run) return
    event.preventDefault()
    shortcut.run()
  })
}

/** A field in which nothing is under way: undo there means the session's. */
const isAtRest = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.tagName === 'SELECT' || (!target.isContentEditable && !target.hasAttribute('data-typed')))

export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) && (target as HTMLInputElement).type !== 'radio'))
