import { onMounted, onUnmounted, ref } from 'vue'
import { showPresence } from '#contract/insight'
import { call } from './call'
import { useLive } from './live'

const SAY_AGAIN_MS = 15_000
/** This screen among all: two windows of one person are two screens. */
const SCREEN = crypto.randomUUID?.() ?? `screen-${Math.random().toString(36).slice(2)}-${Date.now()}`

/** Says which Sheet is open here, and who else has it open. */
export function usePresence(type: 'request' | 'order', id: number) {
  const others = ref<{ name: string; since: string }[]>([])
  let here = true
  const say = () =>
    call(showPresence, { screen: SCREEN, type, id }).then(
      (answer) => here && (others.value = answer.others),
      // Not to know who else is here is no reason to disturb anybody.
      () => undefined,
    )
  const hear = (sheet: { type: string; id: number }) => {
    if (sheet.type === type && sheet.id === id) void say()
  }
  const live = useLive()
  live.presences.add(hear)
  const timer = setInterval(() => void say(), SAY_AGAIN_MS)
  /** A window that is closed or goes elsewhere says so with its last breath. */
  const leave = () =>
    void fetch(showPresence.path, {
      method: showPresence.method,
      keepalive: true,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ screen: SCREEN }),
    }).catch(() => undefined)
  window.addEventListener('pagehide', leave)
  onMounted(say)
  onUnmounted(() => {
    here = false
    clearInterval(timer)
    live.presences.delete(hear)
    window.removeEventListener('pagehide', leave)
    leave()
  })
  return others
}
