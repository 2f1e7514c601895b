import { readOrder, readAttachment, submitOrder } from '#contract/orders'
import { reportRequest, uploadCounterFile } from '#contract/requests'
import { address, call, CallProblem } from './call'
import { serverNow } from './format'

type Answer = Response | Error
const sent: { url: string; init: RequestInit }[] = []
let answers: Answer[] = []
const json = (body: unknown, status = 200, headers: Record<string, string> = {}) =>
  ({ ok: status < 400, status, headers: { get: (name: string) => headers[name] ?? null }, json: () => Promise.resolve(body) }) as unknown as Response

beforeEach(() => {
  sent.length = 0
  answers = []
  globalThis.fetch = ((url: string, init: RequestInit) => {
    sent.push({ url, init })
    const next = answers.shift()!
    return next instanceof Error ? Promise.reject(next) : Promise.resolve(next)
  }) as typeof fetch
  Object.defineProperty(globalThis.crypto, 'randomUUID', {
    value: () => `00000000-0000-4000-8000-${String(sent.length).padStart(12, '0')}`,
    configurable: true,
  })
})
const headersOf = (index: number) => sent[index]!.init.headers as Record<string, string>

test('path words go into the address, the rest into the body, and every POST has a key', async () => {
  answers = [json({ id: 7, version: 4, state: 'to_approve' })]
  expect(await call(submitOrder, { id: 7, version: 3 })).toEqual({ id: 7, version: 4, state: 'to_approve' })
  expect(sent[0]).toMatchObject({ url: '/api/orders/7/submit', init: { method: 'POST', body: '{"version":3}' } })
  expect(headersOf(0)['Idempotency-Key']).toMatch(/^[0-9a-f]{32}$/)
})

test('a lost answer is asked for again with the same key, so that nothing happens twice', async () => {
  answers = [new TypeError('network'), new TypeError('network'), json({ number: 'R-1', link: 'x' })]
  await call(reportRequest, { site: 'SKE', placeId: 1, summary: 's', description: 'd' })
  expect(sent).toHaveLength(3)
  expect(new Set([0, 1, 2].map((index) => headersOf(index)['Idempotency-Key'])).size).toBe(1)
})

test('no connection at all is said as such, after three tries, and keeps what was typed', async () => {
  answers = [new TypeError('a'), new TypeError('b'), new TypeError('c')]
  const problem = await call(readOrder, { id: 1 }).catch((error: unknown) => error as CallProblem)
  expect(problem).toBeInstanceOf(CallProblem)
  expect((problem as CallProblem).problem).toMatchObject({ status: 0, title: 'No connection' })
  expect((problem as CallProblem).message).toContain('What you typed is kept')
})

test('a refusal is not tried again, and its sentences are found at their fields', async () => {
  answers = [
    json(
      { type: 'about:blank', title: 'Not possible', status: 422, detail: 'No.', reasons: [{ code: 'x', sentence: 'Choose the team.', field: 'teamId' }] },
      422,
    ),
  ]
  const problem = (await call(submitOrder, { id: 7, version: 3 }).catch((error: unknown) => error)) as CallProblem
  expect(sent).toHaveLength(1)
  expect(problem.at('teamId')).toBe('Choose the team.')
  expect(problem.at('leadId')).toBeUndefined()
})

test('an answer that is no JSON still says something', async () => {
  answers = [{ ok: false, status: 502, headers: { get: () => null }, json: () => Promise.reject(new Error('html')) } as unknown as Response]
  const problem = (await call(readOrder, { id: 1 }).catch((error: unknown) => error)) as CallProblem
  expect(problem.problem).toMatchObject({ status: 502, title: 'Failed' })
})

test('the screen goes by the server’s clock', async () => {
  answers = [json({}, 200, { 'X-Evrix-Now': '2031-05-01T09:00:00.000Z' })]
  await call(readOrder, { id: 1 })
  expect(Math.abs(serverNow().getTime() - Date.parse('2031-05-01T09:00:00Z'))).toBeLessThan(1_000)
})

test('a file goes alone, and an address carries words and query', async () => {
  answers = [json({ claim: 'c', width: 1, height: 1 })]
  await call(uploadCounterFile, { site: 'SKE', name: 'left door.jpg' }, { file: new Blob(['x']) })
  expect(sent[0]!.url).toBe('/api/counter/SKE/files?name=left+door.jpg')
  expect(sent[0]!.init.body).toBeInstanceOf(FormData)
  expect(address(readAttachment, { id: 9 })).toBe('/api/attachments/9')
})
