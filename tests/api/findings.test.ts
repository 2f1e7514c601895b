import sharp from 'sharp'
import { addNote, finishJob, readJob, switchStint } from '#contract/field'
import type { JobSheet } from '#contract/field'
import {
  addFinding,
  addFindingPhoto,
  joinFindings,
  listFindings,
  makeFindingOrders,
  readSurroundings,
  readOrderFindings,
  setFindingsAside,
  takeBackFinding,
  takeUpFinding,
} from '#contract/findings'
import { cancelOrder, discardOrder, readAttachment, readOrder, readOrderTimeline } from '#contract/orders'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** Something wrong that was noticed on the way: recorded on the phone, decided at the desk, put right by an order that is linked back. */
let house: House
let server: Running
let cast: Cast
let stranger: Client
beforeAll(async () => {
  house = await House.open('findings')
  server = await house.start()
  cast = await castAt(server.url)
  stranger = await new Client(server.url).signIn('fintan.rosewarne')
})
afterAll(() => house?.close())

let last = 0
const mark = () => `finding-${String(++last).padStart(12, '0')}`
const seen = (changed: object = {}) => ({ mark: mark(), text: 'Seal worn', severity: 'repair' as const, fixedNow: false, ...changed })
const codes = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)
const placeId = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id
const photo = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
        .jpeg()
        .toBuffer(),
    ),
  ])
async function found(...all: object[]): Promise<{ id: number; visitId: number; ids: number[]; sheet: JobSheet }> {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  for (const one of all) await cast.technician.must(addFinding, { visitId, ...seen(one) })
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Noisy', cause: 'Wear', fix: 'Cleaned' })
  const sheet = await cast.technician.must(readJob, { visitId })
  return { id, visitId, ids: sheet.findings.map((one) => one.id), sheet }
}
const rowOf = async (orderId: number) => (await cast.coordinator.must(readOrderFindings, { orderId })).found

test('recorded where the job is unless it is said, with photos, and taken back while the desk has done nothing', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const studio = await placeId('GAN-102')
  const [first, second] = [seen(), seen({ text: 'Rail loose', severity: 'unsafe', placeId: studio, pin: { planId: await placeId('GAN-1'), at: [3.25, 4] } })]
  await cast.technician.must(addFinding, { visitId, ...first, happenedAt: '2026-11-23T09:00:00Z' })
  await cast.technician.must(addFinding, { visitId, ...second })
  const { findings } = await cast.technician.must(addFindingPhoto, { visitId, mark: second.mark }, { file: await photo() })
  const order = await cast.coordinator.must(readOrder, { id })
  expect(findings).toMatchObject([
    { mark: first.mark, at: '2026-11-23T09:00:00.000Z', who: 'Bram Oyelaran', state: 'open', mayTakeBack: true, photos: [] },
    { mark: second.mark, severity: 'unsafe', pin: { at: [3.25, 4] }, photos: [{ id: expect.any(Number) as number }] },
  ])
  expect(findings[0]!.where).toContain(order.asset?.tag ?? order.place!.code)
  expect(findings[1]!.where).toMatch(/^GAN-102 /)
  expect(order.findings).toEqual({ found: 2, answers: 0 })
  const { findings: left } = await cast.technician.must(takeBackFinding, { visitId, mark: first.mark })
  expect(left.map((one) => one.mark)).toEqual([second.mark])
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['finding.add', 'finding.photo', 'finding.takeBack']))
  await cast.coordinator.hears((sentence) => sentence.startsWith(`Unsafe, found on ${order.number}: GAN-102`))
})

test('once each, also when it is sent again under another key; what is not there is refused at its field', async () => {
  const { visitId } = await orderAt(cast, 'dispatched')
  const one = seen()
  const key = 'finding-sent-twice-1'
  await cast.technician.must(addFinding, { visitId, ...one }, { key })
  expect((await cast.technician.must(addFinding, { visitId, ...one }, { key })).findings).toHaveLength(1)
  expect(await codes(cast.technician.call(addFinding, { visitId, ...one }))).toEqual(['finding_known'])
  const wrong = async (changed: object) => (await cast.technician.call(addFinding, { visitId, ...seen(changed) })).problem.reasons?.map(({ field }) => field)
  expect(await wrong({ text: '  ' })).toEqual(['text'])
  expect(await wrong({ severity: 'awful' })).toEqual(['severity'])
  expect(await wrong({ placeId: 999_999 })).toEqual(['placeId'])
  expect(await wrong({ placeId: await placeId('MUS') })).toEqual(['placeId'])
  expect(await wrong({ assetId: 999_999 })).toEqual(['assetId'])
  expect(await wrong({ stepId: 999_999 })).toEqual(['stepId'])
  expect(await wrong({ pin: { planId: await placeId('MUS'), at: [1, 1] } })).toEqual(['pin'])
  expect(await wrong({ pin: { planId: 1, at: [1] } })).toEqual([expect.stringMatching(/^pin/)])
  expect(await wrong({ mark: 'x' })).toEqual(['mark'])
  expect((await cast.technician.must(readJob, { visitId })).findings).toHaveLength(1)
  expect((await cast.technician.call(addFindingPhoto, { visitId, mark: mark() }, { file: await photo() })).status).toBe(404)
})

