import { reactive, ref, watch } from 'vue'
import { reportRequest } from '#contract/requests'
import type { CounterSpot, KeptFile } from '#contract/requests'
import type { Answers } from '#core/requests'
import { call, CallProblem, freshKey } from '#web/kit'

export interface ReportDraft {
  spot: CounterSpot | null
  categoryId: number | null
  formId: number | null
  answers: Answers
  summary: string
  description: string
  name: string
  email: string
  phone: string
  wish: string
  files: KeptFile[]
  /** Sent again with the same key, so that a lost answer never makes two. */
  key: string
  /** Was sent while the line was down: goes out by itself, also after the page was closed. */
  ready: boolean
}

const RETRY_MS = 4_000
const RECENT = 5
const blank = (): ReportDraft => ({
  spot: null,
  categoryId: null,
  formId: null,
  answers: {},
  summary: '',
  description: '',
  name: '',
  email: '',
  phone: '',
  wish: '',
  files: [],
  key: freshKey(),
  ready: false,
})

/** What somebody is reporting, kept on their device until it has arrived; a dropped line is waited out. */
export function useReportDraft(site: string) {
  const place = `evrix-report-${site}`
  const draft = reactive<ReportDraft>({ ...blank(), ...read<Partial<ReportDraft>>(place, {}) })
  const recent = ref(read<CounterSpot[]>(`${place}-recent`, []))
  const sending = ref(false)
  /** Ready to go, and waiting for the line to come back. */
  const waiting = ref(false)
  const problem = ref<CallProblem | null>(null)
  const sent = ref<{ number: string; link: string } | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  watch(draft, () => localStorage.setItem(place, JSON.stringify(draft)))

  async function send(): Promise<void> {
    clearTimeout(timer)
    sending.value = true
    problem.value = null
    const { spot, key, files, ready: _, ...words } = draft
    try {
      sent.value = await call(
        reportRequest,
        { ...words, site, placeId: spot!.placeId, assetId: spot!.assetId, fileClaims: files.map((file) => file.claim) },
        { key },
      )
      waiting.value = false
      recent.value = [{ ...spot! }, ...recent.value.filter((one) => one.code !== spot!.code)].slice(0, RECENT)
      localStorage.setItem(`${place}-recent`, JSON.stringify(recent.value))
      localStorage.removeItem(place)
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      // No line, or nobody behind it: the same request goes out again under the same key.
      waiting.value = draft.ready = error.problem.status === 0 || error.problem.status >= 502
      if (waiting.value) timer = setTimeout(() => void send(), RETRY_MS)
      else problem.value = error
    } finally {
      sending.value = false
    }
  }

  function again(): void {
    Object.assign(draft, blank())
    sent.value = null
    problem.value = null
  }

  function giveUpWaiting(): void {
    clearTimeout(timer)
    waiting.value = draft.ready = false
  }
  window.addEventListener('online', () => waiting.value && void send())
  if (draft.ready && draft.spot) {
    waiting.value = true
    void send()
  }

  return { draft, recent, sending, waiting, problem, sent, send, again, giveUpWaiting }
}

function read<T>(name: string, otherwise: T): T {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') ?? otherwise
  } catch {
    return otherwise
  }
}
