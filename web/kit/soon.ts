import { onUnmounted } from 'vue'

/** Runs the work a moment after the last of several calls, so that a burst of changes reads once. */
export function useSoon(work: () => unknown, milliseconds = 40): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  onUnmounted(() => clearTimeout(timer))
  return () => {
    clearTimeout(timer)
    timer = setTimeout(work, milliseconds)
  }
}
