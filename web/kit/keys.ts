import { onMounted, onUnmounted } from 'vue'

/** Whether a key belongs to what is being typed in. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  return !!target?.closest('input, textarea, select, [contenteditable="true"], [role="dialog"]')
}

/** Whether a dialog is open: it has the keyboard to itself. */
export const inDialog = () => document.querySelector('[role="dialog"]') !== null

/** Calls back for keys pressed anywhere but in a field. Answer true when the key was used. */
export function useKeys(pressed: (key: string, event: KeyboardEvent) => boolean | void): void {
  const listen = (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey || event.metaKey || isTyping(event) || inDialog()) return
    if (event.ctrlKey && event.key.toLowerCase() !== 'k') return
    if (pressed(event.key, event) === true) event.preventDefault()
  }
  onMounted(() => window.addEventListener('keydown', listen))
  onUnmounted(() => window.removeEventListener('keydown', listen))
}
