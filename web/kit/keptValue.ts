import { ref, watch } from 'vue'
import type { Ref } from 'vue'

/** What is typed over a value that stands, kept once when it is left or Enter is pressed; nothing, or what `keep` refuses, shows again what stands. */
export function useKeptValue<T>(
  stands: () => T,
  keep: (value: T) => Promise<boolean>,
  read: (typed: T | null) => T | null = (typed) => typed,
): { typed: Ref<T | null>; leave: () => Promise<void> } {
  const typed = ref(stands()) as Ref<T | null>
  watch(stands, (value) => (typed.value = value))
  /** What is being kept, so that Enter and leaving keep it once. */
  let keeping: T | null = null
  async function leave(): Promise<void> {
    const value = read(typed.value)
    if (value === null || value === stands() || value === keeping) {
      if (value !== keeping || value === null) typed.value = stands()
      return
    }
    keeping = value
    if (!(await keep(value))) typed.value = stands()
    keeping = null
  }
  return { typed, leave }
}