test('an order each, or one for several; each knows where it came from and starts with what was found', async () => {
  const [a, b] = [await placeId('GAN-102'), await placeId('GAN-104')]
  const { id, ids } = await found(
    { placeId: a },
    { placeId: b, text: 'Rail loose', severity: 'unsafe' },
    { placeId: a, text: 'Lamp flickers', severity: 'watch' },
  )
  const number = (await cast.coordinator.must(readOrder, { id })).number
  const waits = await cast.coordinator.must(listFindings, {})
  expect(waits.rows.map((row) => row.id)).toEqual(expect.arrayContaining(ids))
  const { orders } = await cast.coordinator.must(makeFindingOrders, { groups: [[ids[0]!, ids[1]!], [ids[2]!]] })
  const [both, one] = [await cast.coordinator.must(readOrder, { id: orders[0]!.id }), await cast.coordinator.must(readOrder, { id: orders[1]!.id })]
  expect(both).toMatchObject({ state: 'draft', summary: `2 findings of ${number}`, priority: 'urgent', findings: { found: 0, answers: 2 } })
  expect(both.place!.code).toBe('GAN-1')
  expect(both.description.split('\n')).toHaveLength(2)
  expect(one).toMatchObject({ summary: 'Lamp flickers', priority: 'deferred', place: { code: 'GAN-102' } })
  expect(one.prioritySentence).toContain(number)
  expect(one.shares).toHaveLength(1)
  const rows = await rowOf(id)
  expect(rows.map(({ state, answeredBy }) => [state, answeredBy?.number])).toEqual([
    ['ordered', both.number],
    ['ordered', both.number],
    ['ordered', one.number],
  ])
  expect(await codes(cast.coordinator.call(makeFindingOrders, { groups: [[ids[0]!]] }))).toEqual(['finding_over'])
  expect(await codes(cast.coordinator.call(makeFindingOrders, { groups: [[ids[0]!], [ids[0]!]] }))).toEqual(['finding_twice'])
  expect((await cast.coordinator.must(readOrderFindings, { orderId: both.id })).answers).toHaveLength(2)
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.filter(({ kind }) => kind === 'finding.order').map(({ details }) => details)).toEqual([
    { order: one.number, findings: 1 },
    { order: both.number, findings: 2 },
  ])
})

test('cleared when the order that answers it is finished, and waiting again when that is called off or discarded', async () => {
  const { id, ids } = await found({}, { text: 'Rail loose' }, { text: 'Lamp flickers' })
  const follow = await orderAt(cast, 'dispatched')
  const { number } = await cast.coordinator.must(readOrder, { id: follow.id })
  await cast.coordinator.must(joinFindings, { ids: [ids[0]!], order: number.toLowerCase() })
  const { answers } = await cast.technician.must(readJob, { visitId: follow.visitId })
  expect(answers.map(({ text, state }) => [text, state])).toEqual([['Seal worn', 'ordered']])
  await cast.technician.must(switchStint, { visitId: follow.visitId, kind: 'work' })
  await cast.technician.must(finishJob, { visitId: follow.visitId, result: 'done', symptom: 'Noisy', cause: 'Wear', fix: 'Cleaned' })
  expect((await rowOf(id)).map(({ state }) => state)).toEqual(['cleared', 'open', 'open'])
  expect(await codes(cast.coordinator.call(joinFindings, { ids: [ids[1]!], order: number }))).toEqual(['order_over'])
  expect(await codes(cast.coordinator.call(joinFindings, { ids: [ids[1]!], order: 'W-9' }))).toEqual(['order_unknown'])
  const { orders } = await cast.coordinator.must(makeFindingOrders, { groups: [[ids[1]!], [ids[2]!]] })
  const drafts = await Promise.all(orders.map((one) => cast.coordinator.must(readOrder, { id: one.id })))
  await cast.coordinator.must(discardOrder, { id: drafts[0]!.id, version: drafts[0]!.version })
  await cast.coordinator.must(cancelOrder, { id: drafts[1]!.id, version: drafts[1]!.version, reason: 'Not needed' })
  const rows = await rowOf(id)
  expect(rows.map(({ state, answeredBy }) => [state, answeredBy?.number ?? null])).toEqual([
    ['cleared', number],
    ['open', null],
    ['open', null],
  ])
  expect((await cast.coordinator.must(listFindings, {})).rows.map((row) => row.id)).toEqual(expect.arrayContaining(ids.slice(1)))
})

