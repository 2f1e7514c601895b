import { createECDH, createPublicKey, randomBytes, verify } from 'node:crypto'
import ece from 'http_ece'
import { dropPush, endMyDevice, keepDevice, keepPush, listMyDevices, readPushKey } from '#contract/devices'
import { sayOnOrder } from '#contract/talk'
import { castAt, Client, House, orderAt, startProgram } from '../kit'
import type { Cast, Running } from '../kit'

/** News told to browsers by Web Push: sealed for one browser alone, by the key it was shown, and given up where that is gone. */
/** Nobody listens there (the discard service, RFC 863). */
const NOBODY = 'http://127.0.0.1:9'
let house: House
let service: { addresses: string[]; stop: () => Promise<void> }
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('push')
  service = await startProgram('dist/server/push.js', process.env)
  server = await house.start({ EVRIX_PUSH_ORIGINS: `${service.addresses[0]} ${NOBODY}` })
  cast = await castAt(server.url)
})
afterAll(async () => {
  await house?.close()
  await service?.stop()
})

/** A browser with the keys of a subscription, as the standard has them. */
function browser(name: string) {
  const keys = createECDH('prime256v1')
  keys.generateKeys()
  const secret = randomBytes(16)
  const endpoint = `${service.addresses[0]}/push/${name}`
  const heard = async () => {
    const kept = (await (await fetch(endpoint)).json()) as { body: string; ttl: number; encoding: string; authorization: string }[]
    return kept.map(({ body, ...more }) => {
      const opened = ece.decrypt(Buffer.from(body, 'base64url'), { version: 'aes128gcm', privateKey: keys, authSecret: secret.toString('base64url') })
      return { ...more, told: JSON.parse(opened.toString()) as { sentence: string; leadsTo: string } }
    })
  }
  return { endpoint, p256dh: keys.getPublicKey('base64url'), auth: secret.toString('base64url'), heard }
}
async function until<T>(look: () => Promise<T>, isSo: (found: T) => boolean): Promise<T> {
  for (let n = 0; n < 80; n++) {
    const found = await look()
    if (isSo(found)) return found
    await new Promise((resolve) => setTimeout(resolve, 150))
  }
  throw new Error('It was not told in time.')
}
const waiting = () => house.rows<{ tries: number; next_at: Date }>('SELECT tries, next_at FROM push')
let marks = 0
async function said(text: string): Promise<{ id: number; visitId: number }> {
  const job = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(sayOnOrder, { orderId: job.id, mark: `push-mark-${String(++marks).padStart(10, '0')}`, audience: 'ours', text })
  return job
}

test('a new job and a message reach the browser, sealed for it alone (RFC 8291), signed by the key it was shown (RFC 8292)', async () => {
  const phone = browser('one')
  const { key } = await cast.technician.must(readPushKey, {})
  await cast.technician.must(keepPush, { endpoint: phone.endpoint, p256dh: phone.p256dh, auth: phone.auth })
  const { visitId } = await said('The key hangs in the porch')
  const heard = await until(phone.heard, (all) => all.some(({ told }) => told.sentence.includes('porch')))
  expect(heard.find(({ told }) => told.sentence.includes('porch'))).toMatchObject({
    encoding: 'aes128gcm',
    ttl: 86_400,
    told: { leadsTo: `/rounds/${visitId}` },
  })
  // The job itself was told before.
  expect(heard.length).toBeGreaterThanOrEqual(2)
  const [, token, shown] = /^vapid t=([\w.-]+), k=([\w-]+)$/.exec(heard[0]!.authorization)!
  expect(shown).toBe(key)
  const [head, body, signature] = token!.split('.')
  const point = Buffer.from(key!, 'base64url')
  const jwk = { kty: 'EC', crv: 'P-256', x: point.subarray(1, 33).toString('base64url'), y: point.subarray(33).toString('base64url') }
  const proof = { key: createPublicKey({ key: jwk, format: 'jwk' }), dsaEncoding: 'ieee-p1363' as const }
  expect(verify('sha256', Buffer.from(`${head}.${body}`), proof, Buffer.from(signature!, 'base64url'))).toBe(true)
  expect(JSON.parse(Buffer.from(body!, 'base64url').toString())).toMatchObject({ aud: service.addresses[0] })
  await until(waiting, (rows) => rows.length === 0)
})

test('only push services that are named are sent to; nobody else’s browser is dropped', async () => {
  const phone = browser('two')
  const keep = (endpoint: string) => cast.technician.call(keepPush, { endpoint, p256dh: phone.p256dh, auth: phone.auth })
  for (const elsewhere of ['https://internal.example/push/1', 'http://127.0.0.1:1/push/1'])
    expect((await keep(elsewhere)).problem.reasons![0]!.field).toBe('endpoint')
  expect((await keep('ftp://x.example')).status).toBe(400)
  await cast.technician.must(keepPush, { endpoint: phone.endpoint, p256dh: phone.p256dh, auth: phone.auth })
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  await stranger.must(dropPush, { endpoint: phone.endpoint })
  await said('Still told')
  await until(phone.heard, (all) => all.some(({ told }) => told.sentence.includes('Still told')))
  await cast.technician.must(dropPush, { endpoint: phone.endpoint })
  const before = (await phone.heard()).length
  await said('Not told')
  expect(await phone.heard()).toHaveLength(before)
  expect((await cast.anybody.call(readPushKey, {})).status).toBe(401)
})

test('a browser that is gone is forgotten, and nothing waits for it; a service that does not answer is tried later', async () => {
  const phone = browser('three')
  await cast.technician.must(keepPush, { endpoint: phone.endpoint, p256dh: phone.p256dh, auth: phone.auth })
  await fetch(phone.endpoint, { method: 'DELETE' })
  await said('Gone')
  const kept = () => house.rows('SELECT id FROM push_subscription WHERE endpoint = ?', [phone.endpoint])
  await until(kept, (rows) => rows.length === 0)
  const away = browser('four')
  await cast.technician.must(keepPush, { endpoint: `${NOBODY}/push/four`, p256dh: away.p256dh, auth: away.auth })
  await said('Later')
  const [put] = await until(waiting, (rows) => rows.some(({ tries }) => tries > 0))
  expect(new Date(put!.next_at).getTime()).toBeGreaterThan(Date.parse('2026-11-23T10:30:25Z'))
})

test('a lost phone that is ended is told nothing any more', async () => {
  const phone = browser('five')
  const ident = 'd'.repeat(43)
  const technician = await new Client(server.url).signIn('bram.oyelaran')
  await technician.must(keepDevice, { ident, name: 'Phone' })
  await technician.must(keepPush, { endpoint: phone.endpoint, p256dh: phone.p256dh, auth: phone.auth, ident })
  const [device] = (await technician.must(listMyDevices, {})).rows
  const other = await new Client(server.url).signIn('bram.oyelaran')
  await other.must(endMyDevice, { id: device!.id })
  expect(await house.rows('SELECT id FROM push_subscription WHERE endpoint = ?', [phone.endpoint])).toEqual([])
})
