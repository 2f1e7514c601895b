import { useEventListener, useResizeObserver } from '@vueuse/core'
import type { Ref } from 'vue'

/**
 * What comes in late does not push what is about to be pressed from under the pointer: the room it has once taken it keeps,
 * and what it takes more is scrolled by where somebody is at work below it.
 */
export function useSteady(box: Ref<HTMLElement | null>): void {
  let tallest: number | null = null
  let pointer: { clientX: number; clientY: number } | null = null
  useEventListener(document, 'pointermove', (event: PointerEvent) => (pointer = event), { passive: true })
  useResizeObserver(box, () => {
    const one = box.value
    if (!one) return
    const height = one.offsetHeight
    if (tallest !== null && height <= tallest) return
    const more = height - (tallest ?? height)
    tallest = height
    one.style.minHeight = `${height}px`
    const scroller = scrollerOf(one)
    if (more && isBelow(one, scroller, pointer)) scroller.scrollTop += more
  })
}

function scrollerOf(one: HTMLElement): Element {
  for (let parent = one.parentElement; parent; parent = parent.parentElement) if (/auto|scroll/.test(getComputedStyle(parent).overflowY)) return parent
  return document.documentElement
}

/** Whether the pointer or the keyboard is in what lies below it. */
function isBelow(one: HTMLElement, scroller: Element, pointer: { clientX: number; clientY: number } | null): boolean {
  const { bottom } = one.getBoundingClientRect()
  const focused = document.activeElement
  if (focused && focused !== one && scroller.contains(focused) && one.compareDocumentPosition(focused) & Node.DOCUMENT_POSITION_FOLLOWING) return true
  if (!pointer) return false
  const { left, right } = scroller.getBoundingClientRect()
  // What it grew by has moved what was under the pointer down by as much.
  return pointer.clientX >= left && pointer.clientX <= right && pointer.clientY > bottom - one.offsetHeight
}
