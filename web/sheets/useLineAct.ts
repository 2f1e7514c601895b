import { computed, ref } from 'vue'
import { CallProblem, useUndo } from '#web/kit'

/** Sends one change of a list on a Portrait, and hands on what stands then; what is refused stands at its field and nothing typed is lost. */
export function useLineAct<T>(now: (stands: T) => void) {
  const said = useUndo()
  const problem = ref<CallProblem | null>(null)
  const busy = ref(false)
  async function act(send: () => Promise<T>, done: string): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    problem.value = null
    try {
      now(await send())
      said.say(done)
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error
      if (!error.reasons.some((reason) => reason.field)) said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
      return false
    } finally {
      busy.value = false
    }
  }
  const at = (field: string) => problem.value?.reasons.find((reason) => reason.field === field)?.sentence
  /** The first of what was refused, for a form whose fields may be out of sight. */
  const first = computed(() => problem.value?.reasons.find((reason) => reason.field)?.sentence ?? '')
  return { act, at, busy, first }
}
