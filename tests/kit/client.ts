import { randomUUID } from 'node:crypto'
import type { AnswerOf, Endpoint, InputOf, Problem } from '#contract/kit'
import { listNotices, signIn } from '#contract/people'
import type { Notice } from '#contract/people'
import { mustBeAsDescribed } from './described'

export interface Reply<Answer> {
  status: number
  body: Answer
  problem: Problem
  headers: Headers
  text: string
}

interface Sending {
  key?: string
  headers?: Record<string, string>
  file?: Blob
  /** Sent instead of the input, as it is. */
  raw?: string
}

/** Calls the server as a browser would: cookies kept, keys fresh unless given. */
export class Client {
  private cookie = ''

  constructor(readonly url: string) {}

  async signIn(person: string): Promise<this> {
    const reply = await this.call(signIn, { email: `${person}@skerry.example`, password: 'slack-tide-42' })
    if (reply.status !== 200) throw new Error(`${person} could not sign in: ${reply.text}`)
    this.cookie = reply.headers.get('set-cookie')!.split(';')[0]!
    return this
  }

  async call<E extends Endpoint<unknown, unknown>>(
    endpoint: E,
    input: InputOf<E> | Record<string, unknown>,
    sending: Sending = {},
  ): Promise<Reply<AnswerOf<E>>> {
    const rest: Record<string, unknown> = { ...(input as object) }
    let address = endpoint.path.replace(/:(\w+)/g, (_, word: string) => {
      const value = String(rest[word])
      delete rest[word]
      return encodeURIComponent(value)
    })
    const headers: Record<string, string> = { Cookie: this.cookie, ...(endpoint.method === 'POST' ? { 'Idempotency-Key': sending.key ?? randomUUID() } : {}) }
    let body: BodyInit | undefined
    if (endpoint.upload || endpoint.method === 'GET') {
      const given = Object.entries(rest).filter(([, value]) => value !== undefined)
      if (given.length) address += `?${new URLSearchParams(given.map(([name, value]) => [name, String(value)]))}`
    }
    if (endpoint.upload) {
      body = new FormData()
      if (sending.file) body.append('file', sending.file, 'photo.jpg')
    } else if (endpoint.method !== 'GET') {
      headers['Content-Type'] = 'application/json'
      body = sending.raw ?? JSON.stringify(rest)
    }
    const response = await fetch(this.url + address, { method: endpoint.method, headers: { ...headers, ...sending.headers }, body })
    const text = response.headers.get('content-type')?.includes('event-stream') ? '' : await response.text()
    const parsed: unknown = text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : {}
    if (response.status === 200 && !response.headers.has('Preference-Applied')) mustBeAsDescribed(endpoint, parsed)
    return { status: response.status, body: parsed as AnswerOf<E>, problem: parsed as Problem, headers: response.headers, text }
  }

  /** The answer, or an error that shows the problem. */
  async must<E extends Endpoint<unknown, unknown>>(endpoint: E, input: InputOf<E>, sending: Sending = {}): Promise<AnswerOf<E>> {
    const reply = await this.call(endpoint, input, sending)
    if (reply.status !== 200) throw new Error(`${endpoint.method} ${endpoint.path}: ${reply.status} ${reply.text}`)
    return reply.body
  }

  /** What the person signed in was told, newest first; waits until something fits. Notices are written after the act is answered. */
  async hears(fits: (sentence: string) => boolean): Promise<Notice[]> {
    for (let tries = 0; tries < 100; tries++) {
      const { rows } = await this.must(listNotices, {})
      if (rows.some(({ sentence }) => fits(sentence))) return rows
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('No fitting notice was heard.')
  }

  get session(): string {
    return this.cookie
  }
}
