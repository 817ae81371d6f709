import type { Page } from '@playwright/test'

/** What is wrong with the page as it stands, in words: hidden, cut or too small things, and what reaches over the edge. */
export const troubles = (page: Page, least: number) =>
  page.evaluate((target) => {
    const found: string[] = []
    const nameOf = (element: Element) =>
      `<${element.tagName.toLowerCase()}> ${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 50)}`
    const visible = (element: Element) =>
      (element as HTMLElement).checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) &&
      element.getBoundingClientRect().width > 1
    for (const box of [document.documentElement, ...document.querySelectorAll('main, main *, header, aside')]) {
      const { overflowX } = getComputedStyle(box)
      const pushed = box.scrollWidth > box.clientWidth + 1
      const page = box === document.documentElement || overflowX === 'hidden' || overflowX === 'clip'
      // A table and the section may be pushed sideways; nothing else may, and not the page.
      const mayBe = box.querySelector('table, [data-section]') !== null || box.closest('table') !== null
      if (pushed && page && box.clientWidth > 0 && visible(box) && !box.matches('.sr-only, input, canvas, svg'))
        if (box === document.documentElement || getComputedStyle(box).textOverflow !== 'ellipsis')
          found.push(`wider than its place: ${nameOf(box)} (${box.scrollWidth} in ${box.clientWidth})`)
      if (pushed && (overflowX === 'auto' || overflowX === 'scroll') && !mayBe && visible(box))
        found.push(`scrolls sideways: ${nameOf(box)} (${box.scrollWidth} in ${box.clientWidth})`)
      if (getComputedStyle(box).textOverflow === 'ellipsis' && pushed && visible(box) && !box.matches('input'))
        if (!box.closest('[title], summary, label')) found.push(`cut without a way to read it: ${nameOf(box)}`)
    }
    const controls = document.querySelectorAll(
      'button, a[href], input:not([type="file"]), select, textarea, summary, [role="slider"]',
    )
    for (const control of controls) {
      if (!visible(control) || control.closest('.sr-only, [inert]')) continue
      control.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' })
      // A tick is pressed by the words beside it too (WCAG 2.5.8 takes a label as a part of its control).
      const pressed = control.matches('[type="checkbox"], [type="radio"]') ? control.closest('label') : null
      const { left, top, width, height } = (pressed ?? control).getBoundingClientRect()
      const [x, y] = [left + width / 2, top + height / 2]
      const at = document.elementFromPoint(x, y)
      // Handles of one section may meet where their levels do; each has its scale below.
      const handles = control.matches('[data-gain-handle]') && at?.closest('[data-gain-handle]')
      const label = at?.closest('label')
      if (!at || !(control.contains(at) || at.contains(control) || label?.contains(control) || handles))
        found.push(`covered: ${nameOf(control)} by ${at ? nameOf(at) : 'nothing: it is outside'}`)
      // A link within a sentence is as high as its line (WCAG 2.5.8, inline).
      const inline =
        control.closest('p, li, td, th, caption, dd') && getComputedStyle(control).display.startsWith('inline')
      const small = inline ? Math.min(24, target) : target
      if (height < small - 0.6 || (width < Math.min(small, 24) - 0.6 && !inline))
        found.push(`small: ${nameOf(control)} (${width.toFixed(0)} × ${height.toFixed(0)})`)
    }
    return [...new Set(found)]
  }, least)