test('set aside with a reason, and taken up again; what was put right at once waits for nothing', async () => {
  const { id, visitId, ids } = await found({}, { text: 'Tap tightened', fixedNow: true })
  const at = async () => (await rowOf(id)).map(({ state }) => state)
  expect(await at()).toEqual(['open', 'fixed'])
  expect((await cast.coordinator.call(setFindingsAside, { ids: [ids[0]!], reason: ' ' })).problem.reasons?.[0]?.field).toBe('reason')
  const { rows } = await cast.coordinator.must(setFindingsAside, { ids: [ids[0]!], reason: 'The wing comes down in May' })
  expect(rows[0]).toMatchObject({ state: 'aside', setAside: { by: 'Maren Quill', reason: 'The wing comes down in May' } })
  expect(await codes(cast.technician.call(takeBackFinding, { visitId, mark: (await cast.technician.must(readJob, { visitId })).findings[0]!.mark }))).toEqual([
    'finding_decided',
  ])
  expect(await codes(cast.coordinator.call(setFindingsAside, { ids: [ids[1]!], reason: 'No' }))).toEqual(['finding_over'])
  expect((await cast.coordinator.must(takeUpFinding, { id: ids[0]! })).state).toBe('open')
  expect(await codes(cast.coordinator.call(takeUpFinding, { id: ids[1]! }))).toEqual(['finding_over'])
})

test('two who decide at once: one order is made, and the other hears that it is', async () => {
  const { ids } = await found({})
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const replies = await Promise.all([cast.coordinator, other].map((who) => who.call(makeFindingOrders, { groups: [ids] })))
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 422])
})

test('whoever is to put it right sees the photo; nobody else in the field does, and technicians decide nothing', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const one = seen()
  await cast.technician.must(addFinding, { visitId, ...one })
  const { findings } = await cast.technician.must(addFindingPhoto, { visitId, mark: one.mark }, { file: await photo() })
  const photoId = findings[0]!.photos[0]!.id
  const look = async (who: Client) => (await who.call(readAttachment, { id: photoId })).status
  expect([await look(cast.technician), await look(stranger)]).toEqual([200, 404])
  const [{ technicianId }] = (await house.rows<{ technicianId: number }>(
    "SELECT t.id AS technicianId FROM technician t JOIN account a ON a.id = t.account_id WHERE a.email = 'fintan.rosewarne@skerry.example'",
  )) as [{ technicianId: number }]
  const follow = await orderAt(cast, 'dispatched', { technicianIds: [technicianId] })
  const { number } = await cast.coordinator.must(readOrder, { id: follow.id })
  await cast.coordinator.must(joinFindings, { ids: [findings[0]!.id], order: number })
  expect(await look(stranger)).toBe(200)
  expect((await stranger.must(readJob, { visitId: follow.visitId })).answers[0]).toMatchObject({ text: 'Seal worn', mayTakeBack: false })
  expect((await stranger.call(addFinding, { visitId, ...seen() })).status).toBe(404)
  expect((await stranger.call(takeBackFinding, { visitId, mark: one.mark })).status).toBe(404)
  expect((await cast.technician.call(makeFindingOrders, { groups: [[findings[0]!.id]] })).status).toBe(403)
  expect((await cast.technician.call(listFindings, {})).status).toBe(403)
  expect((await cast.coordinator.call(readOrderFindings, { orderId: 999_999 })).status).toBe(404)
  expect((await cast.coordinator.call(makeFindingOrders, { groups: [[999_999]] })).status).toBe(404)
  expect((await rowOf(id))[0]!.answeredBy!.number).toBe(number)
})

test('the building around the job is known to whoever has it: floors, rooms and machines as they are drawn, and no work on them', async () => {
  const { visitId } = await orderAt(cast, 'dispatched')
  const { floors } = await cast.technician.must(readSurroundings, { visitId })
  expect(floors.length).toBeGreaterThan(0)
  const spaces = floors.flatMap((floor) => floor.spaces)
  expect(spaces.filter(({ shape }) => shape).length).toBeGreaterThan(spaces.length / 2)
  expect(floors.flatMap((floor) => floor.assets).every(({ placeId }) => spaces.some(({ id }) => id === placeId))).toBe(true)
  expect(JSON.stringify(floors)).not.toMatch(/open|late|price|Minor/)
  expect((await stranger.call(readSurroundings, { visitId })).status).toBe(404)
})

test('nothing is added to what is charged or was called off', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(addNote, { visitId, text: 'Here' })
  const { version } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.must(cancelOrder, { id, version, reason: 'Called off' })
  expect((await cast.technician.call(addFinding, { visitId, ...seen() })).status).toBeGreaterThanOrEqual(400)
})
