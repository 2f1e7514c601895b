import { endDevice, endMyDevice, keepDevice, listDevices, listMyDevices, readDeviceStanding } from '#contract/devices'
import { carryJobs } from '#contract/field'
import { readSelf } from '#contract/people'
import { Client, castAt, House } from '../kit'
import type { Cast, Running } from '../kit'

/** Devices that carry jobs along: the key of what they keep, and the end of one that is lost. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('devices')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const ident = (letter: string) => letter.repeat(43)
const person = (name: string) => new Client(server.url).signIn(name)

test('a device has one key for each person, the same each time it asks; nobody else’s', async () => {
  const [one, again] = [await person('bram.oyelaran'), await person('bram.oyelaran')]
  const kept = { ident: ident('a'), name: 'Chrome on Android' }
  const { key } = await one.must(keepDevice, kept)
  expect(key).toMatch(/^[0-9a-f]{64}$/)
  expect((await again.must(keepDevice, kept)).key).toBe(key)
  expect((await one.must(keepDevice, { ...kept, ident: ident('b') })).key).not.toBe(key)
  expect((await (await person('fintan.rosewarne')).must(keepDevice, kept)).key).not.toBe(key)
  // The answer holds a secret: under the same key of sending it is not told again.
  await one.must(keepDevice, kept, { key: 'sending00000000001' })
  expect((await one.call(keepDevice, kept, { key: 'sending00000000001' })).status).toBe(409)
  const [{ answer }] = (await house.rows<{ answer: string | null }>("SELECT answer FROM idempotency_key WHERE `key` = 'sending00000000001'")) as [
    { answer: string | null },
  ]
  expect(answer).toBeNull()
  expect((await new Client(server.url).call(keepDevice, kept)).status).toBe(401)
})

test('a lost device is ended: its session is over at once, its owner’s others are not, and it hears why', async () => {
  const [lost, other] = [await person('sunniva.teague'), await person('sunniva.teague')]
  const { key } = await lost.must(keepDevice, { ident: ident('c'), name: 'Safari on iOS' })
  await other.must(keepDevice, { ident: ident('d'), name: 'Chrome on Android' })
  const { rows } = await other.must(listMyDevices, {})
  const device = rows.find(({ name }) => name === 'Safari on iOS')!
  expect(device.endedAt).toBeNull()
  expect(await new Client(server.url).must(readDeviceStanding, { ident: ident('c') })).toEqual({ ended: false })
  const after = await other.must(endMyDevice, { id: device.id })
  expect(after.rows.find(({ id }) => id === device.id)?.endedAt).not.toBeNull()
  expect([(await lost.call(carryJobs, {})).status, (await other.call(carryJobs, {})).status]).toEqual([401, 200])
  const anybody = new Client(server.url)
  expect(await anybody.must(readDeviceStanding, { ident: ident('c') })).toEqual({ ended: true })
  expect(await anybody.must(readDeviceStanding, { ident: ident('z') })).toEqual({ ended: false })
  // Whoever signs in on it has it, with the key of what was not sent.
  expect((await (await person('sunniva.teague')).must(keepDevice, { ident: ident('c'), name: 'Safari on iOS' })).key).toBe(key)
  expect(await anybody.must(readDeviceStanding, { ident: ident('c') })).toEqual({ ended: false })
})

test('administrators end devices of those whom they administer; others end their own alone', async () => {
  const bram = await person('bram.oyelaran')
  await bram.must(keepDevice, { ident: ident('e'), name: 'Firefox on Linux' })
  const { accountId } = await bram.must(readSelf, {})
  const admin = await person('wendeline.stroud')
  const { rows } = await admin.must(listDevices, { accountId })
  const { id } = rows.find(({ name }) => name === 'Firefox on Linux')!
  expect((await cast.coordinator.call(listDevices, { accountId })).status).toBe(403)
  expect((await (await person('fintan.rosewarne')).call(endMyDevice, { id })).status).toBe(404)
  const elsewhere = await admin.call(endDevice, { accountId: accountId + 1, id })
  expect(elsewhere.status).toBe(404)
  await admin.must(endDevice, { accountId, id })
  expect((await bram.call(carryJobs, {})).status).toBe(401)
  // Ended twice is ended.
  expect((await admin.call(endDevice, { accountId, id })).status).toBe(200)
})
