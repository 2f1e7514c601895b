/** Stands for the server in tests of screens: answers in order, or by address, and keeps what was sent. */
export interface Sent {
  method: string
  url: string
  body: Record<string, unknown>
  key: string | undefined
}

type Reply = { status?: number; body: unknown }
type Answer = Reply | ((sent: Sent) => Reply)

export function answering(routes: Record<string, Answer>): Sent[] {
  const sent: Sent[] = []
  Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => Math.random().toString(16).slice(2).padEnd(32, '0'), configurable: true })
  globalThis.fetch = ((url: string, init: RequestInit) => {
    const mine: Sent = {
      method: init.method!,
      url,
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as Record<string, unknown>) : {},
      key: (init.headers as Record<string, string>)['Idempotency-Key'],
    }
    sent.push(mine)
    const route = Object.keys(routes).find((one) => `${mine.method} ${url}`.startsWith(one))
    if (!route) return Promise.reject(new Error(`nothing answers ${mine.method} ${url}`))
    const answer = routes[route]!
    const { status = 200, body } = typeof answer === 'function' ? answer(mine) : answer
    return Promise.resolve({
      ok: status < 400,
      status,
      headers: { get: () => null },
      json: () => Promise.resolve(JSON.parse(JSON.stringify(body)) as unknown),
    } as unknown as Response)
  }) as typeof fetch
  return sent
}

/** Lets everything that waits on an answered promise go on. */
export const settled = () => new Promise((resolve) => setTimeout(resolve, 0))
