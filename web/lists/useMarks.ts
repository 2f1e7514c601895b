import { computed, shallowRef } from 'vue'
import type { Ref } from 'vue'
import type { Line } from './useList'

/** The rows that are marked, also those of pages turned since. */
export function useMarks(rows: Ref<Line[]>) {
  const marked = shallowRef(new Set<number>())
  const seen = new Map<number, Line>()

  /** Marks a row, or takes its mark away; from another row on, all between them. */
  function mark(index: number, from: number | null): void {
    const line = rows.value[index]
    if (!line) return
    const next = new Set(marked.value)
    const on = !next.has(line.id)
    const span = from !== null && from >= 0 ? rows.value.slice(Math.min(from, index), Math.max(from, index) + 1) : [line]
    for (const one of span) {
      if (on) next.add(one.id)
      else next.delete(one.id)
      seen.set(one.id, one)
    }
    marked.value = next
  }
  function markAll(): void {
    const all = rows.value.every((row) => marked.value.has(row.id))
    rows.value.forEach((row) => seen.set(row.id, row))
    marked.value = all ? new Set() : new Set(rows.value.map((row) => row.id))
  }
  /** As they are now, where they are on the page. */
  const markedLines = computed(() => [...marked.value].map((id) => rows.value.find((row) => row.id === id) ?? seen.get(id)!).filter(Boolean))
  function unmark(ids: number[]): void {
    marked.value = new Set([...marked.value].filter((id) => !ids.includes(id)))
  }
  return { marked, markedLines, mark, markAll, unmark }
}
