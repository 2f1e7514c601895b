/** As much of the Web Speech API as is used; browsers that have it may call it by their own name. */
export interface Recognition {
  lang: string
  continuous: boolean
  interimResults: boolean
  processLocally?: boolean
  onresult: ((event: { resultIndex: number; results: ArrayLike<{ isFinal: boolean; 0: { transcript: string } }> }) => void) | null
  onerror: ((event: { error: string }) => void) | null
  onend: (() => void) | null
  start: () => void
  stop: () => void
}

/** What hears in this browser; null where nothing does. */
export function recognitionHere(): (new () => Recognition) | null {
  const all = globalThis as unknown as Record<string, new () => Recognition>
  return all.SpeechRecognition ?? all.webkitSpeechRecognition ?? null
}
