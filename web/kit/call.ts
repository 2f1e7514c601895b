import type { Endpoint, Problem } from '#contract/kit'
import type { Reason } from '#core/kit'
import { setServerNow } from './format'

/** The server said no, or did not answer. `problem.reasons` say what to mend, field by field. */
export class CallProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }

  get reasons(): Reason[] {
    return this.problem.reasons ?? []
  }

  /** The sentence for a field, when there is one. */
  at(field: string): string | undefined {
    return this.reasons.find((reason) => reason.field === field)?.sentence
  }

  /** What is said where no field is named, at which it would stand. */
  get apart(): string | null {
    return this.reasons.some(({ field }) => field) ? null : (this.reasons[0]?.sentence ?? this.message)
  }
}

/** A key for one change: sent again unchanged when an answer is lost, so that nothing happens twice. */
export const freshKey = () => crypto.randomUUID().replaceAll('-', '')

const TRIES = 3

interface Sending {
  key?: string
  file?: Blob
  /** Milliseconds after which an answer is not waited for any longer. */
  within?: number
  /** Only whether it was done is asked for, not how things stand then. */
  minimal?: boolean
}

/**
 * Calls an endpoint of the contract. A lost answer is asked for again with the same key.
 *
 * @example const sheet = await call(readOrder, { id: 7 })
 * @throws CallProblem
 */
export async function call<Input extends object, Answer>(endpoint: Endpoint<Input, Answer>, input: Input, sending: Sending = {}): Promise<Answer> {
  const { url, init } = requestFor(endpoint, input, sending)
  for (let tries = 1; ; tries++) {
    try {
      const asked = Date.now()
      const response = await fetch(url, sending.within ? { ...init, signal: AbortSignal.timeout(sending.within) } : init)
      const now = response.headers.get('X-Evrix-Now')
      // It was written somewhere on the way there and back.
      if (now) setServerNow(now, (Date.now() - asked) / 2)
      if (!response.ok) throw new CallProblem(await problemOf(response))
      // An answer that breaks off on its way is as good as none.
      return (await response.json()) as Answer
    } catch (error) {
      if (error instanceof CallProblem) throw error
      const isLate = error instanceof DOMException && error.name === 'TimeoutError'
      if (isLate || tries === TRIES) throw new CallProblem(NOT_REACHED)
      await new Promise((resolve) => setTimeout(resolve, 300 * tries))
    }
  }
}

const NOT_REACHED: Problem = {
  type: 'about:blank',
  title: 'No connection',
  status: 0,
  detail: 'The server cannot be reached. What you typed is kept here; try again.',
}

async function problemOf(response: Response): Promise<Problem> {
  const fallback: Problem = { type: 'about:blank', title: 'Failed', status: response.status, detail: 'The server failed while doing this. Try again.' }
  return (await response.json().catch(() => fallback)) as Problem
}

function requestFor(
  endpoint: Endpoint<never, unknown> | Endpoint<object, unknown>,
  input: object,
  { key, file, minimal }: Sending,
): { url: string; init: RequestInit } {
  const { url, rest } = addressOf(endpoint.path, input)
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (endpoint.method === 'POST') headers['Idempotency-Key'] = key ?? freshKey()
  if (minimal) headers.Prefer = 'return=minimal'
  if (endpoint.upload) {
    const body = new FormData()
    body.append('file', file!)
    return { url: withQuery(url, rest), init: { method: endpoint.method, headers, body } }
  }
  if (endpoint.method === 'GET') return { url: withQuery(url, rest), init: { method: 'GET', headers } }
  headers['Content-Type'] = 'application/json'
  return { url, init: { method: endpoint.method, headers, body: JSON.stringify(rest) } }
}

/** The address of an endpoint for links and pictures, path words and query filled in. */
export function address<Input extends object>(endpoint: Endpoint<Input, unknown>, input: Input): string {
  const { url, rest } = addressOf(endpoint.path, input)
  return withQuery(url, rest)
}

function addressOf(path: string, input: object): { url: string; rest: Record<string, unknown> } {
  const rest = { ...input } as Record<string, unknown>
  const url = path.replace(/:(\w+)/g, (_, word: string) => {
    const value = String(rest[word])
    delete rest[word]
    return encodeURIComponent(value)
  })
  return { url, rest }
}

function withQuery(url: string, rest: Record<string, unknown>): string {
  const given = Object.entries(rest).filter(([, value]) => value !== undefined && value !== null && value !== '')
  return given.length ? `${url}?${new URLSearchParams(given.map(([name, value]) => [name, String(value)]))}` : url
}
