import { nextTick } from 'vue'
import type { Ref } from 'vue'
import { useKeys } from '#web/kit'
import type { Line } from './useList'

interface Keyed {
  rows: Ref<Line[]>
  /** The row the keyboard stands on, the one that is open beside the list, the one whose essentials are shown. */
  at: Ref<number>
  open: Ref<number | null>
  peeking: Ref<number | null>
  focusRow: (index: number) => void
  showAt: (index: number) => void
  close: () => void
  turn: (by: 1 | -1) => void
}

/** A list by keyboard: arrows go from row to row, Enter opens, space shows the essentials, Esc goes back, pages turn. */
export function useListKeys({ rows, at, open, peeking, focusRow, showAt, close, turn }: Keyed) {
  function step(by: 1 | -1): void {
    if (!rows.value.length) return
    at.value = Math.min(rows.value.length - 1, Math.max(0, at.value + by))
    focusRow(at.value)
    if (open.value) showAt(at.value)
    if (peeking.value) peeking.value = rows.value[at.value]!.id
  }
  useKeys((key) => {
    if (key === 'ArrowDown' || key === 'ArrowUp') {
      step(key === 'ArrowDown' ? 1 : -1)
      return true
    }
    const here = rows.value[at.value]
    const onRow = !document.activeElement?.matches('a, button, input, summary')
    if (key === 'Enter' && here && onRow) {
      if (open.value === here.id) document.getElementById('list-sheet')?.focus()
      else showAt(at.value)
      return true
    }
    if (key === ' ' && here && onRow) {
      peeking.value = peeking.value === here.id ? null : here.id
      return true
    }
    if (key === 'Escape') {
      if (peeking.value) peeking.value = null
      else if (open.value) close()
      void nextTick(() => (at.value >= 0 ? focusRow(at.value) : undefined))
      return true
    }
    if (key === 'PageDown' || key === 'PageUp') {
      turn(key === 'PageDown' ? 1 : -1)
      return true
    }
  })
  return { step }
}
