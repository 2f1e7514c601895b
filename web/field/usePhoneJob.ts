import { computed, nextTick, ref, watch } from 'vue'
import type { Loading } from '#web/kit'
import { CallProblem, useDraft } from '#web/kit'

interface PhoneJob {
  visitState: string
}

/** One job on a phone: one act at a time, what is open below the facts, and the last refusal at its field. */
export function usePhoneJob<Job extends PhoneJob, Form extends string, Where extends string = never>(
  job: Loading<Job>,
  sendPhoto: (file: File) => Promise<Job | null>,
) {
  const it = computed(() => job.value.value)
  const busy = ref(false)
  const problem = ref<CallProblem | null>(null)
  /** Where the last act was pressed, if it is said there what was refused. */
  const at = ref<Where | null>(null)
  const problemAt = (where: Where) => (at.value === where ? problem.value : null)
  /** What was refused and is said nowhere else. */
  const said = computed(() => (problem.value && !open.value && !at.value ? (problem.value.reasons[0]?.sentence ?? problem.value.message) : null))
  const open = ref<Form | null>(null)
  // What is opened by the bar below stands where it is seen, however much lies above it; whoever opened it by key goes on in it.
  watch(open, async () => {
    const byKey = document.activeElement?.matches('button:focus-visible') ?? false
    await nextTick()
    const form = document.querySelector('.phone main form.card')
    form?.scrollIntoView?.({ block: 'center' })
    if (byKey) form?.querySelector<HTMLElement>('textarea, input:not([type="file"])')?.focus({ preventScroll: true })
  })
  const note = useDraft(() => `note-${location.pathname}`)
  const over = computed(() => it.value?.visitState === 'ended')

  /** Does it and shows what the server says then, if it says so yet; what is open stays open. What is refused is said at `where`. */
  async function keepOpen(run: () => Promise<Job | null>, where: Where | null = null): Promise<boolean> {
    busy.value = true
    problem.value = null
    at.value = where
    try {
      const now = await run()
      if (now) job.value.value = now
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error
      return false
    } finally {
      busy.value = false
    }
  }

  /** The same, with what was open for it; a refusal leaves the form open with what was typed. */
  async function act(run: () => Promise<Job | null>): Promise<boolean> {
    const sent = open.value
    const done = await keepOpen(run)
    // A form opened meanwhile is not the one that was sent: it stays, with what is typed in it.
    if (done && open.value === sent) open.value = null
    return done
  }

  const actAt = (where: Where, run: () => Promise<Job | null>) => keepOpen(run, where)

  async function photo([file]: File[]): Promise<void> {
    if (file) await keepOpen(() => sendPhoto(file))
  }

  async function addNote(send: (text: string) => Promise<Job | null>): Promise<void> {
    if (await act(() => send(note.value))) note.value = ''
  }

  return { it, busy, problem, problemAt, said, open, note, over, act, actAt, keepOpen, photo, addNote }
}
