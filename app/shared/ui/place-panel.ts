import { autoUpdate, computePosition, flip, offset, shift, size } from '@floating-ui/dom'

/** Kept free between a panel and the edge of the window, px. */
const EDGE = 8

/**
 * Keeps a panel beside its button, on the other side where there is no room, never larger than the window.
 * @returns ends it
 */
export const placePanel = (button: HTMLElement, panel: HTMLElement, side: 'bottom-end' | 'top'): (() => void) =>
  autoUpdate(button, panel, () => {
    void computePosition(button, panel, {
      placement: side,
      strategy: 'fixed',
      middleware: [
        offset(4),
        flip({ padding: EDGE }),
        shift({ padding: EDGE }),
        size({
          padding: EDGE,
          apply: ({ availableHeight }) => {
            panel.style.maxHeight = `${availableHeight}px`
          },
        }),
      ],
    }).then(({ x, y }) => {
      Object.assign(panel.style, { inset: `${y}px auto auto ${x}px`, margin: '0' })
    })
  })
