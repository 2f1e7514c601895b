import { ref, shallowRef } from 'vue'
import { CallProblem } from './call'

/**
 * A file that is held against what is there before it is taken: looked at as soon as it is chosen, taken when that is
 * wished. What was refused is said in its sentence, and what was looked at before it stays.
 */
export function useTaking<Report>(send: (file: File, take: boolean) => Promise<Report>) {
  const file = shallowRef<File | null>(null)
  const report = shallowRef<Report | null>(null)
  const wrong = ref('')
  const busy = ref(false)

  async function ask(take: boolean): Promise<boolean> {
    if (!file.value) return false
    busy.value = true
    wrong.value = ''
    try {
      report.value = await send(file.value, take)
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      wrong.value = error.reasons[0]?.sentence ?? error.message
      if (!take) report.value = null
      return false
    } finally {
      busy.value = false
    }
  }
  function choose([chosen]: File[]): void {
    file.value = chosen ?? null
    report.value = null
    void ask(false)
  }
  return { file, report, wrong, busy, choose, look: () => ask(false), take: () => ask(true) }
}
