import { readonly, ref } from 'vue'
import { serverNow } from './format'

const now = ref(serverNow().getTime())
let ticking = false

/** The server's time in milliseconds, ticking for everything that draws time. */
export function useNow() {
  now.value = serverNow().getTime()
  if (!ticking) {
    ticking = true
    setInterval(() => (now.value = serverNow().getTime()), 5_000)
  }
  return readonly(now)
}
