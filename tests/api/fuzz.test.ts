import { request as httpRequest } from 'node:http'
import fc from 'fast-check'
import { contract } from '#contract'
import { isOpenDoor } from '#contract/kit'
import type { Endpoint } from '#contract/kit'
import { Client, House } from '../kit'
import { inputsFor } from '../kit/fuzz'
import type { Running } from '../kit'

/** Whatever is sent, it is the sender’s fault or done: never ours. Over the whole described API, from its own schemas. */
let house: House
let server: Running
let people: Record<string, Client>

/** More, and others, when looked for: EVRIX_FUZZ_TRIES=200 EVRIX_FUZZ_SEED=7. */
const TRIES = Number(process.env.EVRIX_FUZZ_TRIES ?? 8)
const SEED = Number(process.env.EVRIX_FUZZ_SEED ?? 20_261_125)
/** A stream that stays open, and what slows whoever tries it. */
const LEFT_OUT = ['followLive', 'signIn', 'signOut']

beforeAll(async () => {
  house = await House.open('fuzz')
  server = await house.start()
  const sign = (name: string) => new Client(server.url).signIn(name)
  const [coordinator, approver, technician, clerk, admin] = await Promise.all(
    ['maren.quill', 'ines.ferrall', 'bram.oyelaran', 'petra.lindqvist', 'wendeline.stroud'].map(sign),
  )
  people = { coordinator: coordinator!, approver: approver!, technician: technician!, clerk: clerk!, admin: admin!, anybody: new Client(server.url) }
})
afterAll(() => house?.close())

const WHO: Record<string, string> = {
  'orders.approve': 'approver',
  'field.work': 'technician',
  'ledger.post': 'clerk',
  'ledger.read': 'clerk',
  'setup.edit': 'admin',
}
const callerOf = (endpoint: Endpoint<never, unknown>): Client => people[isOpenDoor(endpoint.may) ? 'anybody' : (WHO[endpoint.may] ?? 'coordinator')]!

const described = Object.entries(contract).filter(([name, endpoint]) => !LEFT_OUT.includes(name) && !endpoint.upload)

test.each(described)('%s', async (_name, endpoint) => {
  const inputs = endpoint.input ? inputsFor(endpoint.input) : fc.constant({})
  const asked = endpoint as Endpoint<unknown, unknown>
  await fc.assert(
    fc.asyncProperty(inputs, async (input) => {
      const sent = input !== null && typeof input === 'object' && !Array.isArray(input) ? (input as Record<string, unknown>) : { it: input }
      const reply = await callerOf(endpoint)
        .call(asked, sent)
        .catch((error: Error) => {
          // Half a sign cannot be put into an address, by any caller.
          if (error instanceof URIError) return null
          // An answer that is not as described is a fault of its own, told by the tests that look at answers.
          if (error.message.includes('its description does not allow')) return null
          throw error
        })
      if (reply && reply.status >= 500) throw new Error(`${reply.status} ${reply.text}`)
    }),
    { numRuns: TRIES, seed: SEED },
  )
})

describe('what is no request at all', () => {
  const ends = (path: string, head: Record<string, string>, body: string, cut = false) =>
    new Promise<number>((resolve, reject) => {
      const sent = httpRequest(server.url + path, { method: 'POST', headers: { 'Idempotency-Key': 'fuzz-fuzz-fuzz-fuzz-fuzz', ...head } }, (response) => {
        response.resume()
        resolve(response.statusCode!)
      })
      sent.once('error', (error) => (cut ? resolve(0) : reject(error)))
      sent.write(body)
      if (!cut) sent.end()
      else setTimeout(() => sent.destroy(), 300)
    })
  const boundary = 'multipart/form-data; boundary=x'
  const part = '--x\r\nContent-Disposition: form-data; name="file"; filename="a.png"\r\nContent-Type: image/png\r\n\r\nnot whole'

  test('a body that ends in the middle, has no end, or is of an unknown kind', async () => {
    const files = '/api/counter/SKE/files'
    expect(await ends(files, { 'Content-Type': boundary }, part)).toBe(400)
    expect(await ends(files, { 'Content-Type': 'multipart/form-data' }, part)).toBe(400)
    expect(await ends(files, { 'Content-Type': boundary, 'Content-Length': '100000' }, part, true)).toBe(0)
    const json = { 'Content-Type': 'application/json' }
    const report = '/api/counter/SKE/requests'
    expect(await ends(report, { ...json, 'Content-Encoding': 'zstandard' }, '{}')).toBe(415)
    expect(await ends(report, { ...json, 'Content-Encoding': 'gzip' }, 'not gzip')).toBe(400)
    expect(await ends(report, { 'Content-Type': 'application/json; charset=klingon' }, '{}')).toBe(415)
    expect(await ends(report, json, '{"a":'.repeat(2_000))).toBe(400)
    expect(await ends(report, json, '[]')).toBe(400)
    expect(await ends('/open311/v2/requests.json', { 'Content-Type': boundary }, part)).toBe(400)
    expect((await fetch(`${server.url}/api/health`)).status).toBe(200)
  })

  test('an address that is no text, and cookies that are none', async () => {
    for (const path of ['/api/orders/%E0%A4%A', '/api/track/%00', '/c/%FF', '/open311/v2/requests/%FF.json', '/api/orders/1%20OR%201=1']) {
      const status = (await fetch(server.url + path, { headers: { Cookie: 'evrix_session=%E0%A4; evrix_session=\u00ff' } })).status
      expect([path, status < 500]).toEqual([path, true])
    }
  })

  test('forged pages of every list', async () => {
    const forged = [
      'W10',
      'bnVsbA',
      Buffer.from('["filled","x",1]').toString('base64url'),
      Buffer.from('["x","y","z"]').toString('base64url'),
      'é',
      '%',
      'a'.repeat(900),
    ]
    for (const after of forged)
      for (const path of ['/api/orders', '/api/requests', '/api/lists/orders', '/api/lists/requests', '/api/registers/places', '/api/search?q=tap&type=order'])
        expect(
          (
            await fetch(`${server.url}${path}${path.includes('?') ? '&' : '?'}after=${encodeURIComponent(after)}`, {
              headers: { Cookie: people.coordinator!.session },
            })
          ).status,
        ).toBeLessThan(500)
  })
})
