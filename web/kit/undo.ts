import { defineStore } from 'pinia'
import { ref } from 'vue'
import { CallProblem } from './call'

interface Undoable {
  sentence: string
  undo: () => Promise<unknown>
}

const SHOWN_MS = 12_000

/** The last act, said in a sentence, with how to take it back while that is possible. */
export const useUndo = defineStore('undo', () => {
  const said = ref<{ sentence: string; wrong: boolean; undoable: boolean } | null>(null)
  let last: Undoable | null = null
  let timer: ReturnType<typeof setTimeout> | undefined

  function say(sentence: string, undo?: () => Promise<unknown>, wrong = false): void {
    clearTimeout(timer)
    last = undo ? { sentence, undo } : null
    said.value = { sentence, wrong, undoable: !!undo }
    timer = setTimeout(() => (said.value = null), SHOWN_MS)
  }

  async function undoLast(): Promise<void> {
    if (!last) return
    const act = last
    last = null
    try {
      await act.undo()
      say('Taken back.')
    } catch (error) {
      say(error instanceof CallProblem ? error.message : 'It could not be taken back.', undefined, true)
    }
  }

  return { said, say, undoLast }
})
