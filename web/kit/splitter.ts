import { ref, watch } from 'vue'

/** A pane's width that is remembered on this device. */
export function useWidth(name: string, start: number, least: number, most: number) {
  const kept = Number(localStorage.getItem(`evrix-width-${name}`))
  const width = ref(kept >= least && kept <= most ? kept : start)
  watch(width, (now) => localStorage.setItem(`evrix-width-${name}`, String(now)))
  const set = (wanted: number) => (width.value = Math.round(Math.min(most, Math.max(least, wanted))))
  return { width, set, least, most }
}
