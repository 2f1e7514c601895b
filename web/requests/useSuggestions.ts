import { computed, onUnmounted, watch } from 'vue'
import type { ComputedRef } from 'vue'
import { readSuggestions } from '#contract/requests'
import type { Suggestions } from '#contract/requests'
import { useRead } from '#web/kit'

const LOOK_AGAIN_MS = 1_500

/** What history says of a request, read again with each of its versions; all who ask for the same share one answer. */
export function useSuggestions(of: { requestId: number; version: number }): ComputedRef<Suggestions | null> {
  const read = useRead(readSuggestions, () => ({ id: of.requestId }), { holds: true })
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(
    () => of.version,
    () => void read.load(),
  )
  // History is read once after a start; it is there in a moment.
  watch(read.value, (now) => {
    clearTimeout(timer)
    if (now && !now.ready) timer = setTimeout(() => void read.load(), LOOK_AGAIN_MS)
  })
  onUnmounted(() => clearTimeout(timer))
  return computed(() => read.value.value)
}
