import { defineStore } from 'pinia'
import { onUnmounted, ref } from 'vue'
import type { LiveChange } from '#contract/insight'
import { reads, staleBy } from './read'
import { forgetting } from './session'

type Listener = (change: LiveChange | null) => void

/** The live line to the server: one for the whole screen, resuming by itself after it dropped. */
export const useLive = defineStore('live', () => {
  const connected = ref(false)
  const listeners = new Set<Listener>()
  forgetting.add(() => reads.clear())
  /** Who else has which Sheet open changed. */
  const presences = new Set<(sheet: { type: string; id: number }) => void>()
  let source: EventSource | null = null
  let last = 0
  let retry: ReturnType<typeof setTimeout> | undefined

  function tell(change: LiveChange | null): void {
    staleBy(change)
    listeners.forEach((listener) => listener(change))
  }

  function open(): void {
    if (source) return
    source = new EventSource(last ? `/api/live?after=${last}` : '/api/live')
    source.onopen = () => (connected.value = true)
    source.onmessage = (message) => {
      const change = JSON.parse(message.data as string) as LiveChange
      last = change.seq
      tell(change)
    }
    // Too far behind to be told change by change: everything is read anew.
    source.addEventListener('reset', () => tell(null))
    source.addEventListener('presence', (message) => {
      const sheet = JSON.parse((message as MessageEvent<string>).data) as { type: string; id: number }
      presences.forEach((listener) => listener(sheet))
    })
    source.onerror = () => {
      connected.value = false
      if (source?.readyState !== EventSource.CLOSED) return
      close()
      retry = setTimeout(open, 3000)
    }
  }

  function close(): void {
    clearTimeout(retry)
    source?.close()
    source = null
    connected.value = false
  }

  return { connected, open, close, listeners, presences }
})

/** Calls back on every change while the component is there; null means: read everything anew. */
export function onLiveChange(listener: Listener): void {
  const live = useLive()
  live.open()
  live.listeners.add(listener)
  onUnmounted(() => live.listeners.delete(listener))
}
