import { useDebounceFn } from '@vueuse/core'
import { getCurrentScope, onScopeDispose } from 'vue'

/** Runs the work a moment after the last of several calls, so that a burst of changes reads once; never when its screen is gone. */
export function useSoon(work: () => unknown, milliseconds = 40): () => void {
  let gone = false
  if (getCurrentScope()) onScopeDispose(() => (gone = true))
  const soon = useDebounceFn(() => (gone ? undefined : work()), milliseconds)
  return () => void soon()
}
