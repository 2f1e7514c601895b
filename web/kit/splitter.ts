import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

/** A pane's width that is remembered on this device. */
export function useWidth(name: string, start: number, least: number, most: number) {
  const kept = useLocalStorage(`evrix-width-${name}`, start)
  const within = (wanted: number) => Math.round(Math.min(most, Math.max(least, wanted)))
  const width = computed(() => within(kept.value))
  const set = (wanted: number) => (kept.value = within(wanted))
  return { width, set, least, most }
}
