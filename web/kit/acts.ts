import { defineStore } from 'pinia'
import { onUnmounted, shallowReactive } from 'vue'

/** Something a person can do now: by button, by key and by palette. */
export interface Act {
  label: string
  key?: string
  run: () => unknown
  /** Why it is not possible now; the palette shows it and does not run it. */
  whyNot?: string
  /** Where its button is: the key acts only while that is in sight. */
  sight?: string
  /** It changes something at once: its key waits for a moment, so that typing never does it. */
  changes?: boolean
}

/** What the palette offers and the keys run; each screen adds its own while it is there. */
export const useActs = defineStore('acts', () => {
  const sources = shallowReactive(new Set<() => Act[]>())
  const all = () => [...sources].flatMap((source) => source())
  return { sources, all }
})

/** Offers acts while the component is there. */
export function offerActs(source: () => Act[]): void {
  const acts = useActs()
  acts.sources.add(source)
  onUnmounted(() => acts.sources.delete(source))
}
